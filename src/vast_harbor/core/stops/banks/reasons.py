"""When a bank of the right volts will not do: each reason once, for the search and for the checks."""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass

from vast_harbor.core.stops.banks.criteria import BankCriteria, Criterion
from vast_harbor.phrases import phrase

# Codes of checks that are asked for by name.
COVERS_NEED, SHORT_CIRCUIT, FUSE = "covers_need", "short_circuit", "fuse"
UNSWITCHED, VENTILATION, LIVING_SPACE = "external_bms", "ventilation", "living_space"
COLD_UNGUARDED, ORIENTATION, FIT = "cold_unguarded", "orientation", "fit"


def _broken(criterion: Criterion | None) -> bool:
    return criterion is not None and criterion.broken


def _current(bank: BankCriteria) -> bool:
    return bank.gives_a is not None and (bank.amps_at(bank.lasting_w) is None or _broken(bank.running))


def _start(bank: BankCriteria) -> bool:
    return bank.bms is not None and (bank.start_a is None or _broken(bank.starting))


def _sag(bank: BankCriteria) -> bool:
    return bank.start_w > 0 and (bank.start_a is None or (bank.has_inverter and _broken(bank.sag)))


def _cold(bank: BankCriteria) -> bool:
    lead = bank.bank.model.battery_class.is_lead_acid
    return not lead and bank.cold_charge.broken and bank.cold_answer is None


def _unguarded(bank: BankCriteria) -> bool:
    model = bank.bank.model
    guarded = model.bms is None or model.bms.stops_cold_charge
    if model.battery_class.is_lead_acid or model.heater_w is not None or guarded:
        return False
    # In use, or while nobody is there to switch off what charges.
    return _cold(bank) or _broken(bank.cold_left)


def _gasses(bank: BankCriteria) -> bool:
    return bank.bank.model.battery_class.vented == "always"


def _fit(bank: BankCriteria) -> bool:
    if bank.clashes:
        return bank.clashes[0].what != "pose"
    return bank.packing is not None and not bank.packing.fits


def _coupling(bank: BankCriteria) -> bool:
    return not bank.snakes and bank.coupling is not None and bank.coupling[1].broken


# Code of a check → when it says that a bank will not do.
BROKEN: Mapping[str, Callable[[BankCriteria], bool]] = {
    "label": lambda bank: bool(bank.implausible),
    "series_limit": lambda bank: bank.bank.series > bank.bank.model.max_series,
    "parallel_limit": lambda bank: bank.bank.parallel > bank.bank.model.max_parallel,
    COVERS_NEED: lambda bank: bank.covers_need.broken,
    UNSWITCHED: lambda bank: bank.unswitched,
    "pack_power": lambda bank: _broken(bank.pack_power),
    "continuous_current": _current,
    "starting_current": _start,
    "sag": _sag,
    "charge_current": lambda bank: _broken(bank.charge),
    "cold_charge": _cold,
    COLD_UNGUARDED: _unguarded,
    "cold_use": lambda bank: bank.cold_use.broken,
    "hot_use": lambda bank: bank.hot_use.broken,
    LIVING_SPACE: lambda bank: _gasses(bank) and bank.in_living_space,
    VENTILATION: lambda bank: _gasses(bank) and _broken(bank.opening),
    SHORT_CIRCUIT: lambda bank: not bank.rig.can_be_fused(bank.bank),
    "payload": lambda bank: _broken(bank.payload),
    "coupling_light": lambda bank: bank.snakes,
    "coupling": _coupling,
    "front_axle": lambda bank: _broken(bank.axles.get("front")),
    "rear_axle": lambda bank: _broken(bank.axles.get("rear")),
    FIT: _fit,
    ORIENTATION: lambda bank: bool(bank.clashes) and bank.clashes[0].what == "pose",
}


def will_not_do(code: str, bank: BankCriteria) -> bool:
    """Whether a check says that a bank will not do; one that only asks for caution never does.

    Args:
        code: of the check.
        bank: the bank in its rig.
    """
    broken = BROKEN.get(code)
    return broken is not None and broken(bank)


@dataclass(frozen=True, slots=True)
class Reason:
    """A reason why banks will not do.

    Attributes:
        words: what it is called, in words that can be counted.
        codes: of the checks that tell it.
        mended: whether something else that is bought puts it right; its price is then counted.
        by_size: whether a larger bank has it no more.
    """

    words: str
    codes: tuple[str, ...]
    mended: bool = False
    by_size: bool = False


LABEL, SERIES, NEED, SWITCH, PACK, CURRENT, START, SAG = (
    "label", "series", "need", "switch", "pack", "current", "start", "sag",
)  # fmt: skip
CHARGE, COLD, TEMPERATURE, AIR, UNFUSED, WEIGHT, LOCKER = (
    "charge", "cold", "temperature", "air", "fuse", "weight", "locker",
)  # fmt: skip
# In the order in which they are looked for.
REASONS: Mapping[str, Reason] = {
    LABEL: Reason(phrase("banks.criteria.label_cannot_true"), ("label",)),
    SERIES: Reason(phrase("banks.criteria.series_maker_allows"), ("series_limit",)),
    NEED: Reason(
        phrase("banks.criteria.too_small_even_many"), ("parallel_limit", COVERS_NEED), by_size=True
    ),
    SWITCH: Reason(phrase("banks.criteria.switch_own_needs_external"), (UNSWITCHED,), mended=True),
    PACK: Reason(phrase("banks.criteria.portable_pack_inverter_too"), ("pack_power",)),
    CURRENT: Reason(
        phrase("banks.criteria.bms_cannot_carry_running"), ("continuous_current",), by_size=True
    ),
    START: Reason(phrase("banks.criteria.bms_cannot_start_largest"), ("starting_current",), by_size=True),
    SAG: Reason(phrase("banks.criteria.voltage_drops_below_inverter"), ("sag",), by_size=True),
    CHARGE: Reason(phrase("banks.criteria.cannot_take_full_current"), ("charge_current",), by_size=True),
    COLD: Reason(phrase("banks.criteria.cannot_charged_lowest_temperature"), ("cold_charge", COLD_UNGUARDED)),
    TEMPERATURE: Reason(phrase("banks.criteria.place_too_cold_too"), ("cold_use", "hot_use")),
    AIR: Reason(
        phrase("banks.criteria.gives_off_gas_where"), (LIVING_SPACE, VENTILATION), mended=True
    ),
    UNFUSED: Reason(phrase("banks.criteria.no_fuse_breaks"), (SHORT_CIRCUIT,)),
    WEIGHT: Reason(
        phrase("banks.criteria.too_heavy_payload_axle"),
        ("payload", "coupling_light", "coupling", "front_axle", "rear_axle"),
    ),
    LOCKER: Reason(phrase("banks.criteria.fit_locker"), (FIT, ORIENTATION)),
}  # fmt: skip
# What something else that is bought puts right.
PUT_RIGHT = frozenset(key for key, reason in REASONS.items() if reason.mended)
# What rules a bank out even where next to nothing is asked of it.
DOES_HARM = frozenset(key for key, reason in REASONS.items() if not reason.by_size)
_TESTS = tuple((key, tuple(BROKEN[code] for code in reason.codes)) for key, reason in REASONS.items())


def against(bank: BankCriteria) -> Iterator[str]:
    """Every reason why a bank of the right volts will not do, by its key in :data:`REASONS`."""
    return (key for key, tests in _TESTS if any(broken(bank) for broken in tests))
