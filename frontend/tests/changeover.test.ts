import { usePlan } from '@/stores/plan'
import LockerMode from '@/stops/changeover/LockerMode.vue'
import MeasureField from '@/stops/changeover/MeasureField.vue'
import ProofPart from '@/stops/changeover/ProofPart.vue'
import { useChangeover, type Measured, type Step } from '@/stops/changeover/useChangeover'
import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { createRouter, createMemoryHistory } from 'vue-router'
import { FakeServer, inside, server, settle, view } from './fakeServer'

let fake: FakeServer
let plan: ReturnType<typeof usePlan>

const measured = (key: string, changes: object = {}) =>
  ({
    key,
    path: `/changeover/readings/lfp.${key}.V`,
    mark: 'M1',
    label: 'Battery 1',
    unit: 'V',
    likely: '13.20 V',
    range: '13.00 V to 13.40 V',
    under: 'at 20 °C',
    value: '',
    verdict: '',
    remark: '',
    before: '',
    causes: [],
    ...changes,
  }) as Measured
const step = (key: string, gate: string, changes: object = {}) =>
  ({
    key,
    gate,
    title: `Do ${key}`,
    why: 'Because.',
    how: '',
    minutes: 5,
    people: 1,
    cautions: [],
    parts: [],
    source: '',
    done: false,
    on: '',
    stopped: false,
    late: '',
    measured: [],
    ...changes,
  }) as Step

function changeover(changes: object = {}, record: object = {}) {
  const steps = [
    step('look', 'arrival'),
    step('measure', 'arrival', { measured: [measured('measure.unit-1-1')], ...changes }),
    step('lift', 'old'),
  ]
  return view({
    document: {
      rig: { name: 'Wren' },
      day: { loads: [] },
      candidates: [],
      changeover: {
        chosen: 'lfp',
        done: {},
        notes: {},
        passed: {},
        readings: {},
        proof: [],
        ...record,
      },
    },
    changeover: {
      chosen: 'lfp',
      faults: [],
      battery_class: 'lfp',
      gates: [
        {
          key: 'arrival',
          title: 'Arrival',
          stopped: 'stopped' in changes,
          done: false,
          steps: steps.slice(0, 2),
        },
        { key: 'old', title: 'Old bank', stopped: false, done: false, steps: steps.slice(2) },
      ],
      proof: {
        every: 10,
        load: 'Lamp',
        amps: '8 A',
        stop_v: '12 V',
        hours: '10 h',
        hours_range: '',
        expected_ah: '',
        least_ah: '',
        temperature: '',
        warm_enough: true,
        curve: [],
        least: [],
        measured: [],
        rows: [],
        taken: '',
        verdict: 'none',
        says: '',
      },
    },
  })
}

async function open(changes: object = {}, record: object = {}) {
  fake = server.current = new FakeServer()
  fake.shown = changeover(changes, record)
  setActivePinia(createPinia())
  plan = usePlan()
  await plan.open(7)
}
const sent = () => fake.edits().at(-1)!.operations as { op: string; path: string; value: unknown }[]

async function inLocker(at: string) {
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [{ path: '/rigs/:id/:stop', name: 'rig', component: { template: '<i/>' } }],
  })
  await router.push({ name: 'rig', params: { id: 7, stop: 'changeover' }, query: { step: at } })
  const wrapper = mount(LockerMode, { global: { plugins: [router] }, attachTo: document.body })
  await flushPromises()
  return { wrapper, router }
}

beforeEach(() => open())

describe('the changeover', () => {
  it('ticks a step with the day, and takes the tick back', async () => {
    const { tick, isTicked } = inside(() => useChangeover())
    await tick('look', 'Do look', true)
    await plan.settled()
    expect(sent()).toMatchObject([{ op: 'add', path: '/changeover/done/look' }])
    expect(sent()[0]!.value).toMatch(/^20\d\d-\d\d-\d\d$/)
    await tick('look', 'Do look', false)
    await plan.settled()
    expect(sent()).toMatchObject([{ op: 'remove', path: '/changeover/done/look' }])
    expect(isTicked('lift')).toBe(false)
  })

  it('shows a tick at once that waits to be sent', async () => {
    fake.next = ['unreachable']
    const { tick, isTicked } = inside(() => useChangeover())
    void tick('look', 'Do look', true)
    await settle()
    expect(isTicked('look')).toBe(true)
  })

  it('adds a reading by its name, though there was none', async () => {
    await plan.type('/changeover/readings/lfp.measure.unit-1-1.V', '13.2', 'Battery 1')
    await plan.settled()
    expect(sent()).toMatchObject([{ op: 'add', value: '13.2' }])
    await plan.type('/rig/name', 'Tern', 'Name')
    await plan.settled()
    expect(sent()).toMatchObject([{ op: 'replace' }])
  })

  it('tells what a reading most likely means', async () => {
    const causes = [
      { kind: 'asleep', says: 'The BMS is asleep.', next: 'Wake it.', chance: '70 %' },
      { kind: 'amps_socket', says: 'The lead is wrong.', next: 'Move it.', chance: '20 %' },
    ]
    const out = measured('measure.unit-1-1', { value: '0.0 mV', verdict: 'out', causes })
    const wrapper = mount(MeasureField, { props: { measured: out } })
    expect(wrapper.findAll('[data-cause]').map((c) => c.attributes('data-cause'))).toEqual([
      'asleep',
      'amps_socket',
    ])
    expect(wrapper.text()).toContain('0.0 mV is not within 13.00 V to 13.40 V.')
    await wrapper.setProps({ measured: measured('measure.unit-1-1', { verdict: 'ok' }) })
    expect(wrapper.findAll('[data-cause]')).toHaveLength(0)
  })
})

describe('locker mode', () => {
  it('goes from step to step and stays where it was', async () => {
    const { wrapper, router } = await inLocker('measure')
    expect(wrapper.text()).toContain('Step 2 of 3')
    await wrapper.get('[data-next-step]').trigger('click')
    await flushPromises()
    expect(router.currentRoute.value.query.step).toBe('lift')
    expect(document.activeElement).toBe(wrapper.get('[data-locker-heading]').element)
    expect(wrapper.get('[data-next-step]').attributes('disabled')).toBeDefined()
    wrapper.unmount()
    expect(document.body.style.overflow).toBe('')
  })

  it('lets nobody past a gate that a reading stops', async () => {
    await open({ stopped: true })
    const { wrapper } = await inLocker('measure')
    expect(wrapper.get('[data-next-step]').attributes('disabled')).toBeDefined()
    expect(wrapper.get('[data-tick]').attributes('disabled')).toBeDefined()
    expect(wrapper.text()).toContain('A reading stops this gate')
    await wrapper.get('[data-back]').trigger('click')
    await flushPromises()
    expect(wrapper.text()).toContain('Step 1 of 3')
    wrapper.unmount()
  })
})

describe('the acceptance test', () => {
  it('adds a reading with a name of its own, and asks for the voltage', async () => {
    vi.stubGlobal(
      'ResizeObserver',
      class {
        observe() {}
        unobserve() {}
        disconnect() {}
      },
    )
    const wrapper = mount(ProofPart, { global: { stubs: { ProofChart: true } } })
    await wrapper.get('form').trigger('submit')
    expect(wrapper.text()).toContain('Enter the voltage that you read.')
    expect(fake.edits()).toHaveLength(0)
    await wrapper.get('input[name=volts]').setValue('12.9')
    await wrapper.get('input[name=minutes]').setValue('30')
    await wrapper.get('form').trigger('submit')
    await plan.settled()
    const [added] = sent()
    expect(added).toMatchObject({ op: 'add', path: '/changeover/proof/-' })
    expect(added!.value).toMatchObject({ minutes: '30', volts: '12.9', amps: '8' })
    expect((added!.value as { id: string }).id).toMatch(/^[\w-]+$/)
  })
})
