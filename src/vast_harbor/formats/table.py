"""The comparison as a printed table, and as JSON with all workings."""

from typing import Any

from vast_harbor.core.figures.display import Style
from vast_harbor.core.figures.workings import Figure, unescaped
from vast_harbor.core.passage import Results
from vast_harbor.core.stops.compare import Verdict, verdict_text
from vast_harbor.phrases import phrase
from vast_harbor.telling.figures import figure_text, sentence_text


def comparison_table(results: Results, style: Style) -> str:
    """The comparison as text for a terminal.

    Args:
        results: figures of a plan.
        style: the owner's units.

    Returns:
        Lines, the best value of a row marked with ``*``.
    """
    compare = results.compare
    day, need = results.day.bank_wh, results.need
    lines = [
        phrase(
            "files.table.day_usable",
            name=results.plan.name,
            value=figure_text(day, style),
            value_2=figure_text(need.energy, style),
            value_3=figure_text(need.nights, style),
            name_2=results.assumptions.rule.name,
        ),
        "",
    ]
    header = [""]
    for compared in compare.compared_banks:
        bank = compared.banked.bank
        assert bank is not None
        header.append(
            f"{compared.banked.battery_class.code}  {bank.model.title}, {bank.series}S × {bank.parallel}P"
        )
    rows, groups = [header], [""]
    for row in compare.rows:
        cells = [figure_text(f, style) + (" *" if i in row.best else "  ") for i, f in enumerate(row.figures)]
        rows.append([row.name, *cells])
        groups.append(phrase("terms.names.headline") if row.headline else row.group)
    widths = [max(len(r[i]) for r in rows) for i in range(len(header))]
    last = ""
    for group, cells in zip(groups, rows, strict=True):
        if group != last:
            lines += ["", group]
            last = group
        lines.append(
            "  ".join(
                [cells[0].ljust(widths[0]), *(c.rjust(w) for c, w in zip(cells[1:], widths[1:], strict=True))]
            ).rstrip()
        )
    verdict = results.verdict
    answer = [verdict_text.headline(verdict), *verdict_text.card(verdict)]
    lines += ["", sentence_text(compare.sentence, style), "", *(sentence_text(s, style) for s in answer)]
    marks = {
        "blocking": phrase("files.table.unsuitable"),
        "caution": phrase("files.table.check"),
        "note": "note",
    }
    titles = {
        c.candidate.id: f"{c.battery_class.code} {c.bank.model.title if c.bank else c.battery_class.name}: "
        for c in results.banks.candidates
    }
    for finding in results.findings:
        lines.append(
            f"[{marks[finding.severity]}] {titles.get(finding.subject, '')}"
            f"{sentence_text(finding.says, style)} {finding.remedy}"
        )
    lines += ["", phrase("files.table.planning_aid_design_certificate")]
    return "\n".join(lines)


def figure_json(figure: Figure, style: Style) -> dict[str, Any]:
    """A figure with its workings as plain data."""
    out: dict[str, Any] = {
        "name": figure.name,
        "value": figure.value,
        "unit": figure.unit.replace("money", style.currency),
        "text": figure_text(figure, style),
        "origin": figure.origin,
    }
    if figure.formula:
        out["formula"] = figure.formula.replace("{", "").replace("}", "")
        out["inputs"] = {symbol: f.key for symbol, f in figure.inputs.items()}
    for name in ("source", "note", "low", "high"):
        if (value := getattr(figure, name)) not in ("", None):
            out[name] = value
    return out


def results_json(results: Results, style: Style) -> dict[str, Any]:
    """All results of a plan with their workings as plain data.

    Args:
        results: figures of a plan.
        style: the owner's units.

    Returns:
        ``sentence``, ``verdict``, ``packages`` (empty until looked for), ``columns``, ``rows`` (keys into
        ``figures``), ``findings`` and ``figures``.
    """
    compare = results.compare
    return {
        "rig": results.plan.name,
        "house_rule": results.assumptions.rule.key,
        "sentence": sentence_text(compare.sentence, style),
        "verdict": {
            "kind": results.verdict.kind,
            "winner": results.verdict.winner.id if results.verdict.winner is not None else None,
            "headline": sentence_text(verdict_text.headline(results.verdict), style),
            "card": [sentence_text(s, style) for s in verdict_text.card(results.verdict)],
            "cheapest_in": {k: f.number for k, f in results.verdict.shares.items()},
        },
        "packages": _packages(results.verdict),
        "columns": [
            {
                "candidate": c.banked.candidate.id,
                "battery_class": c.banked.battery_class.key,
                "model": c.banked.bank.model.id,
                "series": c.banked.bank.series,
                "parallel": c.banked.bank.parallel,
                "ends": c.life.ends,
            }
            for c in compare.compared_banks
            if c.banked.bank
        ],
        "rows": [
            {
                "key": r.key,
                "name": r.name,
                "better": r.better,
                "best": list(r.best),
                "figures": [f.key for f in r.figures],
            }
            for r in compare.rows
        ],
        "findings": [
            {
                "code": f.code,
                "severity": f.severity,
                "stop": f.stop,
                "subject": f.subject,
                "says": sentence_text(f.says, style),
                "remedy": f.remedy,
            }
            for f in results.findings
        ],
        "figures": {k: figure_json(f, style) for k, f in sorted(results.figures().items())},
    }


def _packages(verdict: Verdict) -> list[dict[str, Any]]:
    """The packages that were run in full, the one of least cost first."""
    packages = verdict.answer.packages
    if packages is None:
        return []
    return [
        {
            "key": one.key,
            "advised": one is packages.advised,
            "does": [done.says for done in one.improvements],
            "keeps_old_bank": one.keeps,
            "bank": unescaped(one.compared.title),
            "battery_class": one.class_key,
            **{name: figure.number for name, figure in one.figures.items() if figure.value is not None},
        }
        for one in packages.all
    ]
