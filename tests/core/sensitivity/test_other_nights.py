"""The same banks at another number of nights: each is there, whichever way it came to the verdict."""

import pytest

from vast_harbor import data
from vast_harbor.core.passage import evaluate
from vast_harbor.core.sensitivity.runner_up import AtNights
from vast_harbor.formats import rig_file as files


@pytest.mark.parametrize(("name", "nights", "elsewhere"), [("pebble", 46, 364), ("mulga", 120, 330)])
def test_a_bank_found_here_may_be_no_better_than_the_candidates_there(
    reference, name, nights, elsewhere
) -> None:
    # It is found where it costs less than the candidates of its class; at other nights it may not.
    document = data.demo_rig(name)
    document["rig"]["off_grid_nights"] = nights
    document["candidates"] = [{"id": k, "battery_class": k} for k in ("agm", "lfp", "flooded_deep")]
    results = evaluate(files.to_plan(files.read(document, reference), reference), reference)
    there = results.at_nights(elsewhere).verdict
    missing = {c.id for c in results.verdict.compared_banks} - {p.id for p in there.life_cost_inputs}
    assert missing
    inputs = AtNights(results, reference).life_cost_inputs(elsewhere)
    here = {c.id: c for c in results.verdict.compared_banks}
    for key in missing:
        # The same bank, run at nights of that kind.
        assert (inputs[key].id, inputs[key].batteries) == (key, here[key].cost.inputs.batteries)
        assert inputs[key].nights != here[key].cost.inputs.nights
    at = AtNights(results, reference)
    assert all(at.cost(key, elsewhere, 9) > 0 for key in missing)
