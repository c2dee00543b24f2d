"""What is said for caution's sake of every answer, whether a bank alone or a package."""

from collections.abc import Iterator

from vast_harbor.core.figures.workings import Sentence
from vast_harbor.core.stops.compare.compared_bank import ComparedBank
from vast_harbor.core.stops.compare.verdict import Verdict
from vast_harbor.core.stops.rig import CHARGER, DRAIN, USE
from vast_harbor.phrases import and_list, phrase

CULPRITS = {
    CHARGER: phrase("terms.names.charger"),
    DRAIN: phrase("compare.verdict_text.hidden_drain"),
    USE: phrase("compare.verdict_text.higher_use"),
}


def undocumented(compared: ComparedBank) -> Iterator[Sentence]:
    """What the datasheet of a lithium battery leaves open, and what that risks."""
    bank = compared.banked.bank
    if bank is None or compared.banked.battery_class.is_lead_acid:
        return
    uncertified = not bank.model.proof.certifications
    # A heater warms the cells before they are charged.
    charges_cold = bank.model.heater_w is None and not (bank.model.bms and bank.model.bms.stops_cold_charge)
    if uncertified and charges_cold:
        yield Sentence(phrase("compare.verdict_text.no_certificate_no_cold_stop"))
    elif uncertified:
        yield Sentence(phrase("compare.verdict_text.no_certificate"))
    elif charges_cold:
        yield Sentence(phrase("compare.verdict_text.no_cold_stop"))


def cautions_of_rig(v: Verdict) -> Iterator[Sentence]:
    """What else is at fault and would spoil the next bank, and that a dangerous old one comes out."""
    others = [CULPRITS[k] for k in v.at_fault if k in CULPRITS and k != USE]
    if others:
        yield Sentence(phrase("compare.verdict_text.fix_too_bank_fail", others=and_list(others)))
    if v.danger:
        yield Sentence(phrase("compare.verdict_text.take_old_bank_out"))
