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
        if not ones and lot > 1:
            self._say_price(round(whole[0].value / lot, 2), whole[0], usual)
            return
        values = list(dict.fromkeys(f.value for f in ones or whole))
        one = (ones or whole)[0]
        if len(values) > 1:
            # Several prices, of which none is said to be the one.
            self.asks.append(Ask("price", tuple(values), " · ".join(self._source(f) for f in ones or whole)))
        elif lot > 1 and not each:
            self._of_one(one, lot, usual)
        elif whole and not each and lot == 1 and not ones:
            self.asks.append(Ask("price", (one.value,), self._source(one)))
        else:
            self._say_price(one.value, one, usual)

    def _of_one(self, one: Found, lot: int, usual: float | None) -> None:
        """A price beside a number of batteries: of one of them, or of all."""
        alone, shared = one.value, round(one.value / lot, 2)
        if usual is not None:
            off_alone, off_shared = abs(log(alone / usual)), abs(log(shared / usual))
            if abs(off_alone - off_shared) > log(CLEARLY):
                self._say_price(alone if off_alone < off_shared else shared, one, usual)
                return
        self.asks.append(Ask("price", (shared, alone), self._source(one)))

    def _say_price(self, value: float, one: Found, usual: float | None) -> None:
        code = self._money_of(one)
        if self.currency and code not in ("", self.currency):
            # In other money it is asked, and the rate proposed.
            known = [self.price_levels[c].rate for c in (self.currency, code) if c in self.price_levels]
            changed = (round(value * known[0] / known[1], 2),) if len(known) == 2 else ()
            self.asks.append(Ask("price", (*changed, value), self._source(one)))
            return
        within = (1.0, 100_000.0) if usual is None else (usual / PRICE_WITHIN, usual * PRICE_WITHIN)
        self._say("price", value, one, within)

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
