"""What the computation takes by itself, with nothing remembered."""

import math
import os
from collections.abc import Callable
from dataclasses import replace

import numpy as np
from bench_rigs import timed

from vast_harbor import data
from vast_harbor.core.battery.bank import Bank, BatteryModel
from vast_harbor.core.battery.kibam import fit_wells
from vast_harbor.core.battery.terminal_voltage import bank_resistance
from vast_harbor.core.cost.monte_carlo import drawn_costs, sample_costs
from vast_harbor.core.figures.display import Style
from vast_harbor.core.installation.packing import cells, lacks, pack
from vast_harbor.core.packages import packages_of
from vast_harbor.core.passage import evaluate
from vast_harbor.core.schedule.timeline import Timeline
from vast_harbor.core.sensitivity.break_even import break_evens
from vast_harbor.core.sensitivity.sizes_by_year import sizes_by_year
from vast_harbor.core.sensitivity.use_map import cheapest_map
from vast_harbor.core.sensitivity.verdict_changes import rule_verdicts, verdict_changes
from vast_harbor.core.simulation.conditions import Conditions
from vast_harbor.core.simulation.run import run as simulate
from vast_harbor.core.simulation.simulated_bank import CutOffs, simulate_bank_as
from vast_harbor.core.stops.banks.checks import run_checks
from vast_harbor.core.stops.banks.find import search
from vast_harbor.core.stops.banks.quick_life_cost import quick_life_cost
from vast_harbor.core.stops.compare.uncertainty import uncertainty_of
from vast_harbor.core.stops.need import governing_day as days_stop
from vast_harbor.core.stops.trial import year
from vast_harbor.core.stops.trial.simulated_runs import SimulatedRuns
from vast_harbor.core.stops.trial.trial import Trial
from vast_harbor.core.stops.trial.year import count
from vast_harbor.core.stops.trial.year_plan import YearPlan
from vast_harbor.formats import rig_file as files
from vast_harbor.formats.report.document import report

# An equivalent circuit does not begin quite full.
BEGINS = 0.995


def many_models(count: int) -> dict[str, BatteryModel]:
    """A catalogue of so many models: the shipped ones, each a little longer and heavier than the last."""
    shipped = list(data.reference().catalogue.values())
    made = {}
    for i in range(count):
        model, by = shipped[i % len(shipped)], i // len(shipped)
        length = (model.case.length_mm or 300) + 3 * by
        made[f"m{i}"] = replace(
            model, id=f"m{i}", kg=model.kg * (1 + by / 100), case=replace(model.case, length_mm=length)
        )
    return made


def banks(name: str) -> dict[str, dict[str, float]]:
    """Find banks over a catalogue of 500, with nothing remembered, and all checks of one candidate."""
    reference = data.reference()
    plan = files.to_plan(files.read(data.demo_rig(name), reference), reference)
    assumptions = reference.assumptions(plan.house_rule, plan.overrides)
    days = days_stop.evaluate(plan, reference, assumptions)
    models = many_models(500)
    results = evaluate(plan, reference)
    build = next(c.build for c in results.banks.candidates if c.build is not None)

    def find() -> None:
        pack.cache_clear()
        cells.cache_clear()
        search(quick_life_cost(plan, reference, assumptions, days), models)

    def check() -> None:
        pack.cache_clear()
        lacks.cache_clear()
        cells.cache_clear()
        run_checks(replace(build))

    return {
        "Find banks: 500 models in every layout, nothing remembered": timed(find, 30),
        "All checks of one candidate": timed(check),
    }


def simulated(name: str) -> dict[str, dict[str, float]]:
    """A trial of fourteen days and a year of up to six candidates, nothing remembered but the sunshine."""
    reference = data.reference()
    plan = files.to_plan(files.read(data.demo_rig(name), reference), reference)
    plan = replace(plan, candidates=plan.candidates[:6], old_bank=None)
    results = evaluate(plan, reference)
    results.simulated.run()

    def trial() -> None:
        timeline = Timeline(plan, reference, results.assumptions, results.days)
        assert Trial(timeline, results.banks).results

    def year() -> None:
        runs = SimulatedRuns(plan, reference, results.assumptions, results.days, results.banks)
        sample = YearPlan(runs.timeline.calm)
        for bank in runs.trial.simulated_banks:
            count(sample, bank, plan.models[model_of[bank.id]], 1.2)

    model_of = {c.candidate.id: c.bank.model.id for c in results.banks.candidates if c.bank is not None}
    return {
        "Trial of 14 days in steps of 15 minutes, 6 candidates": timed(trial, 30),
        "The year, 6 candidates, in three weathers, nothing remembered": timed(year, 30),
    }


def verdict(name: str) -> dict[str, dict[str, float]]:
    """The draws of up to six candidates, the whole answer to an edit, and what is asked for separately."""
    reference = data.reference()
    plan = files.to_plan(files.read(data.demo_rig(name), reference), reference)
    plan = replace(plan, candidates=plan.candidates[:6])
    results = evaluate(plan, reference)
    results.simulated.run()
    inputs, doubt = results.verdict.life_cost_inputs, uncertainty_of(results.assumptions)

    before, more = results.before, replace(plan, years_kept=plan.years_kept + 1)

    def edited() -> None:
        after = evaluate(more, reference, before)
        assert after.verdict.decided is not None and after.verdict.spreads

    def looked_through() -> None:
        year.forget()
        after = evaluate(more, reference)
        assert after.verdict.decided is not None and after.verdict.found is not None

    def anew(work: Callable[[], object]) -> Callable[[], object]:
        def once() -> object:
            results.forget()
            return work()

        return once

    def drawn() -> None:
        drawn_costs.cache_clear()
        sample_costs(inputs, doubt, plan.years_kept)

    return {
        "5 000 draws, 6 candidates": timed(drawn, 50),
        "Computing the passage after an edit of money, draws and verdict included": timed(edited, 30),
        "The verdict over the whole catalogue, once edits rest, no year remembered": timed(looked_through, 3),
        "Where costs meet, in six things": timed(lambda: break_evens(results), 5),
        "Map of use, 40 × 20": timed(lambda: cheapest_map(results, reference), 10),
        "At which nights the whole verdict turns": timed(anew(lambda: verdict_changes(results)), 3),
        "The verdict under each house rule": timed(anew(lambda: rule_verdicts(results, reference)), 3),
        "How small it may be, by the year": timed(anew(lambda: sizes_by_year(results, reference)), 3),
        "The report": timed(anew(lambda: report(results, reference, Style(), "2026-11-25")), 3),
    }


def packages(name: str) -> dict[str, dict[str, float]]:
    """The packages of a rig that is there with its verdict, looked for from nothing: an edit rested."""
    reference = data.reference()
    plan = files.to_plan(files.read(data.demo_rig(name), reference), reference)
    results = evaluate(plan, reference)
    results.simulated.run()
    assert results.verdict.decided is not None and results.verdict.found is not None

    def looked_for() -> None:
        results.forget()
        year.forget()
        assert packages_of(results, reference) is not None

    return {"Packages, once edits rest, no year remembered": timed(looked_for, 5)}


def beside_another_model() -> str:
    """A steady draw from nearly full, by our loop and by the equivalent circuit of others, in one run."""
    os.environ["PYBAMM_DISABLE_TELEMETRY"] = "true"
    try:
        import pybamm
    except ImportError:
        return "not installed: make bench installs it"
    reference = data.reference()
    lfp = reference.classes["lfp"]
    model = next(m for m in reference.catalogue.values() if m.battery_class is lfp and m.rated_ah == 100)
    bank, watts, cut_v = Bank(model, 1, 1), 240.0, 11.0
    wells = fit_wells(((100.0, 5.0),), 1.0)
    ohm = bank_resistance(bank)
    made = simulate_bank_as("one", bank, wells, 1.0, 0.0, ohm, 1.0, CutOffs(disconnect_v=cut_v))
    made = replace(made, standing_a=0.0, cut_v=0.0, lasting_a=math.inf, peak_a=math.inf)
    shape = (1, 40)
    always, nothing, nobody = np.full(shape, watts), np.zeros(shape), np.zeros(shape, dtype=bool)
    conditions = Conditions(
        0.25, always, nothing, nothing, nothing, always, ((0.0, always),), np.full(shape, 25.0),
        nobody, nobody, nothing,
    )  # fmt: skip

    def ours() -> float:
        traces = simulate([made], conditions, BEGINS)[0]
        return float((traces.served_w * conditions.step_h).sum() / watts)

    soc, volts = zip(*lfp.rested_v, strict=True)
    circuit = pybamm.equivalent_circuit.Thevenin(options={"number of rc elements": 0})
    values = pybamm.ParameterValues("ECM_Example")
    values.update(
        {
            "Cell capacity [A.h]": 100.0,
            "Nominal cell capacity [A.h]": 100.0,
            "Initial SoC": BEGINS,
            "Upper voltage cut-off [V]": 16.0,
            "Lower voltage cut-off [V]": cut_v,
            "Open-circuit voltage [V]": lambda s: pybamm.Interpolant(np.array(soc), np.array(volts), s),
            "R0 [Ohm]": lambda temperature, current, s: pybamm.Scalar(ohm),
        }
    )
    steady = pybamm.Experiment([f"Discharge at {watts:g} W for 10 hours or until {cut_v:g} V"])

    def theirs() -> float:
        solution = pybamm.Simulation(circuit, parameter_values=values, experiment=steady).solve()
        return float(solution["Time [h]"].entries[-1])

    hours, seconds = (ours(), theirs()), (timed(ours, 20)["median_ms"], timed(theirs, 5)["median_ms"])
    return (
        f"240 W steadily down to 11 V: {hours[0]:.3f} h here, {hours[1]:.3f} h in PyBaMM’s circuit, "
        f"which took {seconds[1] / seconds[0]:.0f} times as long ({seconds[1]:g} against {seconds[0]:g} ms)."
    )
