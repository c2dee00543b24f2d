"""The same banks at another number of nights: each is there, whichever way it came to the verdict."""

import pytest

from vast_harbor import data
from vast_harbor.core.passage import evaluate
from vast_harbor.core.sensitivity.break_even import break_evens
from vast_harbor.core.sensitivity.runner_up import AtNights
from vast_harbor.formats import rig_file as files


@pytest.mark.parametrize(("name", "nights", "elsewhere"), [("pebble", 46, 364), ("kittiwake", 160, 29)])
def test_a_bank_found_here_may_be_one_put_up_there(reference, name, nights, elsewhere) -> None:
    # Of a class that is put up without a model, the best one at other nights may be the very bank found here.
    document = data.demo_rig(name)
    document["rig"]["off_grid_nights"] = nights
    document["candidates"] = [{"id": k, "battery_class": k} for k in ("agm", "lfp", "flooded_deep")]
    results = evaluate(files.to_plan(files.read(document, reference), reference), reference)
    there = results.at_nights(elsewhere).verdict
    missing = {c.id for c in results.verdict.compared_banks} - {p.id for p in there.life_cost_inputs}
    assert missing
    inputs = AtNights(results, reference).life_cost_inputs(elsewhere)
    by_id = {c.id: c.banked.bank for c in results.verdict.compared_banks}
    costs = {p.id: p for p in there.life_cost_inputs}
    for key in missing:
        same = [costs[c.id] for c in there.compared_banks if c.banked.bank == by_id[key]]
        assert inputs[key] in same
    break_evens(results, reference)
