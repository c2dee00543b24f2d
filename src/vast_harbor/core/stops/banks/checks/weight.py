"""What a bank's weight does to the rig."""

from collections.abc import Iterator

from vast_harbor.core.figures.workings import REFERENCE, Figure, Sentence, computed, typed
from vast_harbor.core.installation.axle_load import trim_moment
from vast_harbor.core.stops.banks.checks.check import NOTE, OK, STOP, Build, Check

# A change of trim below this is not felt.
FELT_KGM = 50.0


def checks(build: Build) -> Iterator[Check]:
    """Payload, load of coupling or axles, and trim.

    Args:
        build: the bank in its rig.

    Yields:
        Checks.
    """
    loading, kind = build.plan.loading, build.plan.kind
    if kind == "cabin":
        return
    change = build.figures.get("kg_change", build.figures["kg"])
    if loading.payload_kg is not None:
        limit = build.entered("rig", "payload_kg", "Payload left", loading.payload_kg, "kg")
        yield build.compare_to_limit(
            "payload", "Payload", change, limit, "It adds {x}; {limit} of payload are left.",
            "It adds {x}, but only {limit} of payload are left.", STOP,
            "A lighter bank, a smaller one, or unload something else.",
        )  # fmt: skip
    if loading.old_x_m is None or loading.new_x_m is None:
        return
    old = build.old_kg or Figure(
        "rig.old.none_kg", "No old bank", 0.0, "kg", REFERENCE, source="None is entered"
    )
    x = {
        "x_new": typed("rig.new_x_m", "Lever of the new bank", loading.new_x_m, "m", "/rig/new_x_m"),
        "x_old": typed("rig.old_x_m", "Lever of the old bank", loading.old_x_m, "m", "/rig/old_x_m"),
        "m_new": build.figures["kg"],
        "m_old": old,
    }
    if kind == "boat":
        yield _trim(build, x)
        return
    if loading.base_m is None or build.criteria.shift_kg is None:
        return
    base = typed("rig.base_m", "Axle to coupling, or wheelbase", loading.base_m, "m", "/rig/base_m")
    shift = computed(
        f"{build.at}.coupling", "Change at the coupling" if kind == "caravan" else "Change on the front axle",
        build.criteria.shift_kg,
        "±kg",
        "({m_new} · {x_new} − {m_old} · {x_old}) / {L}", {**x, "L": base},
        "Levers about the (rear) axle; what lies ahead of it presses on the coupling or the front axle",
    )  # fmt: skip
    if kind == "caravan":
        yield from _coupling(build, shift)
    else:
        yield from _axles(build, shift, change)


def _trim(build: Build, x: dict[str, Figure]) -> Check:
    moment = computed(
        f"{build.at}.trim", "Change of the trim moment",
        trim_moment(x["m_new"].number, x["x_new"].number, x["m_old"].number, x["x_old"].number), "kg·m",
        "{m_new} · {x_new} − {m_old} · {x_old}", x, "Positive trims her by the bow",
    )  # fmt: skip
    felt = abs(moment.number) >= FELT_KGM
    return Check(
        "trim", "Trim", NOTE if felt else OK, Sentence("It changes the trim by {moment}.",
        {"moment": moment}),
        "Look at how she sits now: a bank further aft or forward may right her." if felt else "", moment,
    )  # fmt: skip


def _coupling(build: Build, shift: Figure) -> Iterator[Check]:
    loading, criteria = build.plan.loading, build.criteria.coupling
    if criteria is None or loading.coupling_kg is None or loading.coupling_max_kg is None:
        return
    now = build.entered("rig", "coupling_kg", "Load on the coupling now", loading.coupling_kg, "kg")
    most = build.entered("rig", "coupling_max_kg", "Most that it may be", loading.coupling_max_kg, "kg")
    then = computed(
        f"{build.at}.coupling_then", "Load on the coupling with it", criteria[1].value, "kg",
        "{now} + {change}", {"now": now, "change": shift},
    )  # fmt: skip
    if build.criteria.snakes:
        yield Check(
            "coupling_light", "Load on the coupling", STOP,
            Sentence("With it only {then} press on the coupling: the caravan would snake.", {"then": then}),
            "Stand it further forward.", then,
        )  # fmt: skip
        return
    yield build.compare_to_limit(
        "coupling", "Load on the coupling", then, most, "{x} press on it; {limit} are permitted.",
        "With it {x} press on the coupling; {limit} are permitted.", STOP,
        "Stand it nearer the axle or behind it, or choose a lighter bank.",
    )  # fmt: skip


def _axles(build: Build, front: Figure, change: Figure) -> Iterator[Check]:
    rear = computed(
        f"{build.at}.rear",
        "Change on the rear axle",
        build.criteria.kg_change - front.number,
        "±kg",
        "{Δm} − {front}",
        {"Δm": change, "front": front},
        "What the front axle does not bear, the rear one does",
    )
    sides = (("front", front, build.plan.loading.front_kg), ("rear", rear, build.plan.loading.rear_kg))
    for side, added, left in sides:
        if left is None:
            continue
        limit = build.entered("rig", f"{side}_axle_kg", f"Left on the {side} axle", left, "kg")
        yield build.compare_to_limit(
            f"{side}_axle", f"{side.capitalize()} axle", added, limit,
            f"{{x}} on the {side} axle; {{limit}} are left.",
            f"It adds {{x}} to the {side} axle, where {{limit}} are left.", STOP,
            "Stand it further from that axle, a lighter bank, or load something else elsewhere.",
        )  # fmt: skip
