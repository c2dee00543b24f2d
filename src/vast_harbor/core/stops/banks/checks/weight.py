"""What a bank's weight does to the rig."""

from collections.abc import Iterator

from vast_harbor.core.figures.workings import REFERENCE, Figure, Sentence, computed, typed
from vast_harbor.core.installation.axle_load import trim_moment
from vast_harbor.core.stops.banks.checks.check import CAUTION, NOTE, OK, Build, Check
from vast_harbor.phrases import phrase

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
        limit = build.entered(
            "rig", "payload_kg", phrase("checks.weight.payload_left"), loading.payload_kg, "kg"
        )
        yield build.compare_to_limit(
            "payload",
            phrase("checks.weight.payload_title"),
            change,
            limit,
            phrase("checks.weight.payload_holds"),
            phrase("checks.weight.payload_broken"),
            phrase("checks.weight.payload_remedy"),
        )
    else:
        yield _usual_payload(build)
    if loading.old_x_m is None or loading.new_x_m is None:
        return
    old = build.old_kg or Figure(
        "rig.old.none_kg",
        phrase("checks.weight.none_kg"),
        0.0,
        "kg",
        REFERENCE,
        source=phrase("checks.weight.none_kg_source"),
    )
    x = {
        "x_new": typed("rig.new_x_m", phrase("checks.weight.new_x_m"), loading.new_x_m, "m", "/rig/new_x_m"),
        "x_old": typed("rig.old_x_m", phrase("checks.weight.old_x_m"), loading.old_x_m, "m", "/rig/old_x_m"),
        "m_new": build.figures["kg"],
        "m_old": old,
    }
    if kind == "boat":
        yield _trim(build, x)
        return
    if loading.base_m is None or build.criteria.shift_kg is None:
        return
    base = typed("rig.base_m", phrase("checks.weight.base_m"), loading.base_m, "m", "/rig/base_m")
    shift = computed(
        f"{build.at}.coupling",
        phrase("checks.weight.coupling")
        if kind == "caravan"
        else phrase("checks.weight.change_front_axle_load"),
        build.criteria.shift_kg,
        "±kg",
        "({m_new} · {x_new} − {m_old} · {x_old}) / {L}",
        {**x, "L": base},
        phrase("checks.weight.coupling_source"),
    )
    if kind == "caravan":
        yield from _coupling(build, shift)
    else:
        yield from _axles(build, shift, change)


def _usual_payload(build: Build) -> Check:
    """The whole bank against what such rigs bear, where no payload is stated."""
    usual = build.assumptions.figure(f"bears_kg.{build.plan.kind}")
    if build.old_kg is not None and build.old_kg.number > usual.number:
        usual = build.old_kg
    return build.compare_to_limit(
        "payload",
        phrase("checks.weight.payload_title"),
        build.figures["kg"],
        usual,
        phrase("checks.weight.usual_payload_holds"),
        phrase("checks.weight.usual_payload_broken"),
        phrase("checks.weight.usual_payload_remedy"),
    )


def _trim(build: Build, x: dict[str, Figure]) -> Check:
    moment = computed(
        f"{build.at}.trim", phrase("checks.weight.trim"),
        trim_moment(x["m_new"].number, x["x_new"].number, x["m_old"].number, x["x_old"].number), "kg·m",
        "{m_new} · {x_new} − {m_old} · {x_old}", x, phrase("checks.weight.trim_source"),
    )  # fmt: skip
    felt = abs(moment.number) >= FELT_KGM
    return Check(
        "trim",
        phrase("checks.weight.trim_title"),
        NOTE if felt else OK,
        Sentence(phrase("checks.weight.changes_trim_moment"), {"moment": moment}),
        phrase("checks.weight.trim_remedy") if felt else "",
        moment,
    )


def _coupling(build: Build, shift: Figure) -> Iterator[Check]:
    loading, criteria = build.plan.loading, build.criteria.coupling
    if criteria is None or loading.coupling_kg is None or loading.coupling_max_kg is None:
        return
    now = build.entered(
        "rig", "coupling_kg", phrase("checks.weight.coupling_load_now"), loading.coupling_kg, "kg"
    )
    most = build.entered(
        "rig", "coupling_max_kg", phrase("checks.weight.highest_coupling_load"), loading.coupling_max_kg, "kg"
    )
    then = computed(
        f"{build.at}.coupling_then", phrase("checks.weight.coupling_then"), criteria[1].value, "kg",
        "{now} + {change}", {"now": now, "change": shift},
    )  # fmt: skip
    if build.criteria.snakes:
        yield Check(
            "coupling_light", phrase("checks.weight.coupling_light_title"),
            build.verdict("coupling_light", CAUTION),
            Sentence(phrase("checks.weight.coupling_light"), {"then": then}),
            phrase("checks.weight.coupling_light_remedy"), then,
        )  # fmt: skip
        return
    yield build.compare_to_limit(
        "coupling",
        phrase("checks.weight.coupling_title"),
        then,
        most,
        phrase("checks.weight.coupling_holds"),
        phrase("checks.weight.coupling_broken"),
        phrase("checks.weight.coupling_remedy"),
    )


def _axles(build: Build, front: Figure, change: Figure) -> Iterator[Check]:
    rear = computed(
        f"{build.at}.rear",
        phrase("checks.weight.rear"),
        build.criteria.kg_change - front.number,
        "±kg",
        "{Δm} − {front}",
        {"Δm": change, "front": front},
        phrase("checks.weight.rear_source"),
    )
    sides = (("front", front, build.plan.loading.front_kg), ("rear", rear, build.plan.loading.rear_kg))
    for side, added, left in sides:
        if left is None:
            continue
        limit = build.entered(
            "rig", f"{side}_axle_kg", phrase("checks.weight.margin_axle", side=side), left, "kg"
        )
        yield build.compare_to_limit(
            f"{side}_axle", phrase("checks.weight.axle", side=side.capitalize()), added, limit,
            phrase("checks.weight.axle_left", side=side),
            phrase("checks.weight.adds_axle_left", side=side),
            phrase("checks.weight.place_further_axle_choose"),
        )  # fmt: skip
