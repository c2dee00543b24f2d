"""What a candidate's weight and price do to the rig and to the purse (part of Banks)."""

from collections.abc import Iterator, Mapping

from vast_harbor.core.loading import coupling_change, trim_moment
from vast_harbor.core.plan import Candidate, Plan
from vast_harbor.core.workings import REFERENCE, Figure, Finding, Sentence, computed, typed


def findings(
    plan: Plan, candidate: Candidate, f: Mapping[str, Figure], old: Figure | None
) -> tuple[Finding, ...]:
    """What there is to say about the weight and the price of a candidate.

    Args:
        plan: for payload, levers and ceiling.
        candidate: the candidate.
        f: its figures.
        old: weight of the old bank [kg]; None without one.

    Returns:
        Findings.
    """
    return (*_weight(plan, candidate, f, old), *_budget(plan, candidate, f))


def _weight(
    plan: Plan, candidate: Candidate, f: Mapping[str, Figure], old: Figure | None
) -> Iterator[Finding]:
    loading, kg, at = plan.loading, f["kg"], f"bank.{candidate.id}"
    old_kg = old.number if old else 0.0
    change = f.get("kg_change", kg)
    if loading.payload_kg is not None and plan.kind != "cabin" and change.number > loading.payload_kg:
        limit = typed("rig.payload_kg", "Payload left", loading.payload_kg, "kg", "/rig/payload_kg")
        yield Finding(
            "payload", "stop", "banks",
            Sentence("It adds {kg}, but only {limit} of payload are left.", {"kg": change, "limit": limit}),
            "A lighter bank, a smaller one, or unload something else.", candidate.id,
        )  # fmt: skip
    if loading.old_x_m is None or loading.new_x_m is None:
        return
    x = {
        "x_new": typed("rig.new_x_m", "Lever of the new bank", loading.new_x_m, "m", "/rig/new_x_m"),
        "x_old": typed("rig.old_x_m", "Lever of the old bank", loading.old_x_m, "m", "/rig/old_x_m"),
        "m_new": kg,
        "m_old": old
        or Figure("rig.old.none_kg", "No old bank", 0.0, "kg", REFERENCE, source="None is entered"),
    }
    if plan.kind == "boat":
        moment = computed(
            f"{at}.trim", "Change of the trim moment",
            trim_moment(kg.number, loading.new_x_m, old_kg, loading.old_x_m), "kg·m",
            "{m_new} · {x_new} − {m_old} · {x_old}", x, "Positive trims her by the bow",
        )  # fmt: skip
        if abs(moment.number) >= 50:
            yield Finding(
                "trim", "note", "banks",
                Sentence("It changes the trim by {moment}.", {"moment": moment}),
                "Look at how she sits now: a bank further aft or forward may right her.", candidate.id,
            )  # fmt: skip
        return
    if loading.base_m is None or plan.kind == "cabin":
        return
    base = typed("rig.base_m", "Axle to coupling, or wheelbase", loading.base_m, "m", "/rig/base_m")
    shift = computed(
        f"{at}.coupling", "Change at the coupling" if plan.kind == "caravan" else "Change on the front axle",
        coupling_change(kg.number, loading.new_x_m, old_kg, loading.old_x_m, loading.base_m), "kg",
        "({m_new} · {x_new} − {m_old} · {x_old}) / {L}", {**x, "L": base},
        "Levers about the (rear) axle; what lies ahead of it presses on the coupling or the front axle",
    )  # fmt: skip
    if plan.kind == "caravan" and loading.coupling_kg is not None and loading.coupling_max_kg is not None:
        now = typed(
            "rig.coupling_kg", "Load on the coupling now", loading.coupling_kg, "kg", "/rig/coupling_kg"
        )
        most = typed(
            "rig.coupling_max_kg",
            "Most that it may be",
            loading.coupling_max_kg,
            "kg",
            "/rig/coupling_max_kg",
        )
        then = computed(
            f"{at}.coupling_then",
            "Load on the coupling with it",
            now.number + shift.number,
            "kg",
            "{now} + {change}",
            {"now": now, "change": shift},
        )
        if then.number > most.number:
            yield Finding(
                "coupling",
                "stop",
                "banks",
                Sentence(
                    "With it {then} press on the coupling; {most} are permitted.",
                    {"then": then, "most": most},
                ),
                "Stand it nearer the axle or behind it, or choose a lighter bank.",
                candidate.id,
            )
        elif then.number <= 0:
            yield Finding(
                "coupling_light",
                "stop",
                "banks",
                Sentence(
                    "With it only {then} press on the coupling: the caravan would snake.", {"then": then}
                ),
                "Stand it further forward.",
                candidate.id,
            )


def _budget(plan: Plan, candidate: Candidate, f: Mapping[str, Figure]) -> Iterator[Finding]:
    if plan.budget is None:
        return
    purchase, extras = f["purchase"], f.get("extras")
    total = purchase
    if extras is not None and extras.number > 0:
        total = computed(
            f"bank.{candidate.id}.outlay",
            "Batteries and extras",
            purchase.number + extras.number,
            "money",
            "{P} + {X}",
            {"P": purchase, "X": extras},
        )
    if total.number > plan.budget:
        ceiling = typed("rig.budget", "Most to spend at once", plan.budget, "money", "/rig/budget")
        yield Finding(
            "budget", "care", "banks",
            Sentence("It costs {total}, more than the {ceiling} that you want to spend at once.",
                     {"total": total, "ceiling": ceiling}),
            "Plan for fewer nights, buy in steps, or take a cheaper class.", candidate.id,
        )  # fmt: skip
