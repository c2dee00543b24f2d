"""The steady load for tests: one of the owner's own, else a resistor of a named size."""

from dataclasses import dataclass

from vast_harbor.core.rig.loads import AC, MAIN, USES, Load
from vast_harbor.core.stops.banks import Build
from vast_harbor.phrases import phrase

# Between these shares of the capacity an hour a test tells something and does the bank no harm [1/h]; the
# nearer to the best one, the shorter the test and the surer its current.
LEAST_C, BEST_C, MOST_C = 0.04, 0.08, 0.20
# What draws by fits and starts is no steady load [-].
STEADY_DUTY = 0.95
# Where no appliance does: so much of the capacity an hour [1/h]; a resistor of more than this is hard to come
# by and to keep cool [W].
RESISTOR_C, HEATER_W = 0.05, 100.0
# What is never on for longer than this at a time is no load for a test [h].
LASTS_H = 1.0


@dataclass(frozen=True, slots=True)
class SteadyLoad:
    """What the bank is tested with.

    Attributes:
        name: what it is.
        amps: current of the bank [A].
        stated: whether the owner stated the current.
    """

    name: str
    amps: float
    stated: bool = False


def bank_amps(build: Build, load: Load) -> float:
    """Current that one appliance takes from the bank while it runs [A], at the nominal volts."""
    plan = build.plan
    ac = load.supply == AC
    eta = plan.inverter.efficiency if ac else build.assumptions.value("dc_efficiency")
    watts = load.quantity * load.watts / eta + (plan.inverter.idle_w if ac else 0.0)
    return watts / build.bank.nominal_v


def _steady(load: Load) -> bool:
    """Whether an appliance can run for hours at one current."""
    lasts = load.minutes / 60 if load.use == USES else load.hours_on
    return (
        load.duty >= STEADY_DUTY
        and not load.duty_at
        and load.bank == MAIN
        and load.by_hand
        and lasts >= LASTS_H
    )


def steady_load(build: Build) -> SteadyLoad:
    """The load that tests this bank best.

    Args:
        build: the bank in its rig.

    Returns:
        As the owner states its current; else the steady appliance nearest to a twelfth of the capacity an
        hour; else a twentieth: a heater on the inverter where that carries it, or a resistor.
    """
    stated = build.plan.changeover.test_a
    if stated is not None:
        return SteadyLoad(phrase("changeover.steady_load.stated"), stated, stated=True)
    ah = build.bank.rated_ah
    gives = build.criteria.gives_a
    most = MOST_C * ah if gives is None else build.criteria.shared(gives)
    found = [
        (abs(amps / ah - BEST_C), SteadyLoad(load.name, amps))
        for load in build.plan.loads
        if _steady(load)
        for amps in (bank_amps(build, load),)
        if LEAST_C * ah <= amps <= min(MOST_C * ah, most)
    ]
    if found:
        return min(found, key=lambda one: one[0])[1]
    amps = RESISTOR_C * ah
    ohm, watts = build.bank.nominal_v / amps, build.bank.nominal_v * amps
    inverter = build.plan.inverter
    if inverter.rated_w and watts >= HEATER_W:
        heater = max(50.0, 50 * round((watts - inverter.idle_w) * inverter.efficiency / 50))
        if heater <= inverter.rated_w:
            amps = (heater / inverter.efficiency + inverter.idle_w) / build.bank.nominal_v
            return SteadyLoad(phrase("changeover.steady_load.heater", watts=f"{heater:.0f}"), amps)
    return SteadyLoad(phrase("changeover.steady_load.resistor", ohm=f"{ohm:.2g}", watts=f"{watts:.0f}"), amps)
