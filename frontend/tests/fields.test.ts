import { placeOf, unitBeside } from '@/ui/fieldUnit'
import { usePlan } from '@/stores/plan'
import AssumptionField from '@/ui/AssumptionField.vue'
import AssumptionSlider from '@/ui/AssumptionSlider.vue'
import PlanCheck from '@/ui/PlanCheck.vue'
import PlanChoice from '@/ui/PlanChoice.vue'
import SpecField from '@/ui/SpecField.vue'
import StepField from '@/ui/StepField.vue'
import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import { nextTick } from 'vue'
import { FakeServer, server, settle, view } from './fakeServer'

let fake: FakeServer
let plan: ReturnType<typeof usePlan>
const nights = {
  key: 'nights',
  name: 'Nights without charging',
  value: 2,
  field: '2',
  text: '2 nights',
  default: '2 nights',
  overridden: false,
}

beforeEach(async () => {
  fake = server.current = new FakeServer()
  fake.shown = view({ assumptions: [nights] })
  setActivePinia(createPinia())
  plan = usePlan()
  await plan.open(7)
})

const sent = () => fake.edits().flatMap((e) => e.operations as object[])
const refuseNext = (path: string, message: string) =>
  fake.next.push({ status: 422, body: { problems: [{ path, message, interpretations: [] }] } })

describe('a choice', () => {
  const options = [
    { value: 'agm', name: 'AGM' },
    { value: 'lfp', name: 'LFP' },
    { value: null, name: 'none' },
  ]
  const choice = (props = {}) =>
    mount(PlanChoice, {
      props: { path: '/old_bank/class', label: 'Class', value: 'agm', options, ...props },
    })

  async function choose(made: ReturnType<typeof choice>, index: number) {
    const select = made.get('select').element as HTMLSelectElement
    select.selectedIndex = index
    await made.get('select').trigger('change')
    await plan.settled()
    await nextTick()
    return select
  }

  it('shows what is stored and sends the value behind the name', async () => {
    const made = choice({ called: 'class of the old bank' })
    expect(made.get('option[selected]').text()).toBe('AGM')
    await choose(made, 2)
    expect(sent()).toEqual([{ op: 'replace', path: '/old_bank/class', value: null }])
    expect(fake.edits()[0]!.label).toBe('class of the old bank')
  })

  it('sends what must change with it in the same edit, before it', async () => {
    const also = (value: unknown) => [{ op: 'replace', path: '/old_bank/unit_v', value }]
    await choose(choice({ also }), 1)
    expect(fake.edits()).toHaveLength(1)
    expect(sent().map((o) => (o as { path: string }).path)).toEqual([
      '/old_bank/unit_v',
      '/old_bank/class',
    ])
  })

  it('goes back to what is stored where it is refused, and says why under it', async () => {
    refuseNext('/old_bank/class', 'A gel bank has no such model.')
    const made = choice()
    const select = await choose(made, 1)
    expect(select.selectedIndex).toBe(0)
    const why = made.get('[role=alert]')
    expect(why.text()).toBe('A gel bank has no such model.')
    expect(made.get('select').attributes('aria-describedby')).toBe(why.attributes('id'))
    // The next edit that is taken clears it.
    await plan.edit('anything', { op: 'replace', path: '/rig/name', value: 'Tern' })
    await nextTick()
    expect(made.find('[role=alert]').exists()).toBe(false)
  })
})

describe('a tick', () => {
  it('sends yes or no', async () => {
    const props = { path: '/sources/0/rests', label: 'Rests', value: false }
    const made = mount(PlanCheck, { props })
    await made.get('input').setValue(true)
    await plan.settled()
    expect(sent()).toEqual([{ op: 'replace', path: '/sources/0/rests', value: true }])
  })
})

describe('a number in steps', () => {
  it('goes no further than its ends', async () => {
    const made = mount(StepField, { props: { label: 'In parallel', value: 1, most: 2 } })
    const [less, more] = made.findAll('button')
    expect(less!.attributes('disabled')).toBeDefined()
    await more!.trigger('click')
    expect(made.emitted('step')).toEqual([[2]])
    await made.setProps({ value: 2 })
    expect(more!.attributes('disabled')).toBeDefined()
    await less!.trigger('click')
    expect(made.emitted('step')).toEqual([[2], [1]])
  })
})

describe('an assumption', () => {
  it('shows the value of the house rule until the owner sets one', async () => {
    const made = mount(AssumptionField, { props: { name: 'nights' } })
    expect((made.get('input').element as HTMLInputElement).value).toBe('2')
    expect(made.find('button').exists()).toBe(false)
    await made.get('input').trigger('focus')
    await made.get('input').setValue('3')
    await plan.settled()
    expect(sent()).toEqual([{ op: 'add', path: '/plan/overrides/nights', value: '3' }])
    expect(fake.edits()[0]!.label).toBe('Nights without charging')
  })

  it('is not shown where the rig has none of that name', () => {
    expect(mount(AssumptionField, { props: { name: 'unheard_of' } }).html()).toBe('<!--v-if-->')
  })

  it('goes back to its default, and what was typed goes with it', async () => {
    fake.shown = view({ assumptions: [{ ...nights, overridden: true, field: '4' }] })
    await plan.open(7)
    plan.drafts['/plan/overrides/nights'] = { text: 'four', message: 'Not a number.' }
    const made = mount(AssumptionField, { props: { name: 'nights' } })
    await made.get('button').trigger('click')
    await plan.settled()
    expect(sent()).toEqual([{ op: 'remove', path: '/plan/overrides/nights' }])
    expect(plan.drafts).toEqual({})
  })
})

describe('a slider', () => {
  const slider = () =>
    mount(AssumptionSlider, { props: { name: 'nights', least: 1, most: 7, step: 1 } })

  it('stays at the hand while answers are on their way, and sends the newest only', async () => {
    const made = slider()
    const input = made.get('input')
    const value = () => Number((input.element as HTMLInputElement).value)
    expect(value()).toBe(2)
    expect(input.attributes('aria-valuetext')).toBe('2 nights')
    fake.held = []
    for (const next of [3, 4, 5]) {
      await input.setValue(next)
      await settle()
      expect(value()).toBe(next)
    }
    await fake.release()
    expect(value()).toBe(5)
    await fake.release()
    expect(sent().map((o) => (o as { value: number }).value)).toEqual([3, 5])
  })

  it('follows the plan again once its answer is there', async () => {
    const made = slider()
    await made.get('input').setValue(6)
    await plan.settled()
    await settle()
    // This server has not moved the assumption: what it says holds.
    expect((made.get('input').element as HTMLInputElement).value).toBe('2')
  })

  it('takes the place of a value that is being typed and was refused', async () => {
    plan.drafts['/plan/overrides/nights'] = { text: 'x', message: 'Not a number.' }
    await slider().get('input').setValue(4)
    expect(plan.drafts).toEqual({})
  })
})

describe('a field of a form that depends on its row', () => {
  const field = (spec: object, value: unknown = null) =>
    mount(SpecField, {
      props: { at: '/sources/2', field: { key: 'amps', name: 'Current', ...spec }, value },
    })

  it('is a tick, a choice or a text, at its own path', () => {
    expect(field({ yes: true }, true).get('input').element).toMatchObject({
      type: 'checkbox',
      checked: true,
    })
    const choices = [{ value: 'dc_dc', name: 'DC-DC charger' }]
    expect(field({ choices }, 'dc_dc').get('select').attributes('data-path')).toBe(
      '/sources/2/amps',
    )
    expect(field({ unit: 'A' }).get('input').attributes('data-path')).toBe('/sources/2/amps')
  })

  it('names the unit of the owner beside a field, by its place in the rig file', () => {
    expect(placeOf('/day/loads/3/on/winter/hours')).toBe('day.loads.on.hours')
    expect(unitBeside('/rig/payload_kg', { kg: 'lb' })).toBe('lb')
    expect(unitBeside('/sources/0/cable_mohm', {})).toBe('mΩ')
    expect(unitBeside('/rig/cable_mm2', { 'mm²': '' })).toBeUndefined()
    expect(unitBeside('/sources/0/starter_share', {})).toBeUndefined()
  })

  it('says what holds where it is left empty', () => {
    expect(field({ empty: 'no limit' }).get('input').attributes('placeholder')).toBe('no limit')
  })
})
