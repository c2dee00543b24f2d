"""What the sources give in a part of a step, what the bank takes of it, and how far its charge moves."""

from vast_harbor.core.simulation.compiled import available_after, behind_cable, compiled, mean_acceptance
from vast_harbor.core.simulation.parameters import ASLEEP, RESTING

# A charge this close to what the bank accepts is held at the set volts.
AT_VOLTS = 0.995


@compiled
def offers(  # type: ignore[no-untyped-def]
    bank, slots, s, t, at, generating, asleep, done, resting, given, accepts, set_v
):
    """What each source would give, and what the bank would accept of it; both are written into arrays.

    Returns:
        The sum that is offered [A], and what there is to note.
    """
    soc, rested, source_v, bus_v, left = at
    supply, top_v, takes, state = 0.0, source_v, 0.0, 0
    for i in slots.order:
        hold = done[i]
        set_v[i] = slots.hold_v[i, s, t] if hold else slots.set_v[i, s, t]
        tau = slots.hold_tau[i, s, t] if hold else slots.set_tau[i, s, t]
        unit = slots.unit[i, s, t]
        if slots.by_power[i]:
            a = min(slots.amps[i], slots.watts[i] * unit / bus_v)
        else:
            a = slots.amps[i] * unit
            if generating and slots.plugged[i]:
                a = max(a, min(slots.amps[i], bank.generator_a))
        if resting[i] and a > 0:
            state |= RESTING
            a = 0.0
        if asleep and a > 0 and not slots.wakes[i]:
            state |= ASLEEP
            a = 0.0
        if set_v[i] <= source_v:
            a = 0.0
        given[i] = a
        by_volts = (set_v[i] - rested) / (bank.charge_ohm + slots.more_ohm[i])
        by_charge = mean_acceptance(soc, bank.ah, tau, bank.coulombic, left)
        by_charge = behind_cable(by_charge, slots.softens[i])
        accepts[i] = max(0.0, min(by_charge, by_volts))
        supply += a
        if a > 0:
            top_v, takes = set_v[i], accepts[i]
    # Charged, its volts rise: a power then gives fewer amps than at the volts of before.
    risen = top_v if takes <= 0 else rested + (top_v - rested) * min(1.0, supply / takes)
    for i in range(given.size):
        if slots.by_power[i] and given[i] > 0 and risen > bus_v:
            less = min(given[i], slots.watts[i] * slots.unit[i, s, t] / risen)
            supply -= given[i] - less
            given[i] = less
    return supply, state


@compiled
def into_bank(slots, given, accepts, set_v, may, load_a, rested):  # type: ignore[no-untyped-def]
    """Current into the bank [A], and the volts at which it is then held, where the sources give more than
    the loads take: each gives until the bank, at that source's volts, takes no more."""
    flow, top, takes = 0.0, rested, 0.0
    for i in slots.order:
        if given[i] > 0:
            flow = max(flow, min(flow + given[i], load_a + min(accepts[i], may)))
            top, takes = set_v[i], accepts[i]
    into = max(0.0, flow - load_a)
    held = rested + (top - rested) * min(1.0, into / takes) if takes > 0 else 0.0
    return into, held


@compiled
def see(  # type: ignore[no-untyped-def]
    bank, slots, given, accepts, into, limit_a, soc, hours, done, resting, timer, floated
):
    """How each charger sees the bank: whether absorption is over, and whether it goes to rest."""
    for i in range(given.size):
        if given[i] <= 0:
            continue
        if not done[i] and (into >= AT_VOLTS * min(accepts[i], limit_a) or not into):
            timer[i] += hours
            if (into <= bank.tail_a and soc > 0.5) or timer[i] >= slots.timeout_h[i]:
                done[i] = True
        if done[i]:
            floated[i] += hours
            if slots.rests[i] and floated[i] >= slots.rest_after_h:
                resting[i] = True


@compiled
def begin_anew(starts, rebulk_v, s, t, v, done, resting, timer, floated):  # type: ignore[no-untyped-def]
    """Chargers that are plugged in, or that leave their rest stage, begin with bulk again."""
    for i in range(done.size):
        if starts[i, s, t] or (resting[i] and v < rebulk_v[i]):
            done[i], resting[i], timer[i], floated[i] = False, False, 0.0, 0.0


@compiled
def charge_limit(bank, limit_a, heater):  # type: ignore[no-untyped-def]
    """The most that may go in at this temperature; more where its heater is fully on [A]."""
    if heater > 0 and heater >= 0.999 * bank.heater_w:
        return max(limit_a, bank.heated_a)
    return limit_a


@compiled
def until_dry(bank, q_1, q, amps, hours, empty_q):  # type: ignore[no-untyped-def]
    """How long a current can be drawn until the available well is down to what the cold holds back [h]."""
    low, high = 0.0, hours
    for _i in range(40):
        middle = (low + high) / 2
        if available_after(q_1, q, bank.ratio, bank.rate, amps, middle) < empty_q:
            high = middle
        else:
            low = middle
    return max(low, 1e-9)


@compiled
def move_charge(bank, q, q_1, amps, into, empty_q, leak_a, left):  # type: ignore[no-untyped-def]
    """Charge moved by a current, until the bank is full or the available well is dry.

    Args:
        bank: the bank.
        q, q_1: charge in both wells, and in the available one [Ah].
        amps, into: current out, or in [A]; one of them is nought.
        empty_q: what the cold holds back in the available well [Ah].
        leak_a: self-discharge [A].
        left: what is left of the step [h].

    Returns:
        The current in, nought where it was full already [A]; current out of the wells [A]; how long it went
        on [h]; charge in both wells and in the available one after it, and what leaked [Ah]; whether it ran
        dry.
    """
    c, c_q, h, dry = bank.ratio, bank.ratio * bank.q_max, left, False
    if into > 0:
        room = bank.q_max - q
        if into * bank.coulombic * h > room:
            if room <= 1e-9 * bank.q_max:
                into = 0.0
            else:
                h = room / (into * bank.coulombic)
    out_a = amps if into == 0 else -into * bank.coulombic
    q_1_next = available_after(q_1, q, bank.ratio, bank.rate, out_a, h)
    if out_a > 0 and q_1_next < empty_q:
        h = until_dry(bank, q_1, q, out_a, h, empty_q)
        q_1_next = available_after(q_1, q, bank.ratio, bank.rate, out_a, h)
        dry = True
    lost = min(leak_a * h, max(0.0, q - out_a * h) * 0.5)
    q_next = q - out_a * h - lost
    # What the available well cannot hold goes to the bound one at once.
    q_1_next = min(q_1_next - c * lost, c_q)
    q_1_next = max(q_1_next, q_next - (bank.q_max - c_q), 0.0)
    return into, out_a, h, q_next, q_1_next, lost, dry
