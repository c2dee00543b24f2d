"""The report: everything that an owner takes along, as one HTML document that needs nothing else."""

import base64
import hashlib
from collections.abc import Iterator
from typing import Any

from markupsafe import Markup, escape

from vast_harbor.core.cost import cash_flow
from vast_harbor.core.cost.monte_carlo import COUNT
from vast_harbor.core.figures.currency import currency_symbol
from vast_harbor.core.figures.display import Style, group
from vast_harbor.core.figures.parsing import Draw
from vast_harbor.core.figures.workings import Figure, Finding, Sentence, unescaped
from vast_harbor.core.installation.lifting import HOIST_KG, TWO_KG
from vast_harbor.core.passage import Results
from vast_harbor.core.rig.reference import Reference
from vast_harbor.core.rig.source_remedies import name_of
from vast_harbor.core.rig.sources import MAINS
from vast_harbor.core.rig.topics import ASSUMED, MISSING
from vast_harbor.core.sensitivity.break_even import break_evens
from vast_harbor.core.sensitivity.open_topics import OpenTopic, open_topics
from vast_harbor.core.sensitivity.verdict_changes import rule_verdicts, verdict_changes
from vast_harbor.core.stops.charging import sheets
from vast_harbor.core.stops.compare import ComparedBank, package_text, reasons, steps, verdict_text
from vast_harbor.formats.html_page import PAPERS, SANS, font_face, page_template
from vast_harbor.formats.report import pictures
from vast_harbor.formats.report.tables import ITEMS
from vast_harbor.formats.topic_text import topic_text
from vast_harbor.phrases import and_list, phrase
from vast_harbor.telling.figures import figure_text, formula_parts, sentence_parts

SEVERITIES = {
    "blocking": phrase("report.document.unsuitable"),
    "caution": phrase("report.document.check"),
    "note": phrase("report.document.note"),
}
STATUS = {ASSUMED: phrase("report.document.assumed"), MISSING: phrase("report.document.missing")}
# Figures of a package, by name → what they are called.
FAMILY_ROWS = {
    "usable": phrase("report.page.family_usable"),
    "kg": phrase("report.page.family_kg"),
    "cycles": phrase("report.page.family_cycles"),
    "per_cycle": phrase("report.page.family_per_cycle"),
    "outlay": phrase("report.page.family_outlay"),
    "lifetime": phrase("report.page.family_lifetime"),
}
NOTHING = phrase("report.page.family_nothing")
# Workings that are written out for the bank of the verdict: key of its figures, by where they stand.
OF_BANK = ("nameplate_wh", "usable_wh", "purchase")
OF_LIFE = ("cycle_wear", "calendar_wear", "accident_wear", "wear", "years")
OF_COST = (
    "extra_cost",
    "running_per_year",
    "replacements",
    "exit",
    "lifetime_bare",
    "lifetime",
    "cycles_made",
    "per_cycle",
    "per_kwh",
    "per_year",
)


def report(
    results: Results, reference: Reference, style: Style, today: str, paper: str = "a4", annex: bool = True
) -> str:
    """The report of a rig: the answer on two pages, and all that it rests on as an annex.

    Args:
        results: the plan in figures, everything run.
        reference: shipped data.
        style: the owner's units and currency.
        today: the date on it, as its owner writes it.
        paper: ``a4`` or ``letter``.
        annex: whether the annex is there.

    Returns:
        HTML with its style and pictures inside.

    Raises:
        KeyError: no such paper.
    """
    return page_template(__file__, "report.html").render(
        _ReportParts(results, reference, style).all(today, paper, annex)
    )


def style_of_page(html: str) -> str:
    """The style that a report brings, as a content policy names it (CSP3, a hash of its text)."""
    style = html.split("<style>", 1)[1].split("</style>", 1)[0]
    return f"'sha256-{base64.b64encode(hashlib.sha256(style.encode()).digest()).decode()}'"


def _address(svg: str) -> str:
    """A picture as an address that holds it: what it is drawn with stays inside of it."""
    # A picture knows no font of the page around it.
    svg = svg.replace(">", f"><style>{font_face(SANS)}</style>", 1)
    return f"data:image/svg+xml;base64,{base64.b64encode(svg.encode()).decode()}"


def _drawn(title: str, svg: str) -> tuple[str, str]:
    """A picture with its title, as the template shows it."""
    return title, _address(svg)


# Findings that the answer tells of: which, and how many at most; the annex has all.
WATCHED, MOST_WATCHED = ("blocking", "caution"), 5
# Of these the ones that can burn, gas or harm the bank come first.
HAZARDS = {
    "short_circuit", "fuse", "string_fuses", "cable_load", "ventilation", "living_space", "external_bms",
    "cold_charge", "hot_charge", "source_high_volts",
}  # fmt: skip


class _ReportParts:
    """Puts the plan into the words of the report."""

    def __init__(self, results: Results, reference: Reference, style: Style) -> None:
        self.results, self.reference, self.style = results, reference, style
        self.plan, self.verdict = results.plan, results.verdict
        shown = self.verdict.winner or next(iter(self.verdict.compared_banks), None)
        self.shown: ComparedBank | None = shown

    def _effect(self, one: OpenTopic) -> str | Markup:
        """What a topic could change."""
        if one.turns is not None:
            return self.says(one.turns)
        if one.swing is None:
            return ""
        return phrase("report.document.moves", swing=self.style.text(one.swing, "money"))

    def _families(self) -> dict[str, Any] | None:
        """Lead-acid and LFP side by side, each at its best; None where no package was looked for."""
        families = package_text.families(self.verdict)
        if not families:
            return None
        packages = [one.package for one in families]
        does = ["" if p is None else and_list(i.says for i in p.improvements) or NOTHING for p in packages]
        rows = [
            (name, [self.text(one.figures[key]) if one.figures else "" for one in families])
            for key, name in FAMILY_ROWS.items()
        ]
        first = [
            (phrase("report.page.family_bank"), [self._bank_of(one) for one in families]),
            (phrase("report.page.family_does"), does),
        ]
        return {"names": [one.name for one in families], "rows": [*first, *rows]}

    def _bank_of(self, family: package_text.Family) -> Markup:
        """The bank of a family, and why it is unsuitable where it is."""
        bank, why = family.compared, family.why
        title = escape(unescaped(bank.title)) if bank is not None else Markup("")
        if why is None:
            return title
        gone = Markup(" {}<br>").format(phrase("report.page.out")) if bank is not None else Markup("")
        return title + gone + self.says(why)

    def text(self, figure: Figure | None) -> str:
        return figure_text(figure, self.style)

    def says(self, sentence: Sentence) -> Markup:
        """A sentence with its figures set off."""
        return Markup("").join(
            escape(text) if key is None else Markup("<b>{}</b>").format(text)
            for text, key in sentence_parts(sentence, self.style)
        )

    def formula(self, figure: Figure) -> str:
        """The formula with the owner's numbers in it."""
        return "".join(text for text, _ in formula_parts(figure, self.style))

    def all(self, today: str, paper: str, annex: bool) -> dict[str, Any]:
        """Everything that the template shows."""
        return self._front(today, paper) | (self._annex() if annex else {"annex": False})

    def _front(self, today: str, paper: str) -> dict[str, Any]:
        """The answer."""
        results, style, verdict = self.results, self.style, self.verdict
        opened = open_topics(results, self.reference)
        advice, find_out = verdict_text.advised(verdict), package_text.to_find_out(verdict)
        sold = verdict.winner.banked.bank if verdict.winner is not None else None
        has = self._has
        return {
            "paper": PAPERS[paper],
            "today": today,
            "plan": self.plan,
            "rule": results.assumptions.rule,
            "runs": "" if results.runs is None else self.says(results.runs),
            "headline": self.says(verdict_text.headline(verdict)),
            "card": [self.says(s) for s in verdict_text.card(verdict)],
            "families": self._families(),
            "nearest": [self.says(one.says) for one in verdict.answer.nearest],
            "alone": bool(advice is not None and advice.added),
            "danger": verdict.danger,
            "reasons": [(r.side, self.says(r.says)) for r in reasons(verdict)],
            "provisional": opened.provisional or bool(find_out),
            "asks": opened.asks.asks if opened.asks is not None else "",
            "find_out": [(one.improvement.says, self.says(one.asks),
                          self.says(one.otherwise) if one.otherwise is not None else "")
                         for one in find_out],
            "typical": sold is not None and not sold.model.own,
            "turns": [(self.text(t.at), self.says(t.before), self.says(t.after))
                      for t in verdict_changes(results)] if has else [],
            "flips": [self.says(f.says) for f in break_evens(results)] if has else [],
            "cautions": list(self._cautions()),
            "options": self._options(),
            # With something done beside the bank, the bank alone costs otherwise: that is for the annex.
            "cost_picture": self._spent() if advice is None or not advice.added else (),
            "kept": style.text(self.plan.years_kept, "years"),
            "watch": [(self.says(f.says), f.remedy) for f in self._watched()],
        }  # fmt: skip

    def _annex(self) -> dict[str, Any]:
        """What the answer rests on."""
        results, style, verdict = self.results, self.style, self.verdict
        symbol = currency_symbol(style.currency)
        opened = open_topics(results, self.reference)
        has, drawn = self._has, self._has and bool(pictures.shown(results))
        return {
            "annex": True,
            "spent_picture": self._spent(),
            "shown": self._title(self.shown) if self.shown is not None else "",
            "day_picture": _drawn(phrase("report.document.day_hour_hour"), pictures.day_profile(results))
            if has else (),
            "pictures": [
                _drawn(phrase("report.document.lifetime_cost_item_values"),
                       pictures.cost_by_item(results, symbol)),
                _drawn(phrase("report.document.usable_energy_over_years"),
                       pictures.capacity_over_years(results)),
            ] if drawn else [],
            "steps": [(s.name, self.says(s.says)) for s in steps(verdict)],
            "outs": [(unescaped(o.compared.title), self.says(o.says), o.needs)
                     for o in verdict.outs],
            "open_topics": [(o.topic.name, STATUS[o.status], topic_text(o.topic, results, style),
                             self._effect(o)) for o in opened.topics],
            "rule_verdicts": [
                (s.name, self.says(s.headline), self.text(s.need), self.text(s.cost))
                for s in rule_verdicts(results, self.reference)
            ] if has else [],
            "shares": self._shares(),
            "draws": group(COUNT, 0),
            "facts": list(self._facts()),
            "loads": list(self._loads()),
            "columns": [self._title(c) for c in results.compare.compared_banks],
            "out": [c not in verdict.suitable for c in results.compare.compared_banks],
            "rows": [
                (r.group if not r.headline else "", r.name,
                 [(r.none if f.value is None and r.none else self.text(f), i in r.best)
                  for i, f in enumerate(r.figures)])
                for r in results.compare.rows
            ],
            "flows": list(self._flows()),
            "items": ITEMS,
            "extra_cost": self._extra_cost(),
            "settings": list(self._settings()),
            "sources": list(self._sources()),
            "findings": [
                (SEVERITIES[f.severity], self._subject(f.subject), self.says(f.says), f.remedy)
                for f in self._findings()
            ],
            "workings": list(self._workings()),
        }  # fmt: skip

    @property
    def _has(self) -> bool:
        """Whether there is a day and a bank to tell of."""
        return bool(self.verdict.compared_banks) and self.results.day.bank_wh.number > 0

    def _watched(self) -> list[Finding]:
        """What stands against the advised bank, found or added: first what rules it out or does harm."""
        found = [f for f in self._findings() if f.severity in WATCHED and f.subject]
        found.sort(key=lambda f: (WATCHED.index(f.severity), f.code not in HAZARDS))
        return found[:MOST_WATCHED]

    def _spent(self) -> tuple[str, ...]:
        """The picture of what is spent over the years; nothing without a bank to draw."""
        if not self._has or not pictures.shown(self.results):
            return ()
        symbol = currency_symbol(self.style.currency)
        picture = pictures.cost_over_years(self.results, symbol)
        return _drawn(phrase("report.document.total_spent_over_years"), picture)

    def _options(self) -> list[tuple[str, ...]]:
        """The steps of the ladder: name, what is done and bought, and what it comes to."""
        packages = self.verdict.answer.packages
        if packages is None:
            return []
        return [
            (
                package_text.STEP_NAMES[step],
                unescaped(package_text.headline(package, self.verdict).template).rstrip("."),
                *(self.text(package.figures[key]) for key in ("outlay", "lifetime", "served")),
            )
            for step, package in packages.ladder
        ]

    def _title(self, compared: ComparedBank) -> str:
        bank = compared.banked.bank
        assert bank is not None
        return f"{compared.banked.battery_class.code} {bank.model.title} × {bank.units}"

    def _subject(self, id_: str) -> str:
        return next((self._title(c) for c in self.verdict.compared_banks if c.id == id_), "")

    def _findings(self) -> list[Finding]:
        """Those of the rig and of the bank that is shown; why others are out is told before."""
        others = {c.id for c in self.verdict.compared_banks if c is not self.shown}
        others |= {c.candidate.id for c in self.results.banks.candidates if c.bank is None}
        return [f for f in self.results.plan_findings if f.subject not in others]

    def _shares(self) -> list[tuple[str, ...]]:
        v = self.verdict
        return [
            (self._title(c), self.text(v.shares.get(c.id)), *(self.text(f) for f in v.spreads[c.id]))
            for c in v.compared_banks
        ]

    def _facts(self) -> Iterator[tuple[str, str]]:
        plan, results, text = self.plan, self.results, self.style.text
        yield phrase("report.document.rig"), f"{plan.name}, {plan.kind}, {plan.system_v:g} V"
        yield phrase("terms.names.nights_off_grid_year"), text(plan.off_grid_nights, "nights")
        yield phrase("report.document.nights_hook_up_year"), text(plan.hook_up_nights, "nights")
        yield phrase("terms.names.years_keep_rig"), text(plan.years_kept, "years")
        yield phrase("report.document.day_sizes_bank"), results.day.type.name
        yield phrase("report.document.energy_taken_bank_day"), self.text(results.day.bank_wh)
        yield phrase("report.document.battery_temperature_day"), self.text(results.day.battery_c)
        yield phrase("report.document.nights_between_charges"), self.text(results.need.nights)
        yield phrase("terms.names.reserve"), text(results.need.reserve.value, "%")
        yield phrase("report.document.usable_energy_needed"), self.text(results.need.energy)
        yield phrase("terms.names.house_rule"), results.assumptions.rule.name
        changed = [a for a in results.assumptions if a.overridden]
        for a in changed:
            yield phrase("report.document.changed", name=a.name), text(a.value, a.entry.unit)

    def _loads(self) -> Iterator[tuple[str, str, str, str, str]]:
        for load in self.results.day.loads:
            draw: Draw = load.load.draw
            yield (
                load.load.name, f"{load.load.quantity:g} × {draw.value:g} {draw.unit}",
                self.style.text(load.load.hours_on, "h"), self.text(load.wh), self.text(load.bank_wh),
            )  # fmt: skip

    def _flows(self) -> Iterator[tuple[str, list[list[str]]]]:
        for compared in self.verdict.suitable or self.verdict.compared_banks:
            lines, so_far = [], 0.0
            for year, paid in enumerate(cash_flow.yearly(compared.cost.payments)):
                total = sum(paid.values())
                so_far += total
                amounts = [self.style.text(paid[i], "money") if paid.get(i) else "" for i in ITEMS]
                lines.append([str(year), *amounts, self.style.text(total, "money"),
                              self.style.text(so_far, "money")])  # fmt: skip
            doubt, blank = compared.cost["doubt"].number, [""] * len(ITEMS)
            lines.append(
                [phrase("compare.cost.doubt"), *blank, self.style.text(doubt, "money"),
                 self.style.text(so_far + doubt, "money")]
            )  # fmt: skip
            yield self._title(compared), lines

    def _extra_cost(self) -> list[tuple[str, str, str, str]]:
        if self.shown is None:
            return []
        own = [
            (
                e.name or phrase("terms.names.extra"),
                self.style.text(e.price, "money"),
                "",
                phrase("report.document.added", tag=e.tag),
            )
            for e in self.shown.banked.candidate.extras
        ]
        return own + [
            (d.name, self.text(d.price), self.style.text(d.hours, "duration"), d.state)
            for d in self.shown.cost.required_extras
        ]

    def _settings(self) -> Iterator[tuple[str, list[tuple[str, str, str]], str]]:
        if self.shown is None or self.shown.banked.build is None:
            return
        for sheet in sheets(self.shown.banked.build):
            lines = [
                (s.name, s.words or self.style.text(s.value, s.unit),
                 s.now(self.style))
                for s in sheet.settings
            ]  # fmt: skip
            yield sheet.name, lines, sheet.note

    def _sources(self) -> Iterator[tuple[str, Markup]]:
        if self.shown is None:
            return
        for suitability in self.shown.suitability:
            points = Markup(" ").join(self.says(p.says) for p in suitability.points)
            yield suitability.source_name, points or Markup(phrase("report.document.suitable"))

    def _workings(self) -> Iterator[tuple[str, str, str, str]]:
        if self.shown is None:
            return
        compared = self.shown
        figures = [self.results.need.energy, *(compared.banked[k] for k in OF_BANK)]
        figures += [compared.life[k] for k in OF_LIFE]
        figures += [compared.cost[k] for k in OF_COST]
        for figure in figures:
            if figure.formula and figure.value is not None:
                yield figure.name, self.formula(figure), self.text(figure), figure.source

    def _cautions(self) -> Iterator[str]:
        classes = {c.banked.battery_class for c in self.verdict.compared_banks}
        yield (phrase("report.document.dropped_spanner_draw_thousands"))
        if any(c.is_lead_acid for c in classes):
            yield (phrase("report.document.lead_acid_gives_off"))
        if any(not c.is_lead_acid for c in classes):
            yield (phrase("report.document.charge_lithium_iron_phosphate"))
        mains = next((s for s in self.plan.sources if s.kind == MAINS), None)
        if mains is not None:
            yield phrase("report.document.leave_mains_inverter_output", name_of=name_of(mains))
        yield (phrase("report.document.charge_battery_swollen_flooded"))
        yield phrase(
            "report.document.lift", two=self.style.text(TWO_KG, "kg"), hoist=self.style.text(HOIST_KG, "kg")
        )
