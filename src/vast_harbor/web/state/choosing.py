"""The edit that chooses the bank to buy."""

from vast_harbor.core.rig.plan import Plan
from vast_harbor.core.stops.compare import ComparedBank
from vast_harbor.web.base.views import OperationView


def choosing(compared: ComparedBank, plan: Plan) -> list[OperationView]:
    """The operations with which a bank becomes the one that is bought.

    Args:
        compared: the bank, built into the rig.
        plan: the owner's plan.

    Returns:
        One operation for a candidate; two for a bank that was found in the catalogue, which becomes a
        candidate with the choice.
    """
    candidate, bank = compared.banked.candidate, compared.banked.bank
    assert bank is not None
    if candidate in plan.candidates:
        return [OperationView(op="replace", path="/changeover/chosen", value=candidate.id)]
    taken = {c.id for c in plan.candidates}
    id = next(name for i in range(1, 100) if (name := f"bought-{i}") not in taken)
    new = {
        "id": id, "battery_class": bank.model.battery_class.key, "model": bank.model.id,
        "series": bank.series, "parallel": bank.parallel,
    }  # fmt: skip
    return [
        OperationView(op="add", path="/candidates/-", value=new),
        OperationView(op="replace", path="/changeover/chosen", value=id),
    ]
