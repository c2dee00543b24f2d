"""What the life of one bank says of the life of the next one of its class, in the same hands."""

from dataclasses import dataclass
from math import hypot, log

from vast_harbor.core.battery.ageing import wear_at_health
from vast_harbor.core.battery.health_signs import LEAST_HEALTH, MOST_HEALTH
from vast_harbor.core.figures.normal import Z_90

# How far the use of its years may have been from that of the plan, as a part of its wear [-].
HABITS_DOUBT = 0.3
# Health lost at wear 1 [-]: what a doubt of the health is as a doubt of the wear.
FADE = 0.2


@dataclass(frozen=True, slots=True)
class Evidence:
    """How one bank aged, against what was to be expected of its class.

    Attributes:
        expected: wear that cycles and years should have made of it [-].
        worn: wear that its health shows, without that of its accidents [-].
        trust: how much of the difference is the class's, the rest being chance and doubt [-].
    """

    expected: float
    worn: float
    trust: float

    def factor(self, share: float = 1.0) -> float:
        """Factor on the cycles and the years of its class: 1 / (1 + share · trust · (worn/expected − 1)) [-].

        Args:
            share: how much of it is to count, 0 to 1 [-].
        """
        return 1 / (1 + share * self.trust * (self.worn / self.expected - 1))


def weigh(
    expected: float, health: float, doubt: float, accidents: float, lead: bool, class_span: float
) -> Evidence:
    """Weigh how a bank aged against the spread of its class.

    The class wears 1 ± σ_class times as fast as it is said to; the bank is seen to have worn worn/expected
    times as fast, with the doubt of its health and of its use. The width goes by how its health was read,
    never by what was read, so a worse bank never speaks for a longer life.

    Args:
        expected: wear that cycles and years should have made of it [-], above 0.
        health: its state of health [-].
        doubt: standard deviation of that [-].
        accidents: wear of what is known to have happened to it [-].
        lead: whether it is lead-acid, which fades faster beyond wear 1.
        class_span: longest against shortest life of its class, P90 / P10 [-], above 1.

    Returns:
        The evidence; trust is σ_class² / (σ_class² + σ_bank²).

    Source: the posterior mean of a normal prior and a normal observation.
    """
    seen = float(wear_at_health(min(MOST_HEALTH, max(LEAST_HEALTH, health)), lead))
    of_class = log(class_span) / (2 * Z_90)
    of_bank = hypot(doubt / FADE / expected, HABITS_DOUBT)
    return Evidence(expected, max(0.0, seen - accidents), of_class**2 / (of_class**2 + of_bank**2))
