"""What a bank weighs on a rig."""

from vast_harbor.core.figures.cached import cached_property
from vast_harbor.core.installation.axle_load import coupling_change
from vast_harbor.core.rig.plan import CABIN
from vast_harbor.core.stops.banks.criteria.bank_in_rig import BankInRig, Criterion


class WeightCriteria(BankInRig):
    """The weight of a bank."""

    @property
    def kg_change(self) -> float:
        """Weight against the old bank [kg]."""
        return self.bank.kg - self.rig.old_kg

    @property
    def payload(self) -> Criterion | None:
        """What it adds against the payload left, else its weight against what such rigs bear [kg]; None in a
        cabin."""
        if self.plan.kind == CABIN:
            return None
        left = self.plan.loading.payload_kg
        if left is not None:
            return Criterion(self.kg_change, left)
        # A rig that bears the old bank bears one of its weight.
        return Criterion(
            self.bank.kg, max(self.rig.old_kg, self.assumptions.value(f"bears_kg.{self.plan.kind}"))
        )

    @cached_property
    def shift_kg(self) -> float | None:
        """Change at the coupling of a caravan, or on the front axle of a vehicle [kg]; None where the levers
        are not stated, afloat, or in a cabin."""
        loading = self.plan.loading
        if self.plan.kind in ("cabin", "boat"):
            return None
        if loading.old_x_m is None or loading.new_x_m is None or loading.base_m is None:
            return None
        return coupling_change(
            self.bank.kg, loading.new_x_m, self.rig.old_kg, loading.old_x_m, loading.base_m
        )

    @property
    def coupling(self) -> tuple[Criterion, Criterion] | None:
        """Load on a caravan's coupling against nought and against the most [kg]; None where not stated."""
        loading = self.plan.loading
        if self.plan.kind != "caravan" or self.shift_kg is None:
            return None
        if loading.coupling_kg is None or loading.coupling_max_kg is None:
            return None
        then = loading.coupling_kg + self.shift_kg
        return Criterion(then, 0.0, is_minimum=True), Criterion(then, loading.coupling_max_kg)

    @property
    def axles(self) -> dict[str, Criterion]:
        """What it adds to the front and the rear axle against what is left there [kg]; those stated."""
        loading = self.plan.loading
        if self.plan.kind == "caravan" or self.shift_kg is None:
            return {}
        added = {"front": self.shift_kg, "rear": self.kg_change - self.shift_kg}
        left = {"front": loading.front_kg, "rear": loading.rear_kg}
        return {side: Criterion(added[side], most) for side, most in left.items() if most is not None}

    @property
    def snakes(self) -> bool:
        """Whether nothing would press on the coupling any more."""
        return self.coupling is not None and self.coupling[0].value <= 0
