"""Beliefs about how much a bank gives."""

from collections.abc import Iterator

from vast_harbor.core.beliefs.belief import FALSE, HALF, TRUE, Claim, Ground, Settled, graded, near
from vast_harbor.core.figures.workings import REFERENCE, Figure, computed
from vast_harbor.phrases import phrase


def claims() -> Iterator[Claim]:
    """The beliefs of this module."""
    yield Claim("half_of_lead", phrase("beliefs.half_of_lead.claim"), "need", "", _half_of_lead)
    yield Claim("sealed_gives_80", phrase("beliefs.sealed_gives_80.claim"), "need", "", _sealed_gives_80)
    yield Claim("all_of_lfp", phrase("beliefs.all_of_lfp.claim"), "need", "", _all_of_lfp)
    yield Claim("one_for_two", phrase("beliefs.one_for_two.claim"), "need", "", _one_for_two)
    yield Claim("equal_ah", phrase("beliefs.equal_ah.claim"), "banks", "", _equal_ah)
    yield Claim(
        "series_adds_ah",
        phrase("beliefs.series_adds_ah.claim"),
        "banks",
        phrase("beliefs.series_adds_ah.needs"),
        _series_adds_ah,
    )


def said(key: str, name: str, value: float, unit: str) -> Figure:
    """A number that people name."""
    return Figure(f"belief.{key}.said", name, value, unit, REFERENCE)


def _usable_share(ground: Ground, key: str, battery_class: str, name: str) -> Figure:
    need = ground.results.need
    rated = need.classes[battery_class].nameplate_wh
    return computed(
        f"belief.{key}.here", name, need.energy.number / rated.number, "%", "{E_need} / {E_rated}",
        {"E_need": need.energy, "E_rated": rated}, phrase("beliefs.half_of_lead.here_source"),
    )  # fmt: skip


def _half_of_lead(ground: Ground) -> Settled | None:
    if not ground.results.need.energy.number:
        return None
    lead = ground.lead.banked.battery_class.key if ground.lead is not None else "agm"
    here = _usable_share(ground, "half_of_lead", lead, phrase("beliefs.half_of_lead.here"))
    return Settled(
        near(here.number, 0.5, 0.06, 0.2),
        phrase("beliefs.half_of_lead.says"),
        {"here": here, "said": said("half_of_lead", phrase("beliefs.half_of_lead.said"), 0.5, "%")},
        {
            TRUE: phrase("beliefs.half_of_lead.true"),
            HALF: phrase("beliefs.half_of_lead.half"),
            FALSE: phrase("beliefs.half_of_lead.false"),
        },
    )


def _sealed_gives_80(ground: Ground) -> Settled | None:
    if not ground.results.need.energy.number:
        return None
    here = _usable_share(ground, "sealed_gives_80", "agm", phrase("beliefs.sealed_gives_80.here"))
    return Settled(
        graded(here.number, 0.75, 0.65),
        phrase("beliefs.sealed_gives_80.says"),
        {"here": here, "said": said("sealed_gives_80", phrase("beliefs.sealed_gives_80.said"), 0.8, "%")},
        {
            TRUE: phrase("beliefs.sealed_gives_80.true"),
            HALF: phrase("beliefs.sealed_gives_80.half"),
            FALSE: phrase("beliefs.sealed_gives_80.false"),
        },
    )


def _all_of_lfp(ground: Ground) -> Settled | None:
    if not ground.results.need.energy.number:
        return None
    here = _usable_share(ground, "all_of_lfp", "lfp", phrase("beliefs.all_of_lfp.here"))
    return Settled(
        graded(here.number, 0.95, 0.75),
        phrase("beliefs.all_of_lfp.says"),
        {"here": here, "said": said("all_of_lfp", phrase("beliefs.all_of_lfp.said"), 1.0, "%")},
        {
            TRUE: phrase("beliefs.all_of_lfp.true"),
            HALF: phrase("beliefs.all_of_lfp.half"),
            FALSE: phrase("beliefs.all_of_lfp.false"),
        },
    )


def _one_for_two(ground: Ground) -> Settled | None:
    classes = ground.results.need.classes
    lead_key = ground.lead.banked.battery_class.key if ground.lead is not None else "agm"
    lead, lfp = classes[lead_key].nameplate_wh, classes["lfp"].nameplate_wh
    if not lfp.number:
        return None
    here = computed(
        "belief.one_for_two.here", phrase("beliefs.one_for_two.here"), lead.number / lfp.number, "times",
        "{lead} / {lfp}", {"lead": lead, "lfp": lfp},
    )  # fmt: skip
    return Settled(
        near(here.number, 2, 0.06, 0.25),
        phrase("beliefs.one_for_two.says"),
        {"here": here, "said": said("one_for_two", phrase("beliefs.one_for_two.said"), 2, "times")},
        {
            TRUE: phrase("beliefs.one_for_two.true"),
            HALF: phrase("beliefs.one_for_two.half"),
            FALSE: phrase("beliefs.one_for_two.false"),
        },
    )


def _equal_ah(ground: Ground) -> Settled:
    results = ground.results
    system_v = results.plan.system_v
    lfp_v = results.reference.classes["lfp"].nominal_v(system_v)
    others = {load.volts for load in results.plan.loads if load.supply == "dc"} - {system_v}
    other = min(others, key=lambda v: abs(v - system_v)) if others else lfp_v
    one = _hundred_ah("one", phrase("beliefs.equal_ah.one"), system_v)
    two = _hundred_ah("other", phrase("beliefs.equal_ah.other"), other)
    return Settled(
        HALF if abs(other / system_v - 1) < 0.1 else FALSE,
        phrase("beliefs.equal_ah.says"),
        {"one": one, "other": two},
        {HALF: phrase("beliefs.equal_ah.half"), FALSE: phrase("beliefs.equal_ah.false")},
    )


def _hundred_ah(key: str, name: str, volts: float) -> Figure:
    at = f"belief.equal_ah.{key}"
    given = {
        "V": Figure(f"{at}.v", phrase("terms.names.volts"), volts, "V", REFERENCE),
        "Ah": Figure(f"{at}.ah", phrase("terms.names.rated_100"), 100, "Ah", REFERENCE),
    }
    return computed(at, name, 100 * volts, "Wh", "{V} · {Ah}", given)


def _series_adds_ah(ground: Ground) -> Settled | None:
    bank = ground.chosen.banked.bank if ground.chosen is not None else None
    if bank is None:
        return None
    ah = bank.model.rated_ah
    one = Figure("belief.series_adds_ah.one", phrase("beliefs.series_adds_ah.one"), ah, "Ah", REFERENCE)
    two = Figure("belief.series_adds_ah.two", phrase("beliefs.series_adds_ah.two"), ah, "Ah", REFERENCE)
    return Settled(
        FALSE,
        phrase("beliefs.series_adds_ah.says"),
        {"one": one, "two": two},
        {FALSE: phrase("beliefs.series_adds_ah.false")},
    )
