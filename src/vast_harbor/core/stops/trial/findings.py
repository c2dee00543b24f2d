"""What the Trial stop has to say."""

from vast_harbor.core.figures.workings import Finding, Sentence, escaped
from vast_harbor.core.stops.need import Need
from vast_harbor.core.stops.trial.simulated_runs import SimulatedRuns
from vast_harbor.phrases import phrase

# A bank that serves fewer of the off-grid nights of a year is spoken of.
SERVES = 0.95
# The year's view of the need is spoken of where it goes so far beyond the other.
BEYOND = 1.1
# Battery classes for which the two views of the need are told.
TOLD = ("agm", "lfp")


def trial_findings(result: SimulatedRuns, need: Need) -> tuple[Finding, ...]:
    """Banks that go dark in the trial or in a year, and a need that the year makes larger.

    Args:
        result: what was run.
        need: the need by nights.
    """
    out = []
    for one in result.trial.candidates:
        if one.dark:
            says = Sentence(
                phrase("trial.findings.power_cut_supplied", title=escaped(one.title)),
                {"when": one["first_dark"], "missing": one["unserved"]},
            )
            remedy = phrase("trial.findings.look_moment_events_show")
            out.append(Finding("goes_dark", "caution", "trial", says, remedy, one.simulated.id))
    titles = {r.simulated.id: r.title for r in result.trial.results}
    for key, year in result.years.items():
        if year["served_share"].number < SERVES:
            says = Sentence(
                phrase("trial.findings.supplies_off_grid_nights", get=escaped(titles.get(key, key))),
                {"share": year["served_share"]},
            )
            remedy = phrase("trial.findings.add_charging_choose_larger")
            out.append(Finding("nights_unserved", "caution", "trial", says, remedy, key))
    return (*out, *_need(result, need))


def _need(result: SimulatedRuns, need: Need) -> list[Finding]:
    """The two views of the need, where that of the year is the larger."""
    larger = {
        key: figure
        for key, figure in result.needs.items()
        if key in TOLD and figure.number > need.classes[key].nameplate_wh.number * BEYOND
    }
    if not larger:
        return []
    key, figure = next(iter(larger.items()))
    says = Sentence(
        phrase("trial.findings.year_weather_needs_rated", short=need.classes[key].battery_class.short),
        {"year": figure, "nights": need.classes[key].nameplate_wh},
    )
    return [
        Finding(
            "year_needs_more", "note", "need", says,
            phrase("trial.findings.sources_replace_such_nights"),
        )
    ]  # fmt: skip
