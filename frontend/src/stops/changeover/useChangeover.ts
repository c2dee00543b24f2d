import { phrase } from '@/phrases/changeover'
import { api, type Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { dateOf } from '@/ui/when'
import { computed, ref } from 'vue'

export type Step = Schemas['WorkStepView']
export type Gate = Schemas['WorkGateView']
export type Measured = Schemas['MeasurementView']

/** Today as the owner's clock has it, ISO. */
const today = () => new Date().toLocaleDateString('sv')

/** The fault that the simulated meter shows; the same on every screen until it is taken back. */
const fault = ref('')
const practising = ref(false)

/** The changeover of the rig that is open, and what is done about it. */
export function useChangeover() {
  const plan = usePlan()
  const view = computed(() => plan.rig!.changeover!)
  const steps = computed(() => view.value.gates.flatMap((gate) => gate.steps))

  /** The day on which something was ticked, also where the tick still waits to be sent. */
  const tickedOn = (key: string) => {
    const day = plan.document.changeover.done[key]
    return day ? dateOf(day) : ''
  }
  const isTicked = (key: string) => key in plan.document.changeover.done

  /** Tick a step, question or setting, or take the tick back. */
  function tick(key: string, title: string, done: boolean) {
    const path = `/changeover/done/${key}`
    return done
      ? plan.edit(title, { op: 'add', path, value: today() })
      : plan.edit(title, { op: 'remove', path })
  }

  /** Whether a device can be set so, also where the answer still waits to be sent. */
  function canOf(row: Schemas['SettingRowView']) {
    const said = plan.document.changeover.settable[row.key]
    return said === undefined ? row.can : said ? 'yes' : 'no'
  }

  function setCan(row: Schemas['SettingRowView'], event: Event) {
    const value = (event.target as HTMLSelectElement).value
    const known = row.key in plan.document.changeover.settable
    if (value === 'unknown' && !known) return
    return plan.edit(
      phrase('changeover.use.can', { name: row.name }),
      value === 'unknown'
        ? { op: 'remove', path: row.can_path }
        : { op: 'add', path: row.can_path, value: value === 'yes' },
    )
  }

  function choose(choice: Schemas['BankChoiceView']) {
    return plan.edit(
      phrase('changeover.use.choose', { title: choice.title }),
      ...choice.operations.map((o) => ({ op: o.op, path: o.path, value: o.value })),
    )
  }

  function takeBack() {
    return plan.edit(phrase('changeover.use.take_back'), {
      op: 'replace',
      path: '/changeover/chosen',
      value: '',
    })
  }

  /** Measure with the simulated meter: what it shows is entered as if it was read. */
  async function measure(measured: Measured) {
    const { data } = await api.GET('/api/rigs/{rig_id}/changeover/meter', {
      params: {
        path: { rig_id: plan.rig!.id },
        query: { key: measured.key, fault: fault.value },
      },
    })
    if (data) await plan.type(measured.path, data.text, measured.label)
  }

  const noted = (kind: 'notes' | 'passed', key: string) => `/changeover/${kind}/${key}`

  return {
    plan,
    view,
    steps,
    tick,
    tickedOn,
    isTicked,
    canOf,
    setCan,
    choose,
    takeBack,
    measure,
    noted,
    fault,
    practising,
  }
}
