"""Currencies as people write them: ``EUR``, ``€``, ``euro``, ``A$``, ``New Zealand dollars``."""

from collections.abc import Mapping
from functools import lru_cache

from babel.core import UnknownLocaleError
from babel.numbers import get_currency_name, get_currency_symbol, list_currencies

# Signs that stand on keyboards and price tags though another sign is the usual one.
ALSO = {"us$": "USD", "c$": "CAD", "pound": "GBP", "pounds": "GBP", "rand": "ZAR", "rands": "ZAR"}


@lru_cache(maxsize=1)
def _written() -> Mapping[str, str]:
    """Sign or name in lower case → code; none that stands for several."""
    found: dict[str, set[str]] = {}
    for code in list_currencies("en"):
        names = {get_currency_name(code, count, locale="en") for count in (None, 1, 2)}
        for name in names | {get_currency_symbol(code, "en")}:
            found.setdefault(str(name).lower(), set()).add(code)
    return {name: next(iter(codes)) for name, codes in found.items() if len(codes) == 1} | ALSO


def currency_code(text: str) -> str | None:
    """The ISO 4217 code of a currency as it was typed; None where none is meant, or several may be.

    Args:
        text: a code, a sign, or the English name in singular or plural.

    Returns:
        e.g. ``EUR`` for ``€``, ``euro`` and ``eur``. Names and signs are those of CLDR.
    """
    written = text.strip()
    code = written.upper()
    return code if code in list_currencies() else _written().get(written.lower())


@lru_cache(maxsize=256)
def currency_symbol(code: str) -> str:
    """Symbol of a currency, or its code where it has none in common use.

    Args:
        code: ISO 4217 code.

    Returns:
        e.g. ``€``.
    """
    try:
        return str(get_currency_symbol(code, "en"))
    except UnknownLocaleError:
        return code
