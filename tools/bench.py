"""Speed as measured on this machine, as JSON: medians, with the tail beside them.

Rigs of 30 and 60 loads with 4 kinds of day and 3 banks. ``key_to_figure`` is taken in the browser, from the
key going down to the figure on the strip being painted anew; ``drag`` and ``slide`` while a block is
stretched and a slider moved without a pause: the frames on screen, and from an edit to its figure.
"""

import gc
import json
import math
import os
import platform
import statistics
import time
from collections.abc import Callable
from dataclasses import replace
from typing import Any

import numpy as np
from served import served

from vast_harbor import data
from vast_harbor.core.battery.bank import Bank, BatteryModel
from vast_harbor.core.battery.kibam import fit_wells
from vast_harbor.core.battery.terminal_voltage import bank_resistance
from vast_harbor.core.cost.monte_carlo import sample_costs
from vast_harbor.core.figures.display import Style
from vast_harbor.core.installation.packing import cells, lacks, pack
from vast_harbor.core.passage import evaluate
from vast_harbor.core.schedule.timeline import Timeline
from vast_harbor.core.sensitivity.break_even import break_evens
from vast_harbor.core.sensitivity.use_map import cheapest_map
from vast_harbor.core.sensitivity.verdict_changes import schools, verdict_changes
from vast_harbor.core.simulation.conditions import Conditions
from vast_harbor.core.simulation.run import run as simulate
from vast_harbor.core.simulation.simulated_bank import CutOffs, simulate_bank_as
from vast_harbor.core.stops.banks.checks import run
from vast_harbor.core.stops.banks.find import search
from vast_harbor.core.stops.banks.quick_life_cost import quick_life_cost
from vast_harbor.core.stops.compare.uncertainty import uncertainty_of
from vast_harbor.core.stops.need import governing_day as days_stop
from vast_harbor.core.stops.trial.simulated_runs import SimulatedRuns
from vast_harbor.core.stops.trial.trial import Trial
from vast_harbor.core.stops.trial.year import YearPlan, count
from vast_harbor.formats import rig_file as files
from vast_harbor.formats.report.document import report

RUNS = 100
# An equivalent circuit does not begin quite full.
BEGINS = 0.995
# Frames while the hand moves, and from the sending of an edit to the painting of the figure that it led to.
OBSERVE_DRAG = """(stop) => {
  window.frames_ = []
  window.lags = []
  let last = performance.now()
  const tick = (now) => {
    window.frames_.push(now - last)
    last = now
    requestAnimationFrame(tick)
  }
  requestAnimationFrame(tick)
  const figure = document.querySelector(`[data-stop=${stop}] [data-strip-figure]`)
  new MutationObserver(() => {
    const from = window.sent
    requestAnimationFrame(() => window.lags.push(performance.now() - from))
  }).observe(figure, { characterData: true, childList: true, subtree: true })
}"""
# When the last request was sent.
SENT = """{
  const send = window.fetch
  window.fetch = (...call) => {
    window.sent = performance.now()
    return send(...call)
  }
}"""
OBSERVE = """() => {
  window.times = []
  let down = 0
  window.addEventListener('keydown', () => (down = performance.now()), true)
  const figure = document.querySelector('[data-stop=day] [data-strip-figure]')
  new MutationObserver(() => {
    if (down) requestAnimationFrame(() => window.times.push(performance.now() - down))
  }).observe(figure, { characterData: true, childList: true, subtree: true })
}"""


def large_rig(count: int = 30) -> dict[str, Any]:
    """A rig of so many loads, 4 kinds of day and 3 banks."""
    document = data.demo_rig("long-haul")
    types = [t for t in document["day"]["types"] if t["kind"] != "laid_up"]
    document["day"]["types"] = types
    document["candidates"] = document["candidates"][:3]
    loads = document["day"]["loads"]
    document["day"]["loads"] = [
        {
            **{k: v for k, v in loads[i % len(loads)].items() if k not in ("low", "high", "start_w")},
            "id": f"l{i}",
            "name": f"Load {i + 1}",
            "draw": {"value": 20.0 + i, "unit": "W"},
            "on": {k: v for k, v in loads[i % len(loads)].get("on", {}).items() if k != "laid-up"},
        }
        for i in range(count)
    ]
    return document


def summary(times: list[float]) -> dict[str, float]:
    """Median, the 95th of a hundred, and the worst [ms]."""
    found = {
        "median_ms": statistics.median(times),
        "p95_ms": statistics.quantiles(times, n=20, method="inclusive")[-1],
        "worst_ms": max(times),
    }
    return {name: round(value, 1) for name, value in found.items()} | {"runs": len(times)}


def timed(work: Callable[[], object], runs: int = RUNS) -> dict[str, float]:
    """Many runs [ms]."""
    work()
    times = []
    for _ in range(runs):
        start = time.perf_counter()
        work()
        times.append((time.perf_counter() - start) * 1000)
    return summary(times)


def key_to_figure() -> dict[str, float]:
    """From key to figure in the browser, typing into one load of the large rig."""
    with served("serve") as (address, browser):
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        made = page.request.post(f"{address}/api/rigs/import", data=large_rig()).json()
        page.goto(f"{address}/rigs/{made['id']}/day")
        page.wait_for_load_state("networkidle")
        field = page.locator("[data-path='/day/loads/3/draw']")
        field.fill("5")
        page.wait_for_timeout(500)
        page.evaluate(OBSERVE)
        for i in range(RUNS):
            field.press("End")
            field.press(str(1 + i % 9)) if i % 2 == 0 else field.press("Backspace")
            page.wait_for_timeout(220)
        times = page.evaluate("window.times")
    return summary(times)


def drag(stop: str) -> dict[str, Any]:
    """Frames and lag while a block of the sheet (Day) or the slider of the nights (Need) is dragged."""
    with served("serve") as (address, browser):
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.add_init_script(SENT)
        made = page.request.post(f"{address}/api/rigs/import", data=large_rig(60)).json()
        page.goto(f"{address}/rigs/{made['id']}/{stop}")
        page.wait_for_load_state("networkidle")
        if stop == "day":
            page.get_by_role("radio", name="24-hour sheet").click()
            held = page.locator("[data-lane=l58] [data-block]").first
        else:
            held = page.locator("[data-slider=nights]")
        held.scroll_into_view_if_needed()
        box = held.bounding_box()
        assert box is not None
        # A moved block keeps its energy; a stretched one moves the figures.
        grip = box["width"] - 2 if stop == "day" else box["width"] / 2
        x, y = box["x"] + grip, box["y"] + box["height"] / 2
        page.mouse.move(x, y)
        page.mouse.down()
        page.wait_for_timeout(300)
        page.evaluate(OBSERVE_DRAG, stop)
        reach = 80 if stop == "day" else box["width"] / 3
        for i in range(400):
            page.mouse.move(x + reach * math.sin(i / 20), y)
            page.wait_for_timeout(8)
        page.mouse.up()
        frames = page.evaluate("window.frames_")[5:]
        lags = page.evaluate("window.lags")
    return {
        "frames_a_second": round(1000 / statistics.median(frames), 1),
        "frames_over_34_ms": f"{sum(f > 34 for f in frames)} of {len(frames)}",
        "edit_to_figure": summary(lags),
    }


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
        run(replace(build))

    return {"find_banks_500_models": timed(find, 30), "all_checks_of_a_candidate": timed(check)}


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
    return {"trial_14_days": timed(trial, 30), "year": timed(year, 30)}


def verdict(name: str) -> dict[str, dict[str, float]]:
    """The draws of up to six candidates, the whole answer to an edit, and what is asked for besides."""
    reference = data.reference()
    plan = files.to_plan(files.read(data.demo_rig(name), reference), reference)
    plan = replace(plan, candidates=plan.candidates[:6])
    results = evaluate(plan, reference)
    results.simulated.run()
    life_cost_inputs, doubt = results.verdict.life_cost_inputs, uncertainty_of(results.assumptions)

    def edited() -> None:
        after = evaluate(replace(plan, years_kept=plan.years_kept + 1), reference)
        assert after.verdict.decided is not None and after.verdict.spreads

    return {
        "draws_5000": timed(lambda: sample_costs(life_cost_inputs, doubt, plan.years_kept), 50),
        "an_edit_with_its_draws": timed(edited, 30),
        "where_costs_meet": timed(lambda: break_evens(results, reference), 5),
        "map_40_by_20": timed(lambda: cheapest_map(results, reference), 10),
        "when_it_turns": timed(lambda: verdict_changes(results, reference), 3),
        "each_school": timed(lambda: schools(results, reference), 3),
        "report": timed(lambda: report(results, reference, Style(), "2026-11-25"), 3),
    }


def money_on_screen() -> dict[str, float]:
    """From key to the cost on the strip, typing a discount rate beside six candidates and their draws."""
    with served("demo") as (address, browser):
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(f"{address}/rigs/1/compare?part=money")
        page.wait_for_load_state("networkidle")
        field = page.locator("[data-path='/plan/overrides/discount_rate']")
        field.fill("1 %")
        page.wait_for_timeout(1500)
        page.evaluate(OBSERVE.replace("[data-stop=day]", "[data-stop=compare]"))
        for i in range(40):
            field.press("Home")
            field.press(str(1 + i % 3 // 2)) if i % 2 == 0 else field.press("Delete")
            page.wait_for_timeout(900)
        times = page.evaluate("window.times")
    return summary(times)


def beside_another_model() -> dict[str, Any] | str:
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
    always, nothing = np.full(shape, watts), np.zeros(shape)
    conditions = Conditions(
        0.25, always, nothing, nothing, nothing, always, ((0.0, always),), np.full(shape, 25.0),
        np.zeros(shape, dtype=bool), nothing,
    )  # fmt: skip

    def ours() -> float:
        traces = simulate([made], conditions, BEGINS)[0]
        return float((traces.served_w * conditions.step_h).sum() / watts)

    soc, volts = zip(*lfp.rested_v, strict=True)
    circuit = pybamm.equivalent_circuit.Thevenin(purchase_options={"number of rc elements": 0})
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

    speeds = {"ours": timed(ours, 20), "theirs": timed(theirs, 5)}
    return {
        "hours_ours": round(ours(), 3),
        "hours_theirs": round(theirs(), 3),
        "times_as_long": round(speeds["theirs"]["median_ms"] / speeds["ours"]["median_ms"], 1),
        **speeds,
    }


def main() -> None:
    """Measure and print."""
    reference = data.reference()
    gc.freeze()
    rig = files.read(large_rig(), reference)
    plan = files.to_plan(rig, reference)
    large = files.to_plan(files.read(large_rig(60), reference), reference)
    found = {
        "machine": f"{platform.machine()}, Python {platform.python_version()}",
        "read_a_rig_file": timed(lambda: files.read(large_rig(), reference)),
        "evaluate_30_loads_3_banks": timed(lambda: evaluate(plan, reference)),
        "evaluate_60_loads_4_days_3_banks": timed(lambda: evaluate(large, reference)),
        "banks_kittiwake": banks("kittiwake"),
        "banks_long_haul": banks("long-haul"),
        "simulated_kittiwake": simulated("kittiwake"),
        "simulated_long_haul": simulated("long-haul"),
        "verdict_kittiwake": verdict("kittiwake"),
        "verdict_long_haul": verdict("long-haul"),
        "money_on_screen": money_on_screen(),
        "beside_another_model": beside_another_model(),
        "key_to_figure_30_loads_3_banks": key_to_figure(),
        "drag_60_loads_4_days": drag("day"),
        "slide_60_loads_4_days": drag("need"),
    }
    print(json.dumps(found, indent=2))


if __name__ == "__main__":
    main()
