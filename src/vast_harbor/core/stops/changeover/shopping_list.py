"""The shopping list: the batteries, what the money counts in addition, what is there, and tools.

It is the same truth as the extras of the comparison: each priced line is one of them, or the bank itself.
"""

import math
from collections.abc import Iterator
from dataclasses import dataclass

from vast_harbor.core.figures.display import awg
from vast_harbor.core.figures.workings import REFERENCE, Figure, computed
from vast_harbor.core.installation.cables import FuseKind, breaking_a, string_breaking_a
from vast_harbor.core.rig.changeover import Purchase
from vast_harbor.core.rig.improvement_rows import NEEDED, WANTED
from vast_harbor.core.rig.plan import THERE
from vast_harbor.core.stops.changeover.work import Work
from vast_harbor.core.stops.compare import ADVISED, COUNTED, RequiredExtra
from vast_harbor.phrases import phrase

# Tags beyond those of extras: what is only advised, and tools that may be borrowed.
OPTIONAL, TOOL = "optional", "tool"
TAGS = (NEEDED, WANTED, OPTIONAL, THERE, TOOL)


@dataclass(frozen=True, slots=True)
class Line:
    """One line of the list.

    Attributes:
        key: stable over edits: ``batteries``, ``source-…``, ``part-…``, ``wire-…``, ``extra-…``, ``tool-…``.
        count: how many; None where it is one thing.
        name, size, reason: what it is, of which size, why.
        estimate: what it costs by the plan [money]; None for what bears no price of this bank.
        tag: ``needed``, ``wanted``, ``optional``, ``there`` or ``tool``.
        purchase: what the owner noted.
        price_path: JSON pointer of the field of its price; empty for the quote of its own record.
        contents: what it is made of, where it is several things.
    """

    key: str
    count: int | None
    name: str
    size: str
    reason: str
    estimate: Figure | None
    tag: str
    purchase: Purchase
    price_path: str = ""
    contents: tuple[str, ...] = ()

    @property
    def got(self) -> bool:
        """Whether it is bought, borrowed or there."""
        return self.purchase.got or self.tag == THERE

    @property
    def price(self) -> float | None:
        """Paid, else quoted, else estimated [money]; None where it bears none."""
        known = self.purchase.price
        return known if known is not None else self.estimate.value if self.estimate is not None else None


@dataclass(frozen=True, slots=True)
class ShoppingList:
    """All that is bought, borrowed or there.

    Attributes:
        lines: in the order in which they are built in.
        total: needed and wanted lines [money]; spent: what of it is paid [money].
    """

    lines: tuple[Line, ...]
    total: Figure
    spent: Figure

    def all_figures(self) -> Iterator[Figure]:
        """Every figure of the list."""
        yield from (self.total, self.spent)
        yield from (line.estimate for line in self.lines if line.estimate is not None)


def shopping_list(work: Work) -> ShoppingList:
    """What must be bought, borrowed or is there for a bank.

    Args:
        work: the bank that is bought.

    Returns:
        The lines and their sums.
    """
    lines = (
        *_batteries(work),
        *_remedies(work),
        *_required(work),
        *_own(work),
        *_wires(work),
        *_watching(work),
        *_tools(work),
    )
    counted = [line for line in lines if line.tag in (NEEDED, WANTED) and line.price is not None]
    at = f"changeover.{work.id}"
    inputs = {
        f"p_{i}": Figure(
            f"{at}.line.{line.key}",
            line.name,
            line.price,
            "money",
            REFERENCE,
            source=phrase("changeover.shopping.line_source"),
        )
        for i, line in enumerate(counted, 1)
    }
    total = computed(
        f"{at}.total",
        phrase("changeover.shopping.total"),
        sum(line.price or 0.0 for line in counted),
        "money",
        " + ".join(f"{{{symbol}}}" for symbol in inputs) or "0",
        inputs,
    )
    paid = sum(line.purchase.paid or 0.0 for line in lines)
    spent = Figure(
        f"{at}.spent",
        phrase("changeover.shopping.spent"),
        paid,
        "money",
        REFERENCE,
        source=phrase("changeover.shopping.spent_source"),
    )
    return ShoppingList(lines, total, spent)


def _batteries(work: Work) -> Iterator[Line]:
    bank, candidate = work.build.bank, work.build.candidate
    model = bank.model
    yield Line(
        "batteries",
        bank.units,
        model.title,
        f"{model.nominal_v:g} V · {model.rated_ah:g} Ah",
        phrase("changeover.shopping.batteries_why"),
        work.compared.banked["purchase"],
        NEEDED,
        work.purchase("batteries"),
        f"{work.build.path}/unit_price",
    )
    if candidate.spare:
        yield Line(
            "spare",
            1,
            model.title,
            "",
            phrase("changeover.shopping.spare_why"),
            None,
            NEEDED,
            work.purchase("spare"),
        )


def _required(work: Work) -> Iterator[Line]:
    for one in work.required:
        if one.state in (COUNTED, ADVISED):
            yield Line(
                one.key,
                None,
                one.name,
                _sized(work, one.key),
                _reason(one),
                one.price,
                NEEDED if one.state == COUNTED else OPTIONAL,
                work.purchase(one.key),
                contents=_links(work) if one.key == "part-links" else (),
            )


def _remedies(work: Work) -> Iterator[Line]:
    at = f"changeover.{work.id}"
    for source, rung in work.remedies:
        key = f"fix-{source.id}"
        estimate = Figure(
            f"{at}.{key}",
            rung.says,
            rung.price,
            "money",
            REFERENCE,
            source=phrase("compare.required_extras.charging_page_typical_price"),
        )
        yield Line(
            key,
            None,
            f"{work.name(source)}: {rung.says}",
            "",
            phrase("changeover.shopping.source_why"),
            estimate,
            NEEDED,
            work.purchase(key),
        )


def _sized(work: Work, key: str) -> str:
    """How many of a required thing, and of which size, as the wiring has it."""
    wiring, bank = work.wiring, work.build.bank
    if key == "part-string_fuses" and wiring.string_fuse_a is not None:
        breaks = _breaks(work, wiring.string_kind, string_breaking_a(bank))
        return f"{bank.parallel} × {wiring.string_fuse_a:g} A{breaks}"
    if key == "part-source_fuses":
        each = (
            f"{j.name} {j.cable.fuse_a:g} A{_breaks(work, j.kind)}"
            for j in wiring.joints
            if j.cable is not None
        )
        return "; ".join(each)
    if key in ("check-fuse", "check-short_circuit") and wiring.main is not None:
        return f"{wiring.main.fuse_a:g} A{_breaks(work, wiring.main_kind)}"
    if key == "check-cable" and wiring.main is not None:
        return f"2 × {_cable(work)}"
    if key in ("part-hold_down", "part-covers"):
        return phrase("changeover.shopping.pieces", count=bank.units)
    return ""


def _breaks(work: Work, kind: FuseKind | None, amps: float | None = None) -> str:
    """The kind of a fuse and what it must break, to follow its amps."""
    if kind is None:
        return phrase("changeover.shopping.breaks_none")
    amps = breaking_a(work.build.bank) if amps is None else amps
    ka = f"{math.ceil(amps / 100) / 10:g}"
    volts = f"{work.plan.system_v:g}"
    if kind.dc_label:
        return phrase("changeover.shopping.breaks_label", name=kind.name, ka=ka, volts=volts)
    return phrase("changeover.shopping.breaks", name=kind.name, ka=ka, volts=volts)


def _cable(work: Work) -> str:
    """Cross-section and length of one main cable."""
    main = work.wiring.main
    if main is None:
        return ""
    return phrase(
        "changeover.shopping.cable", mm2=f"{main.mm2:g}", awg=awg(main.mm2),
        metres=f"{work.build.cable_m.number:.1f}",
    )  # fmt: skip


def _reason(one: RequiredExtra) -> str:
    if one.key.startswith("source-"):
        return phrase("changeover.shopping.source_why")
    if one.key.startswith("improvement-"):
        return phrase("changeover.shopping.improvement_why")
    if one.key.startswith("check-"):
        return phrase("changeover.shopping.check_why")
    return phrase("changeover.shopping.part_why")


def _links(work: Work) -> tuple[str, ...]:
    """Links, bars and lugs one by one, as the wiring has them."""
    wiring, hole = work.wiring, work.build.bank.model.case.terminals
    out = []
    for part in wiring.parts[1:]:
        if part.what in (
            phrase("installation.wiring.series_link"),
            phrase("installation.wiring.cable_string_busbar"),
            phrase("installation.wiring.busbar_strings"),
        ):
            size = "" if part.mm2 is None else f", {part.mm2:g} mm² ({awg(part.mm2)})"
            out.append(f"{part.count} × {part.what}{size}")
    if wiring.link is not None:
        lugs = 2 * sum(p.count for p in wiring.parts[1:] if p.mm2 is not None)
        out.append(
            phrase("changeover.shopping.lugs", count=lugs, mm2=f"{wiring.link.mm2:g}", terminals=hole or "?")
        )
    return tuple(out)


def _own(work: Work) -> Iterator[Line]:
    at = f"changeover.{work.id}"
    for i, extra in enumerate(work.build.candidate.extras):
        yield Line(
            f"extra-{extra.id or i}",
            None,
            extra.name or phrase("changeover.shopping.extra"),
            "",
            phrase("changeover.shopping.extra_why"),
            Figure(
                f"{at}.extra.{i}",
                extra.name,
                extra.price,
                "money",
                REFERENCE,
                source=phrase("figures.workings.entered"),
            ),
            extra.tag,
            work.purchase(f"extra-{extra.id or i}"),
            f"{work.build.path}/extras/{i}/price",
        )


def _wires(work: Work) -> Iterator[Line]:
    """What of the wiring no line above holds: it is there, and is looked at before it goes in again."""
    wiring, keys = work.wiring, {r.key for r in work.required if r.met}
    main = wiring.main
    if main is not None and not keys & {"check-fuse", "check-short_circuit"}:
        there = work.plan.installed.fuse_a is not None
        yield Line(
            "wire-main_fuse",
            1,
            phrase("changeover.shopping.main_fuse"),
            _sized(work, "check-fuse"),
            phrase("changeover.shopping.main_fuse_why"),
            None,
            THERE if there else OPTIONAL,
            work.purchase("wire-main_fuse"),
        )
    if main is not None and "check-cable" not in keys:
        there = work.plan.installed.cable_mm2 is not None
        yield Line(
            "wire-main_cable",
            2,
            phrase("installation.wiring.main_cable"),
            _cable(work),
            phrase("changeover.shopping.main_cable_why"),
            None,
            THERE if there else OPTIONAL,
            work.purchase("wire-main_cable"),
        )
    yield Line(
        "wire-isolator",
        1,
        phrase("changeover.shopping.isolator"),
        f"≥ {work.build.main_a.number:.0f} A",
        phrase("changeover.shopping.isolator_why"),
        None,
        OPTIONAL,
        work.purchase("wire-isolator"),
    )


def _watching(work: Work) -> Iterator[Line]:
    for key, name, why in (
        ("watch-gauge", phrase("changeover.shopping.gauge"), phrase("changeover.shopping.gauge_why")),
        ("watch-buzzer", phrase("changeover.shopping.buzzer"), phrase("changeover.shopping.buzzer_why")),
    ):
        yield Line(key, 1, name, "", why, None, OPTIONAL, work.purchase(key))
    able = work.record.settable.get("setting.loads.disconnect", False)
    key = "watch-disconnect"
    yield Line(
        key,
        1,
        phrase("changeover.shopping.disconnect"),
        "",
        phrase("changeover.shopping.disconnect_why"),
        None,
        THERE if able else OPTIONAL,
        work.purchase(key),
    )


def _tools(work: Work) -> Iterator[Line]:
    bank = work.build.bank
    old = work.plan.old_bank
    acid = work.lead or (old is not None and old.battery_class.is_lead_acid)
    tools = [
        ("spanners", phrase("changeover.tools.spanners"), phrase("changeover.tools.spanners_why")),
        ("torque", phrase("changeover.tools.torque"), phrase("changeover.tools.torque_why")),
        ("crimper", phrase("changeover.tools.crimper"), phrase("changeover.tools.crimper_why")),
        ("multimeter", phrase("changeover.tools.multimeter"), phrase("changeover.tools.multimeter_why")),
        ("clamp", phrase("changeover.tools.clamp"), phrase("changeover.tools.clamp_why")),
        ("thermometer", phrase("changeover.tools.thermometer"), phrase("changeover.tools.thermometer_why")),
        (
            "charger",
            phrase("changeover.tools.charger", volts=f"{bank.model.unit_class_v:g}"),
            phrase("changeover.tools.charger_why"),
        ),
    ]
    if acid:
        tools.append(("goggles", phrase("changeover.tools.goggles"), phrase("changeover.tools.goggles_why")))
    if work.inverter:
        tools.append(
            ("resistor", phrase("changeover.tools.resistor"), phrase("changeover.tools.resistor_why"))
        )
    for key, name, why in tools:
        yield Line(f"tool-{key}", 1, name, "", why, None, TOOL, work.purchase(f"tool-{key}"))
