"""How a region writes numbers: digits apart, decimals, per cent and money, after CLDR."""

import re
from dataclasses import dataclass
from functools import lru_cache

from babel.core import Locale

THIN = "\u202f"
# Offered to owners; without one of them numbers are written as ISO 80000 does: 1 918.5, 25 %, €1 918.
LOCALES = (
    "en-US", "en-GB", "en-IE", "en-CA", "en-AU", "en-NZ", "en-ZA", "de-DE", "de-CH", "fr-FR", "nl-NL",
    "es-ES", "it-IT", "pt-PT", "nb-NO", "sv-SE", "da-DK", "fi-FI", "pl-PL", "et-EE", "es-AR",
)  # fmt: skip
_NUMBER = re.compile(rf"\d(?:[\d{THIN}]*\d)?(?:\.\d+)?(?![\d:/])")


@dataclass(frozen=True, slots=True)
class NumberFormat:
    """The signs of one region.

    Attributes:
        group, decimal: between thousands, and before decimals.
        percent: what stands between a number and its per cent sign.
        before: whether the sign of a currency stands before the amount.
        space: what stands between that sign and the amount.
    """

    group: str
    decimal: str
    percent: str
    before: bool
    space: str

    def number(self, text: str) -> str:
        """A text with its numbers rewritten, which is written as ``1\u202f918.5 kg``."""
        if self.group == THIN and self.decimal == ".":
            return text
        return _NUMBER.sub(self._rewritten, text).replace(" %", f"{self.percent}%")

    def _rewritten(self, found: re.Match[str]) -> str:
        whole, dot, decimals = found[0].partition(".")
        return whole.replace(THIN, self.group) + (self.decimal if dot else "") + decimals

    def money(self, sign: str, symbol: str, amount: str) -> str:
        """An amount with the sign of its currency where the region puts it."""
        space = self.space or (THIN if len(symbol) > 2 and self.before else "")
        return f"{sign}{symbol}{space}{amount}" if self.before else f"{sign}{amount}{space}{symbol}"


INTERNATIONAL = NumberFormat(THIN, ".", " ", True, "")


@lru_cache(maxsize=64)
def number_format(locale: str) -> NumberFormat:
    """The signs of a region.

    Args:
        locale: one of :data:`LOCALES`; empty for none.

    Returns:
        As CLDR has them; a space between thousands is a narrow one.
    """
    if not locale:
        return INTERNATIONAL
    found = Locale.parse(locale, sep="-")
    symbols = found.number_symbols["latn"]
    group = symbols["group"]
    pattern = found.currency_formats["standard"].pattern.split(";")[0]
    before = pattern.startswith("¤")
    space = "\u00a0" if re.search(r"¤\s|\s¤", pattern) else ""
    percent = "\u00a0" if re.search(r"\s%", found.percent_formats[None].pattern) else ""
    return NumberFormat(THIN if group.isspace() else group, symbols["decimal"], percent, before, space)
