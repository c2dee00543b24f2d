"""The changeover, as the interface is given it."""

from collections.abc import Mapping, Sequence

from vast_harbor.core.figures.display import Style
from vast_harbor.core.installation.bank_circuit import Fault, faults
from vast_harbor.core.passage import Results
from vast_harbor.core.rig.plan import HOUR_OF, OWN_HANDS, WORKSHOP
from vast_harbor.core.stops.changeover import (
    Acceptance,
    Changeover,
    Gate,
    Guard,
    Line,
    Measurement,
    Row,
    Step,
    Work,
    against,
    cause_texts,
    label,
    name_of_reading,
    read,
    remark,
    test_cautions,
)
from vast_harbor.core.stops.charging import Setting
from vast_harbor.core.stops.compare import ComparedBank
from vast_harbor.phrases import phrase
from vast_harbor.telling.banks import layout
from vast_harbor.web.base.views import figure_view, tokens, view_of
from vast_harbor.web.state.choosing import choosing
from vast_harbor.web.stops.changeover.models import (
    BankChoiceView,
    CauseView,
    ChangeoverView,
    ConflictView,
    FaultView,
    GuardView,
    LineView,
    MeasurementView,
    ProofView,
    QuestionView,
    SettingGroupView,
    SettingRowView,
    WorkGateView,
    WorkStepView,
)

# Readings that a simulated monitor takes in the time that a test should last.
READINGS = 24
# Below this, volts are told in millivolts [V].
SMALL_V = 1.0


def reading_text(value: float, unit: str, style: Style) -> str:
    """A reading as a meter shows it: two decimals of volts, millivolts where it is small."""
    if unit == "V":
        if abs(value) < SMALL_V:
            return f"{1000 * value:.1f} mV".replace(".", style.numbers.decimal)
        return style.meter_volts(value)
    return style.text(value, unit)


def changeover_view(results: Results, style: Style) -> ChangeoverView:
    """The changeover of a rig; before a bank is chosen, only what may be chosen.

    Args:
        results: the plan in figures.
        style: the owner's units.
    """
    made = results.changeover
    chosen = results.plan.changeover.chosen
    choices = [
        _choice(c, results, style) for c in results.verdict.compared_banks if c.banked.build is not None
    ]
    if made is None:
        gone = phrase("answers.changeover_views.gone") if chosen else ""
        return ChangeoverView(
            chosen="", title="", layout="", battery_class="", choices=choices, against=[], hard=False, done=0,
            total=0, work="", next="", opens_at="before", spent=None, cost=None,
            contingency=None, own_hands="", workshop="",
            questions=[], lines=[], gates=[], settings=[], emptied=[], rising=[], conflicts=[],
            watching=[], proof=None, faults=[], unplaced=[], gone=gone,
        )  # fmt: skip
    work, bank = made.work, made.work.build.bank
    step = made.next
    return ChangeoverView(
        chosen=chosen,
        title=bank.model.title,
        layout=layout(bank),
        battery_class=bank.model.battery_class.key,
        choices=choices,
        against=[] if made.against is None else tokens(made.against.says, style),
        hard=made.against is not None and made.against.hard,
        done=made.done,
        total=len(made.steps),
        work=style.text(made.minutes / 60, "duration"),
        next="" if step is None else step.key,
        opens_at=made.opens_at,
        spent=figure_view(made.shopping.spent, style),
        cost=figure_view(made.shopping.total, style),
        contingency=figure_view(work.compared.cost["contingency"], style),
        own_hands=_labour(work, OWN_HANDS, style),
        workshop=_labour(work, WORKSHOP, style),
        questions=[
            view_of(
                QuestionView, q, style, how=style.in_units(q.how), says=style.in_units(style.dated(q.says)),
                done=q.tick.done,
            )
            for q in made.questions
        ],
        lines=[_line(one, work, style) for one in made.shopping.lines],
        gates=[_gate(gate, work, style) for gate in made.gates],
        settings=[
            view_of(SettingGroupView, g, style, rows=[_setting(r, style) for r in g.rows])
            for g in made.settings
        ],
        emptied=[_guard(g, style) for g in made.guards[0]],
        rising=[_guard(g, style) for g in made.guards[1]],
        conflicts=[view_of(ConflictView, c, style) for c in made.conflicts],
        watching=watching(made, style),
        proof=_proof(made.acceptance, style),
        faults=[FaultView(key=key, name=name) for key, (name, _) in fault_choices(work).items()],
        unplaced=[_left(name, results, style) for name in made.unplaced],
        gone="",
    )  # fmt: skip


def _choice(compared: ComparedBank, results: Results, style: Style) -> BankChoiceView:
    bank = compared.banked.bank
    assert bank is not None
    winner = results.verdict.winner
    why = against(compared, results.verdict)
    return BankChoiceView(
        id=compared.id,
        battery_class=bank.model.battery_class.key,
        title=bank.model.title,
        layout=layout(bank),
        verdict=winner is not None and winner.id == compared.id,
        hard=why is not None and why.hard,
        against=[] if why is None else tokens(why.says, style),
        outlay=figure_view(compared.cost["outlay"], style),
        operations=choosing(compared, results.plan),
    )


def _labour(work: Work, who: str, style: Style) -> str:
    """Hours and price of a way to have it done."""
    hours = work.compared.cost["hours"].number
    rate = work.build.assumptions.value(HOUR_OF[who])
    return phrase(
        "answers.changeover_views.labour", hours=style.text(hours, "duration"),
        price=style.text(hours * rate, "money"),
    )  # fmt: skip


def _line(line: Line, work: Work, style: Style) -> LineView:
    noted = f"{work.build.path}/purchases"
    return view_of(
        LineView,
        line,
        style,
        estimate=None if line.estimate is None else figure_view(line.estimate, style),
        price_path=line.price_path or f"{noted}/quoted/{line.key}",
        paid_path=f"{noted}/paid/{line.key}",
        have=line.purchase.have,
        reason=style.in_units(line.reason),
    )


def _gate(gate: Gate, work: Work, style: Style) -> WorkGateView:
    return view_of(WorkGateView, gate, style, steps=[_step(step, work, style) for step in gate.steps])


def _cautions() -> Mapping[str, str]:
    return {
        "amps": phrase("answers.changeover_views.amps"),
        "acid": phrase("answers.changeover_views.acid"),
        "gas": phrase("answers.changeover_views.gas"),
        "ac": phrase("answers.changeover_views.ac"),
        "cold": phrase("answers.changeover_views.cold"),
        "heavy": phrase("answers.changeover_views.heavy"),
        "damaged": phrase("answers.changeover_views.damaged"),
        "meter": phrase("answers.changeover_views.meter"),
        "recharge": phrase("answers.changeover_views.recharge"),
        "frost": phrase("answers.changeover_views.frost"),
    }


def _step(step: Step, work: Work, style: Style) -> WorkStepView:
    by = work.record.return_by
    late = step.tick.done and by and step.tick.on > by and step.gate in ("arrival", "proof")
    texts = _cautions()
    return view_of(
        WorkStepView,
        step,
        style,
        title=style.in_units(step.title),
        why=style.in_units(step.why),
        how=style.in_units(step.how),
        minutes=round(step.minutes),
        cautions=[
            texts[c] if c != "heavy" or step.people < 3 else phrase("answers.changeover_views.hoist")
            for c in step.cautions
        ],
        done=step.tick.done,
        on=style.date(step.tick.on),
        late=style.dated(phrase("answers.changeover_views.late", on=step.tick.on, by=by)) if late else "",
        measured=[measurement_view(m, work, style) for m in step.measured],
    )


def measurement_view(made: Measurement, work: Work, style: Style) -> MeasurementView:
    """Something that is measured, with what was read and what that means."""
    bank = work.build.bank
    source = next((work.name(s) for s in work.sources if s.id == made.source), "")
    should = made.should
    low, high = (reading_text(x, made.unit, style) for x in (should.low, should.high))
    under = phrase(
        "answers.changeover_views.under", celsius=style.text(made.celsius, "°C"),
        soc=style.text(made.soc, "%"),
    )  # fmt: skip
    return view_of(
        MeasurementView,
        made,
        style,
        path=f"/changeover/readings/{name_of_reading(work, made.key, made.unit)}",
        mark=f"M{made.point.number}" if made.point is not None else "",
        label=label(made, bank.units, bank.parallel, source),
        likely=reading_text(should.likely, made.unit, style),
        range=phrase("answers.changeover_views.range", low=low, high=high),
        under=under,
        value="" if made.value is None else reading_text(made.value, made.unit, style),
        remark=remark(made, work.plan.system_v),
        before=_before(made, work, style),
        causes=[CauseView(kind=c.kind, says=c.says, next=c.next) for c in cause_texts(made)],
    )


def _before(made: Measurement, work: Work, style: Style) -> str:
    """What a source gave into the old bank."""
    if not made.key.startswith("sources."):
        return ""
    amps = read(work, "sources_before", made.source, "A")
    return "" if amps is None else style.text(amps, "A")


def _setting(row: Row, style: Style) -> SettingRowView:
    setting = row.setting
    return SettingRowView(
        key=row.key,
        name=setting.name,
        should=_setting_text(setting, style),
        now=_now_text(setting, style),
        now_path=row.field,
        unit="" if setting.unit == "1" else setting.unit,
        can=row.can,
        can_path=f"/changeover/settable/{row.key}",
        done=row.tick.done,
        on=style.date(row.tick.on),
    )


def _now_text(setting: Setting, style: Style) -> str:
    if setting.is_now is not None and setting.unit == "V":
        return reading_text(setting.is_now, "V", style)
    return setting.now(style)


def _guard(guard: Guard, style: Style) -> GuardView:
    at = phrase("answers.changeover_views.not_stated")
    if guard.value is not None:
        at = reading_text(guard.value, "V", style) if guard.unit == "V" else style.text(guard.value, "A")
    return GuardView(key=guard.key, name=guard.name, at=at)


def _setting_text(setting: Setting, style: Style) -> str:
    if setting.words or setting.value is None:
        return setting.words or "—"
    if setting.unit == "V":
        return reading_text(setting.value, "V", style)
    return style.text(setting.value, setting.unit)


def watching(made: Changeover, style: Style) -> list[tuple[str, str, str]]:
    """What watches the bank: name, where it goes, and the value at which it speaks."""
    work = made.work
    loads = next(g for g in made.settings if g.key == "loads")
    alarm = next(r.setting for r in loads.rows if r.setting.key == "alarm")
    volts = reading_text(alarm.value or 0.0, "V", style)
    out = [
        (
            phrase("answers.changeover_views.shunt"), phrase("answers.changeover_views.shunt_where"),
            phrase("answers.changeover_views.shunt_at"),
        ),
        (
            phrase("answers.changeover_views.gauge"), phrase("answers.changeover_views.gauge_where"),
            phrase("answers.changeover_views.gauge_lead", volts=volts)
            if work.lead
            else phrase("answers.changeover_views.gauge_lfp", volts=volts),
        ),
        (
            phrase("answers.changeover_views.buzzer"),
            phrase("answers.changeover_views.buzzer_bms")
            if work.sleeps
            else phrase("answers.changeover_views.buzzer_where"),
            volts,
        ),
    ]  # fmt: skip
    if work.watches_cold:
        out.append(
            (
                phrase("answers.changeover_views.thermometer"),
                phrase("answers.changeover_views.thermometer_where"),
                style.text(work.build.bank.model.charge_c[0], "°C"),
            )
        )
    return out


def _proof(test: Acceptance, style: Style) -> ProofView:
    least, likely, most = test.hours
    found = test.foreseen_ah
    ah = "" if found is None else style.text(found, "Ah")
    expected = style.text(test.expected_ah, "Ah")
    says = {
        "promised": phrase("answers.changeover_views.promised", ah=ah, expected=expected),
        "within": phrase("answers.changeover_views.within", ah=ah, expected=expected),
        "short": phrase("answers.changeover_views.short", ah=ah, least=style.text(test.least_ah, "Ah"))
        if test.ended
        else phrase("answers.changeover_views.short_early", ah=ah),
        "running": phrase("answers.changeover_views.running"),
        "none": "",
    }[test.verdict]
    by = test.work.record.return_by
    if test.verdict == "short" and by:
        says += " " + phrase("answers.changeover_views.claim_by", by=style.date(by))
    return ProofView(
        load=test.work.load.name,
        amps=style.text(test.amps, "A"),
        stop_v=reading_text(test.stop_v, "V", style),
        hours=style.text(likely, "duration"),
        hours_range=phrase(
            "answers.changeover_views.range", low=style.text(least, "duration"),
            high=style.text(most, "duration"),
        ),
        every=round(60 * likely / READINGS, 1),
        expected_ah=expected,
        least_ah=style.text(test.least_ah, "Ah"),
        temperature=style.text(test.work.celsius, "°C"),
        warm_enough=test.warm_enough,
        cautions=[_cautions()[c] for c in test_cautions(test.work)],
        curve=_pairs(test.curve.hours, test.curve.volts),
        least=_pairs(test.least_curve.hours, test.least_curve.volts),
        measured=_pairs([r.minutes / 60 for r in test.readings], [r.volts for r in test.readings]),
        rows=[
            (f"{r.minutes:g}", reading_text(r.volts, "V", style), style.text(r.amps, "A"))
            for r in test.readings
        ],
        taken=style.text(test.measured_ah, "Ah"),
        verdict=test.verdict,
        says=says,
    )  # fmt: skip


def _pairs(hours: Sequence[float], volts: Sequence[float]) -> list[tuple[float, float]]:
    return [(round(h, 3), round(v, 3)) for h, v in zip(hours, volts, strict=True)]


def _left(name: str, results: Results, style: Style) -> str:
    """A reading that no step asks for any more."""
    value = results.plan.changeover.readings[name]
    unit = {"C": "°C"}.get(name.rpartition(".")[2], name.rpartition(".")[2])
    return f"{name.split('.', 1)[1].rpartition('.')[0]}: {reading_text(value, unit, style)}"


def fault_choices(work: Work) -> dict[str, tuple[str, Fault]]:
    """Faults that the simulated meter can show, by key: what they are called, and the fault."""
    out = {}
    for fault in faults(work.wiring, work.sleeps):
        key = "-".join(str(x) for x in (fault.kind, fault.string, fault.at) if x)
        where = ""
        if fault.string and fault.at:
            where = phrase("answers.changeover_views.where", string=fault.string, at=fault.at)
        elif fault.string:
            where = phrase("answers.changeover_views.where_string", string=fault.string)
        out[key] = f"{_fault_names()[fault.kind]}{where}", fault
    return out


def _fault_names() -> Mapping[str, str]:
    return {
        "reversed": phrase("answers.changeover_views.reversed"),
        "loose": phrase("answers.changeover_views.loose"),
        "weak": phrase("answers.changeover_views.weak"),
        "unequal": phrase("answers.changeover_views.unequal"),
        "asleep": phrase("answers.changeover_views.asleep"),
        "dead_cell": phrase("answers.changeover_views.dead_cell"),
        "string_fuse": phrase("answers.changeover_views.string_fuse"),
        "main_fuse": phrase("answers.changeover_views.main_fuse"),
        "isolator_off": phrase("answers.changeover_views.isolator_off"),
        "amps_socket": phrase("answers.changeover_views.amps_socket"),
        "swapped": phrase("answers.changeover_views.swapped"),
    }
