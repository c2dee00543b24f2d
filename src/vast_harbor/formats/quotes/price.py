"""Weight and price of an offer, which pounds can be either of: of one battery, in the owner's money."""

import re
from math import log

from vast_harbor.core.figures.currency import currency_code, currency_symbol
from vast_harbor.core.figures.units import KG_PER_LB
from vast_harbor.formats.quotes.figures import Found, lexicon, words
from vast_harbor.formats.quotes.offer import OfferText
from vast_harbor.formats.quotes.quote import Ask

# A price or a weight is believed up to so many times the usual of its class, or down to that part of it.
PRICE_WITHIN, KG_WITHIN = 5.0, 2.5
# One of two prices is taken as that of one battery where it is nearer to the usual by this factor.
CLEARLY = 1.5
DOLLARS = ("USD", "CAD", "AUD", "NZD")


class PriceAndWeight(OfferText):
    """Weight and price of an offer."""

    def _weight(self) -> None:
        one = next(iter(self._of("kg", "lb")), None)
        pounds = [f for f in self._of("money") if re.search(r"pounds?$", self._source(f), re.IGNORECASE)]
        if one is None:
            signed = [f for f in self._of("money") if f not in pounds]
            one = next((f for f in pounds if signed or self._within("weight", f)), None)
        if one is None:
            return
        kilos = round(one.value * (1.0 if one.unit == "kg" else KG_PER_LB), 2)
        usual = self._usual("kg")
        believed = (1.0, 400.0) if usual is None else (usual / KG_WITHIN, usual * KG_WITHIN)
        self._say("kg", kilos, one, believed)

    def _price(self) -> None:
        priced = self._priced()
        if not priced:
            return
        lot, usual = self._lot(), self._usual("price")
        each = [f for f in priced if self._within("each", f, 12, 14)]
        whole = [f for f in priced if self._within("total", f, 24, 24) and f not in each]
        ones = each or [f for f in priced if f not in whole]
        meant = ones or whole
        values = list(dict.fromkeys(f.value for f in meant))
        if not ones and lot > 1:
            self._take([round(whole[0].value / lot, 2)], whole, usual)
        elif len(values) > 1:
            # Several prices, of which none is said to be the one.
            self._take(values, meant, usual)
        elif lot > 1 and not each:
            self._take(self._of_one(meant[0], lot, usual), meant, usual)
        elif not ones:
            self._ask(values, meant)
        else:
            self._take(values, meant, usual)

    def _of_one(self, one: Found, lot: int, usual: float | None) -> list[float]:
        """A price beside a number of batteries: of one of them, of all, or of either."""
        alone, shared = one.value, round(one.value / lot, 2)
        rate = self._rate_of(one)
        if usual is not None and rate is not None:
            off_alone, off_shared = (abs(log(value * rate / usual)) for value in (alone, shared))
            if abs(off_alone - off_shared) > log(CLEARLY):
                return [alone if off_alone < off_shared else shared]
        return [shared, alone]

    def _take(self, values: list[float], meant: list[Found], usual: float | None) -> None:
        """Take a price; one of several, or in other money, is asked about."""
        if len(values) > 1 or self._is_foreign(meant[0]):
            self._ask(values, meant)
            return
        within = (1.0, 100_000.0) if usual is None else (usual / PRICE_WITHIN, usual * PRICE_WITHIN)
        self._say("price", values[0], meant[0], within)

    def _ask(self, values: list[float], meant: list[Found]) -> None:
        """Ask which price is right; of one in other money its rate is proposed first."""
        rate = self._rate_of(meant[0])
        changed = [round(v * rate, 2) for v in values] if rate is not None and rate != 1 else []
        self.asks.append(Ask("price", (*changed, *values), " · ".join(self._source(f) for f in meant)))

    def _is_foreign(self, one: Found) -> bool:
        return bool(self.currency) and self._money_of(one) not in ("", self.currency)

    def _rate_of(self, one: Found) -> float | None:
        """The owner's money for a unit of that of a price; None where no rate is known."""
        if not self._is_foreign(one):
            return 1.0
        own, other = (self.price_levels.get(code) for code in (self.currency, self._money_of(one)))
        return own.rate / other.rate if own is not None and other is not None else None

    def _money_of(self, one: Found) -> str:
        """The code of the money that a price is in; empty where it names none, or where the owner's may be
        meant."""
        sign = re.sub(r"[\d.,\s'-]", "", self._source(one))
        if not sign or sign.casefold() in currency_symbol(self.currency).casefold():
            return ""
        if sign == "$" and self.currency in DOLLARS:
            return ""
        return currency_code(sign) or ""

    def _priced(self) -> list[Found]:
        """Figures that are the price of what is offered: not its delivery, nor what it cost before."""
        money = [f for f in self._of("money") if f not in self.used]
        if not money:
            money = [f for f in self._of("") if f not in self.used and self._labelled("price", f)]
        if not money:
            money = self._last_of_a_line()
        money = [f for f in money if not self._besides("delivery", f)]
        now = [f for f in money if not self._besides("old_price", f)]
        labelled = [f for f in now if self._labelled("price", f)]
        each = [f for f in now if self._within("each", f, 12, 14)]
        return each or labelled or now or money

    def _last_of_a_line(self) -> list[Found]:
        """At the end of a line that tells what is offered, or with its cents, a number is its price."""
        out = []
        for one in self._of(""):
            start, end = self._line(one)
            rest = self.plain[one.end : end].strip(" \t,-.")
            if one in self.used or rest:
                continue
            cents = re.search(r"\d{2,}[.,]\d{2}$", self._source(one)) is not None
            if cents or re.search(r"\d\s*(?:a\.?h|v)\b", self.plain[start : one.start], re.IGNORECASE):
                out.append(one)
        return out

    def _lot(self) -> int:
        """How many batteries are offered."""
        if words("pair").search(self.plain):
            return 2
        begins = rf"(?:^|\n)\s*(\d{{1,2}})\s*(?:{'|'.join(lexicon()['words']['lot'])})\s*(?=[^\W\d_]|\d)"
        sets = rf"{words('set_of').pattern}\s*(\d{{1,2}})\b|(\d{{1,2}})\s*er[- ]?set\b"
        for pattern in (begins, sets):
            if (m := re.search(pattern, self.plain, re.IGNORECASE)) is not None:
                return max(1, int(next(g for g in m.groups() if g)))
        return 1
