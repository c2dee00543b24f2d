"""Why banks of the same usable energy supply different nights: told of the pair that differs most."""

import re
from dataclasses import replace

from vast_harbor.core.stops.trial.unequal_nights import ALIKE, unequal_nights


def test_why_nights_differ_is_told_of_banks_of_the_same_usable_energy(demo_results) -> None:
    results = demo_results("pebble")
    candidates, years = results.banks.candidates, results.simulated.years
    lead = next(c for c in candidates if c.battery_class.is_lead_acid and c.candidate.id in years)
    lfp = next(c for c in candidates if not c.battery_class.is_lead_acid and c.candidate.id in years)

    def sized(banked, wh):
        usable = banked["usable_wh"]._replace(value=wh)
        return replace(banked, figures={**banked.figures, "usable_wh": usable})

    def served(banked, share, short):
        year = years[banked.candidate.id]
        figures = {
            **year.figures,
            "served_share": year["served_share"]._replace(value=share),
            "short_share": year["short_share"]._replace(value=short),
        }
        return {banked.candidate.id: replace(year, figures=figures)}

    pair = (sized(lead, 2720.0), sized(lfp, 3060.0))
    told = unequal_nights(pair, served(lead, 0.98, 0.2) | served(lfp, 0.74, 0.1))
    assert told is not None and "Below its usable depth" in told.template
    assert abs(told.figures["r"].number - 2720 * (1 / lead["dod"].number - 1)) < 1e-6
    assert set(re.findall(r"\{(\w+)\}", told.template)) == set(told.figures)
    # The other way round depth is no reason: the one that is full less often is told.
    other = unequal_nights(pair, served(lead, 0.74, 0.9) | served(lfp, 0.98, 0.1))
    assert other is not None and "short of full" in other.template
    # Banks of another size, and the same nights, need no reason.
    far = (sized(lead, 2720.0), sized(lfp, 2720.0 / (1 - ALIKE) + 1))
    assert unequal_nights(far, served(lead, 0.98, 0.2) | served(lfp, 0.74, 0.1)) is None
    assert unequal_nights(pair, served(lead, 0.98, 0.2) | served(lfp, 0.96, 0.1)) is None
