"""The need: usable energy between charges, and the nameplate that gives it."""


def energy_need(bank_wh_per_day: float, nights: float, reserve: float) -> float:
    """E_need = E_bank · N · (1 + m): usable energy between charges.

    Args:
        bank_wh_per_day: what the day takes from the bank [Wh/day].
        nights: nights without a charge, N.
        reserve: margin m [-].

    Returns:
        Energy [Wh].
    """
    return bank_wh_per_day * nights * (1 + reserve)


def nameplate_energy(need_wh: float, dod: float, temperature: float, rate: float, ageing: float) -> float:
    """E_nameplate = E_need / (DoD · k_T · k_rate · k_age).

    Args:
        need_wh: usable energy between charges [Wh].
        dod: usable depth of discharge [-].
        temperature: k_T [-].
        rate: k_rate [-].
        ageing: k_age [-].

    Returns:
        Energy by the label [Wh].
    """
    return need_wh / (dod * temperature * rate * ageing)


def usable_energy(nameplate_wh: float, dod: float, temperature: float, rate: float, ageing: float) -> float:
    """What the owner of a real bank may take out: nameplate · DoD · k_T · k_rate · k_age.

    Args:
        nameplate_wh: energy by the label [Wh].
        dod, temperature, rate, ageing: factors [-].

    Returns:
        Energy [Wh].
    """
    return nameplate_wh * dod * temperature * rate * ageing


# The classical method never plans below a fifth of the charge.
DEEPEST_EVER = 0.8


def classical_nameplate(
    bank_wh_per_day: float, nights: float, reserve: float, dod: float, daily_depth: float, temperature: float
) -> float:
    """The classical stand-alone solar method for lead-acid.

    The largest of autonomy ÷ maximum DoD, autonomy ÷ 0.8 and day ÷ maximum daily DoD, times the reserve,
    over k_T.

    Args:
        bank_wh_per_day: what the day takes from the bank [Wh/day].
        nights: days of autonomy, N.
        reserve: margin m [-].
        dod: maximum depth of discharge [-].
        daily_depth: maximum daily depth of discharge [-].
        temperature: k_T [-].

    Returns:
        Energy by the label [Wh].

    Source: after IEEE 1013, Recommended practice for sizing lead-acid batteries for stand-alone PV systems.
    """
    autonomy = bank_wh_per_day * nights
    largest = max(autonomy / dod, autonomy / DEEPEST_EVER, bank_wh_per_day / daily_depth)
    return largest * (1 + reserve) / temperature
