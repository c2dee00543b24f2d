"""What can be done beside the bank: what it changes, what it costs, and when it is offered."""

from dataclasses import replace

import numpy as np
import pytest

from random_rigs import random_plan
from sampled import sampled
from vast_harbor import data
from vast_harbor.core.improvements import KINDS, carried_out, options, planned_improvements, with_improvements
from vast_harbor.core.improvements.place import PADS_W_PER_KWH
from vast_harbor.core.passage import evaluate
from vast_harbor.core.rig.improvement_rows import PlannedImprovement
from vast_harbor.core.rig.plan import CABIN, Candidate, Plan
from vast_harbor.core.rig.sources import ENGINE, PWM, RELAY, SOLAR
from vast_harbor.core.stops.banks import BLOCKING
from vast_harbor.core.stops.trial.year import key_of
from vast_harbor.core.weather.climate import LIVING, OUTSIDE
from vast_harbor.formats import rig_file as files
from vast_harbor.formats.rig_plan import to_plan


def offered(plan: Plan, reference) -> dict[str, object]:
    assumptions = reference.assumptions(plan.house_rule, plan.overrides)
    return {one.key: one for one in options(plan, reference, assumptions)}


@pytest.fixture
def tern_rock(reference) -> Plan:
    return to_plan(files.read(data.demo_rig("tern-rock"), reference), reference)


@pytest.mark.parametrize("seed", sampled(range(40), 3, 11, 27))
def test_everything_that_is_offered_can_be_planned_and_taken_back(seed, reference) -> None:
    plan = random_plan(np.random.default_rng(seed), reference)
    for one in offered(plan, reference).values():
        done = with_improvements(plan, [one], reference)
        assert done.as_it_is.sources == plan.sources and done.as_it_is.loads == plan.loads
        assert done.loads != plan.loads or done.sources != plan.sources or done != plan
        made = planned_improvements(done, reference, reference.assumptions(plan.house_rule, plan.overrides))
        assert [m.key for m in made] == [one.key]
        # None of its group is offered once more, and without its row the rig is what it was.
        assert one.group not in {o.group for o in offered(done, reference).values()}
        assert carried_out(replace(done.as_it_is, improvements=()), reference) == plan
        # The alternator gives no more than half of its rating, whatever is offered.
        for source in done.sources:
            if source.kind == ENGINE and not source.is_relay and one.kind.key == "dc_dc":
                assert source.amps <= max(30.0, source.alternator_a / 2)


def test_nothing_is_offered_that_the_rig_cannot_take(reference, tern_rock) -> None:
    keys = set(offered(tern_rock, reference))
    assert tern_rock.kind == CABIN and not any(k.startswith("dc_dc") for k in keys)
    small = replace(tern_rock, roof_m2=1.7)
    assert {k for k in offered(small, reference) if k.startswith("panels")} == {
        "panels-100", "panels-200", "panels-300"
    }  # fmt: skip
    # Loads are dropped, moved or fed with gas only where their owner said so.
    assert not any(k.split("-")[0] in ("drop", "gas", "daylight") for k in keys)
    load = next(x for x in tern_rock.loads if not x.critical and 0 < x.hours_on < 5)
    told = replace(
        tern_rock, loads=tuple(replace(x, could=("drop", "gas")) if x is load else x for x in tern_rock.loads)
    )
    assert {f"drop-{load.id}", f"gas-{load.id}"} <= set(offered(told, reference))
    # What is refused is not offered; a kind is refused with all its sizes.
    no = replace(tern_rock, improvements=(PlannedImprovement("x", "panels", state="refused"),))
    assert not any(k.startswith("panels") for k in offered(no, reference))


def test_a_relay_gives_way_to_a_charger_and_pwm_to_mppt(reference) -> None:
    plan = next(
        p
        for seed in range(200)
        if (p := random_plan(np.random.default_rng(seed), reference)).kind != CABIN
        and any(s.kind == ENGINE and s.link == RELAY for s in p.sources)
        and any(s.kind == SOLAR and s.controller == PWM for s in p.sources)
    )
    kinds = offered(plan, reference)
    relay = next(s for s in plan.sources if s.kind == ENGINE)
    done = with_improvements(plan, [kinds[f"dc_dc-{relay.id}-40"], kinds["controller-pwm-120"]], reference)
    assert not any(s.is_relay for s in done.sources) and not any(s.controller == PWM for s in done.sources)
    assert len(done.sources) == len(plan.sources)


def test_pads_let_lfp_without_a_heater_be_charged_in_the_cold(reference, tern_rock) -> None:
    plan = replace(tern_rock, place=OUTSIDE, candidates=(Candidate("plain", "lfp", "skerry-280", 1, 2),))
    cold = evaluate(plan, reference, found=()).banks.candidates[0]
    assert any(f.code == "cold_charge" for f in cold.findings if f.severity == BLOCKING)
    pads = with_improvements(plan, [offered(plan, reference)["heated"]], reference)
    warm = evaluate(pads, reference, found=()).banks.candidates[0]
    assert not any(f.code == "cold_charge" for f in warm.findings)
    assert warm.bank.model.heater_w == pytest.approx(PADS_W_PER_KWH * warm.bank.model.rated_ah * 12.8 / 1000)
    # Who does not rely on heaters is offered none, and a bank that has one keeps its own.
    strict = replace(plan, overrides={**plan.overrides, "cold_heater": 0})
    assert "heated" not in offered(strict, reference) and "heated" not in offered(
        replace(plan, place=LIVING), reference
    )
    assert pads.models["quenby-280"] is plan.models["quenby-280"]


def test_it_is_priced_with_its_work_its_life_and_what_it_fetches(reference) -> None:
    document = data.demo_rig("mulga")
    document["rig"]["years_kept"] = 10
    document["plan"]["overrides"] |= {"discount_rate": 0.0, "price_factor": 2.0}
    document["improvements"] = [{"id": "sun", "kind": "panels", "size": 300}]
    plan = to_plan(files.read(document, reference), reference)
    bare = evaluate(plan.as_it_is, reference, found=())
    done = evaluate(plan, reference, found=())
    kind = reference.improvements["panels"]
    price = 2.0 * (kind.base[1] + 300 * kind.each[1])
    for compared, before in zip(done.verdict.candidates, bare.verdict.candidates, strict=True):
        extra = next(d for d in compared.cost.required_extras if d.key == "improvement-sun")
        assert extra.price.number == pytest.approx(price)
        assert extra.hours == pytest.approx(kind.hours + 300 * kind.hours_each)
        # Twenty years of life, ten of keeping: half of it is left, and fetches its share.
        assert compared.cost.inputs.kept == ((price, kind.life_years, kind.kept),)
        assert compared.cost["again"].number == pytest.approx(-kind.kept * 0.5 * price)
        assert compared.cost.outlay.number > before.cost.outlay.number + price
    # An own price takes the place of the typical one; what is wanted anyway is charged to no bank.
    document["improvements"][0] |= {"price": 100.0, "tag": "wanted"}
    wanted = evaluate(to_plan(files.read(document, reference), reference), reference, found=())
    first = wanted.verdict.candidates[0].cost
    assert first.inputs.extras == pytest.approx(bare.verdict.candidates[0].cost.inputs.extras, abs=400)
    assert first.inputs.kept == () and first["outlay"].inputs["Z1"].number == 100.0


def test_what_the_old_bank_shows_is_judged_in_the_rig_as_it_is(reference, tern_rock) -> None:
    before = evaluate(tern_rock, reference, found=()).banks.diagnosis
    more = [offered(tern_rock, reference)["panels-800"], offered(tern_rock, reference)["indoors"]]
    after = evaluate(with_improvements(tern_rock, more, reference), reference, found=()).banks.diagnosis
    assert (before.suspects, before.agree, before.at_fault) == (after.suspects, after.agree, after.at_fault)


def test_every_kind_has_its_data_and_its_maker(reference) -> None:
    assert KINDS.keys() == reference.improvements.keys()
    for kind in reference.improvements.values():
        assert kind.source and all(low <= likely <= high for low, likely, high in (kind.base, kind.each))
        assert kind.life_years > 0 and 0 <= kind.kept < 1 and list(kind.sizes) == sorted(kind.sizes)


def test_what_is_planned_is_bought_and_has_its_step_in_the_work(reference) -> None:
    document = data.demo_rig("long-haul")
    document["improvements"] = [{"id": "sun", "kind": "panels", "size": 200}]
    results = evaluate(to_plan(files.read(document, reference), reference), reference, found=())
    changeover = results.changeover_to(results.verdict.candidates[0].id)
    line = next(one for one in changeover.shopping.lines if one.key == "improvement-sun")
    step = next(one for gate in changeover.gates for one in gate.steps if one.key == "improvement-sun")
    assert step.title == line.name == "Add 200 W of solar panels" and step.parts == (line.key,)
    hours = reference.improvements["panels"].hours + 200 * reference.improvements["panels"].hours_each
    assert step.minutes == pytest.approx(60 * hours)


def test_insulation_evens_out_the_day_and_warms_nothing(reference, tern_rock) -> None:
    assert tern_rock.place == OUTSIDE
    bare = replace(tern_rock, battery_c=None)
    lined = with_improvements(bare, [offered(bare, reference)["insulated"]], reference)
    runs = [evaluate(p, reference, found=()).simulated for p in (bare, lined)]
    assert key_of(runs[0].timeline) != key_of(runs[1].timeline)
    years = [run.year_plan.conditions.battery_c for run in runs]
    assert years[0].mean() == pytest.approx(years[1].mean(), abs=0.05)
    days = [c.reshape(c.shape[0], -1, 96) for c in years]
    before, after = (np.ptp(d[:, 1:-1], axis=2).mean() for d in days)
    # What is left is mostly how one day differs from the next.
    assert after < 0.8 * before
    # It is offered once, and not where nothing of the day's swing arrives.
    assert "insulated" not in offered(lined, reference)
    assert "insulated" not in offered(replace(bare, place=LIVING), reference)
    # Heating pads come in an insulated box.
    heated = with_improvements(bare, [offered(bare, reference)["heated"]], reference)
    assert heated.locker.insulated
