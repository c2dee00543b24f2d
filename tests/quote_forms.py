"""Invented labels and offers in five languages: forms with places for figures, which are drawn."""

import tomllib
from collections.abc import Iterator
from pathlib import Path

import numpy as np

# Places: v volts as called, ah, h hours of the rating, kg, l × w × hh size, eur price as a whole number,
# cents the same with cents, ship delivery, old an earlier price, n cycles, d depth, y years, m months,
# a lasting current, p peak, c charging current, lo and hi temperatures, rc minutes, k how many, all their
# price together.
_FILE = Path(__file__).with_name("quote_forms.toml")
FORMS: dict[str, list[str]] = tomllib.loads(_FILE.read_text("utf-8"))
# Place → field; places that are not here tell nothing of the battery, and must not be taken for it.
FIELDS = {
    "ah": "rated_ah", "h": "rated_hours", "kg": "kg", "l": "length_mm", "w": "width_mm", "hh": "height_mm",
    "n": "cycles", "a": "bms_continuous_a", "p": "bms_peak_a", "c": "charge_a", "lo": "charge_min_c",
    "hi": "charge_max_c", "rc": "reserve_minutes",
}  # fmt: skip


def offers(each: int = 5) -> Iterator[tuple[str, dict[str, float | str]]]:
    """Every form with drawn figures, and what it says of one battery.

    Args:
        each: so many of each form.
    """
    rng = np.random.default_rng(7)
    for language, forms in FORMS.items():
        for form in forms:
            for _ in range(each):
                yield _offer(language, form, rng)


def _offer(language: str, form: str, rng: np.random.Generator) -> tuple[str, dict[str, float | str]]:
    lfp = any(word in form.casefold() for word in ("lfp", "lifepo", "lithium", "litio"))
    key = "lfp" if lfp else "gel" if "Gel" in form else "agm" if "AGM" in form else "flooded"
    ah = int(rng.choice((60, 90, 100, 110, 150, 200, 280)))
    price = round(float(ah * 12 * rng.uniform(0.25, 0.5) if lfp else ah * 12 * rng.uniform(0.12, 0.25)), 2)
    k = int(rng.integers(2, 5))
    values = {
        "v": 12, "ah": ah, "h": int(rng.choice((5, 20, 100))), "kg": round(ah * (0.11 if lfp else 0.29), 1),
        "l": int(rng.integers(200, 520)), "w": int(rng.integers(150, 240)), "hh": int(rng.integers(180, 260)),
        "eur": round(price), "cents": price, "ship": int(rng.integers(9, 49)), "old": round(price * 1.4),
        "n": int(rng.choice((2500, 3500, 4000, 6000)) if lfp else rng.choice((350, 500, 600))),
        "d": int(rng.choice((80, 100)) if lfp else rng.choice((50, 80))), "y": int(rng.integers(2, 6)),
        "m": int(rng.choice((12, 24, 36))), "a": int(rng.choice((50, 80, 100, 150))),
        "p": int(rng.choice((200, 300, 400))), "c": int(rng.choice((20, 40, 60))), "lo": 0, "hi": 45,
        "rc": int(rng.integers(90, 300)), "k": k, "all": round(price) * k,
    }  # fmt: skip
    text = form.format(**{name: _written(name, value, language) for name, value in values.items()})
    truth: dict[str, float | str] = {"battery_class": key}
    for name, field in FIELDS.items():
        if f"{{{name}}}" in form:
            truth[field] = values[name]
    if "{cents}" in form:
        truth["price"] = price
    elif "{eur}" in form or "{all}" in form:
        truth["price"] = values["eur"]
    if "{d}" in form:
        truth["cycles_at_dod"] = values["d"] / 100
    if "{y}" in form or "{m}" in form:
        truth["warranty_years"] = values["y"] if "{y}" in form else values["m"] / 12
    return text, truth


def _written(name: str, value: float, language: str) -> str:
    """A figure as the language writes it: marks of thousands and of decimals."""
    thousands = {"en": ",", "de": ".", "fr": " ", "es": ".", "nl": "."}[language]
    text = (
        f"{value:,.2f}"
        if name == "cents"
        else f"{value:,}"
        if name in ("eur", "all", "old", "n")
        else f"{value:g}"
    )
    if language == "en":
        return text
    return text.replace(",", "\0").replace(".", ",").replace("\0", thousands)
