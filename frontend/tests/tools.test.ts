import { usePlan } from '@/stores/plan'
import { useAsked } from '@/stores/useAsked'
import { useUi } from '@/stores/ui'
import MeterReader from '@/ui/MeterReader.vue'
import MonitorPart from '@/stops/trial/MonitorPart.vue'
import { useRun } from '@/stops/trial/useRun'
import WorkingsPanel from '@/ui/WorkingsPanel.vue'
import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick, ref } from 'vue'
import { FakeServer, inside, server, settle, view } from './fakeServer'

let fake: FakeServer
let plan: ReturnType<typeof usePlan>
const bank = (id: string, usable_wh: object | null) => ({
  id,
  title: `The ${id}`,
  layout: '1 × 1',
  battery_class: 'agm',
  figures: { usable_wh },
})

beforeEach(async () => {
  fake = server.current = new FakeServer()
  fake.shown = view({
    document: { rig: {}, day: { loads: [] }, candidates: [], old_bank: { name: 'old' } },
    banks: { candidates: [bank('sum', {}), bank('none', null)] },
  })
  setActivePinia(createPinia())
  plan = usePlan()
  await plan.open(7)
})

const wait = (ms: number) => new Promise((done) => setTimeout(done, ms))
const change = () => plan.edit('x', { op: 'replace', path: '/rig/name', value: 'Tern' })

describe('what is asked for apart from the plan', () => {
  const asking = (ask: () => Promise<{ data?: string; error?: unknown }>, question = ref('')) =>
    inside(() => useAsked<string>(() => question.value, ask))

  it('is asked once when several edits follow one another quickly', async () => {
    vi.useFakeTimers()
    const ask = vi.fn(async () => ({ data: 'said' }))
    const question = ref('a')
    const { answer } = asking(ask, question)
    await vi.advanceTimersByTimeAsync(200)
    expect(answer.value).toBe('said')
    for (const next of ['b', 'c', 'd']) {
      question.value = next
      await nextTick()
      await vi.advanceTimersByTimeAsync(50)
    }
    expect(ask).toHaveBeenCalledTimes(1)
    await vi.advanceTimersByTimeAsync(150)
    expect(ask).toHaveBeenCalledTimes(2)
  })

  it('shows the newest answer, though an older one comes after it', async () => {
    const held: ((answer: { data: string }) => void)[] = []
    const { answer, again, asking: busy } = asking(() => new Promise((done) => held.push(done)))
    await wait(160)
    again()
    await settle()
    expect(held).toHaveLength(2)
    held[1]!({ data: 'newer' })
    await settle()
    held[0]!({ data: 'older' })
    await settle()
    expect(answer.value).toBe('newer')
    expect(busy.value).toBe(false)
  })

  it('keeps the last answer where the next is refused, and says why', async () => {
    let refuse = false
    const refused = { error: { problems: [{ path: '', message: 'Give at least one load.' }] } }
    const { answer, problem, again } = asking(async () => (refuse ? refused : { data: 'said' }))
    await wait(160)
    refuse = true
    await again()
    expect(answer.value).toBe('said')
    expect(problem.value).toBe('Give at least one load.')
  })
})

describe('the workings', () => {
  const workings = (key: string) => ({
    key,
    name: `Name of ${key}`,
    text: '2.58 kWh',
    exact: '2 576.364 Wh',
    formula: [
      { text: 'E_day', symbol: 'E_day', key: 'day.total' },
      { text: ' · N', symbol: null, key: null },
    ],
    inputs: [
      { symbol: 'E_day', key: 'day.total', name: 'The day', text: '1.03 kWh', origin: 'computed' },
    ],
    by_rule: [],
    origin: 'computed',
    source: 'Method',
  })
  const open = async () => {
    fake.others['GET /api/rigs/7/workings'] = ({ query }) => workings(query.get('key')!)
    const made = mount(WorkingsPanel, { attachTo: document.body })
    useUi().openWorkings('need.energy')
    await flushPromises()
    await settle()
    return made
  }

  it('show the figure, how it comes about and what went into it', async () => {
    const made = await open()
    expect(made.text()).toContain('2.58 kWh')
    expect(made.text()).toContain('exact value 2 576.364 Wh')
    expect(made.get('sub').text()).toBe('day')
    expect(document.activeElement).toBe(made.get('aside').element)
    made.unmount()
  })

  it('lead from a figure to what went into it, and back', async () => {
    const made = await open()
    await made.get('li button').trigger('click')
    await settle()
    expect(useUi().workings).toEqual(['need.energy', 'day.total'])
    expect(made.text()).toContain('Name of day.total')
    await made.get('[aria-label=Back]').trigger('click')
    await settle()
    expect(made.text()).toContain('Name of need.energy')
    expect(made.find('[aria-label=Back]').exists()).toBe(false)
    made.unmount()
  })

  it('give the focus back to the figure from which they were opened', async () => {
    const figure = document.createElement('button')
    figure.dataset.figure = 'need.energy'
    document.body.append(figure)
    const made = await open()
    await made.get('aside').trigger('keydown', { key: 'Escape' })
    expect(useUi().workings).toEqual([])
    expect(document.activeElement).toBe(figure)
    made.unmount()
    figure.remove()
  })

  it('are asked for again when the plan changes, and say when the figure is gone', async () => {
    const made = await open()
    fake.others['GET /api/rigs/7/workings'] = ({ query }) => ({
      ...workings(query.get('key')!),
      text: '3 kWh',
    })
    await change()
    await settle()
    expect(made.text()).toContain('3 kWh')
    const gone = { status: 404, body: { problems: [] } }
    fake.next = []
    await change()
    fake.next = [gone]
    useUi().openWorkings('bank.gone')
    await settle()
    expect(made.text()).toContain('no longer part of the plan')
    made.unmount()
  })
})

describe('reading a meter', () => {
  const answered = { text: '60 to 85 %', low: 0.6, high: 0.85, why: ['It was just charged.'] }

  it('asks for the banks that can be built and the old one', () => {
    const options = mount(MeterReader).findAll('[data-meter-bank] option')
    expect(options.map((o) => o.text())).toEqual(['The old bank', 'The sum, 1 × 1'])
  })

  it('asks only when there are volts, and shows the range and why', async () => {
    fake.others['POST /api/rigs/7/meter'] = () => answered
    const made = mount(MeterReader)
    await made.get('[data-meter-state]').setValue('just_charged')
    await settle()
    expect(fake.asked.filter((a) => a.path.endsWith('/meter'))).toHaveLength(0)
    await made.get('[data-tool=volts]').setValue('12,6')
    await settle()
    expect(fake.asked.at(-1)!.body).toMatchObject({
      bank: 'old',
      volts: '12,6',
      state: 'just_charged',
    })
    const bar = made.get('[data-meter-says] span[style]')
    expect(bar.attributes('style')).toContain('left: 60%; width: 25%')
    expect(made.text()).toContain('It was just charged.')
    await made.get('[data-tool=volts]').setValue(' ')
    expect(made.text()).toContain('Enter the voltage on the meter.')
  })

  it('shows what was asked last, whichever answer comes last', async () => {
    fake.others['POST /api/rigs/7/meter'] = ({ body }) => ({
      ...answered,
      text: `at ${body.volts} V`,
    })
    const made = mount(MeterReader)
    fake.held = []
    for (const volts of ['12.2', '12.6']) {
      await made.get('[data-tool=volts]').setValue(volts)
      await settle()
    }
    for (const go of fake.held.reverse()) {
      go()
      await settle()
    }
    expect(made.text()).toContain('at 12.6 V')
    fake.held = []
    await made.get('[data-tool=volts]').setValue('12.8')
    await made.get('[data-tool=volts]').setValue('')
    for (const go of fake.held) go()
    await settle()
    expect(made.text()).toContain('Enter the voltage on the meter.')
  })

  it('asks for the current only under load, and says what is wrong at its field', async () => {
    const made = mount(MeterReader)
    expect(made.find('[data-tool=amps]').exists()).toBe(false)
    await made.get('[data-meter-state]').setValue('loaded')
    const problems = [{ path: '/amps', message: 'Say how many amps run.' }]
    fake.next = [{ status: 422, body: { problems } }]
    await made.get('[data-tool=volts]').setValue('12.2')
    await settle()
    expect(made.get('[data-tool=amps]').attributes('aria-invalid')).toBe('true')
    expect(made.get('[role=alert]').text()).toBe('Say how many amps run.')
    expect((made.get('[data-tool=volts]').element as HTMLInputElement).value).toBe('12.2')
  })
})

describe('the made-up monitor', () => {
  class Stream {
    static made: Stream[] = []
    closed = false
    onmessage: (event: { data: string }) => void = () => {}
    onerror = () => {}
    ends: () => void = () => {}
    constructor(public url: string) {
      Stream.made.push(this)
    }
    addEventListener(_name: string, does: () => void) {
      this.ends = does
    }
    close() {
      this.closed = true
    }
    says(hours: number, amps = -4.25) {
      this.onmessage({
        data: JSON.stringify({ hours, volts: 12.61, amps, soc: 0.734, celsius: 9 }),
      })
    }
  }
  const query = (s: Stream) => new URL(s.url, 'http://localhost').searchParams

  beforeEach(() => {
    Stream.made = []
    vi.stubGlobal('EventSource', Stream)
  })

  const button = (made: ReturnType<typeof mount>, text: string) =>
    made.findAll('button').find((b) => b.text().includes(text))!

  it('plays from the start, shows what a shunt would, and goes on where it was held', async () => {
    const made = mount(MonitorPart)
    await button(made, 'Play').trigger('click')
    expect(query(Stream.made[0]!).get('start_step')).toBe('0')
    expect(query(Stream.made[0]!).get('bank')).toBe('sum')
    Stream.made[0]!.says(26.25)
    await nextTick()
    const reads = made.get('[data-monitor-reads]').text()
    for (const text of ['12.61 V', '−4.3 A', '73 %', '9.0 °C']) expect(reads).toContain(text)
    expect(made.text()).toContain('Day 2, 02:15')
    await button(made, 'Pause').trigger('click')
    expect(Stream.made[0]!.closed).toBe(true)
    await button(made, 'Go on').trigger('click')
    expect(query(Stream.made[1]!).get('start_step')).toBe('106')
  })

  it('changes its speed while it plays, and begins anew with another bank', async () => {
    const made = mount(MonitorPart)
    await button(made, 'Play').trigger('click')
    Stream.made[0]!.says(1)
    const speed = made.findAll('select')[1]!
    ;(speed.element as HTMLSelectElement).selectedIndex = 2
    await speed.trigger('change')
    expect(Stream.made.map((s) => [s.closed, query(s).get('hours_per_second')])).toEqual([
      [true, '12'],
      [false, '96'],
    ])
    await made.get('[data-monitor-bank]').setValue('old')
    await nextTick()
    expect(Stream.made[1]!.closed).toBe(true)
    expect(made.get('[data-monitor-reads]').text()).toContain('— V')
  })

  it('stops at the end, when the program goes, and when it is left', async () => {
    const made = mount(MonitorPart)
    await button(made, 'Play').trigger('click')
    Stream.made[0]!.ends()
    await nextTick()
    expect(button(made, 'Play')).toBeDefined()
    await button(made, 'Play').trigger('click')
    Stream.made[1]!.onerror()
    expect(Stream.made[1]!.closed).toBe(true)
    await nextTick()
    await button(made, 'Play').trigger('click')
    made.unmount()
    expect(Stream.made[2]!.closed).toBe(true)
  })
})

describe('the run of a trial', () => {
  const event = (severity: string, step: number) => ({ severity, step })
  const run = (says: string, events: object[] = []) => ({
    says,
    drawn: ['agm', 'lfp'],
    banks: [
      { id: 'agm', battery_class: 'agm', volts: Array(192).fill(12), events: [] },
      { id: 'gel', battery_class: 'gel', volts: Array(192).fill(12), events: [] },
      { id: 'lfp', battery_class: 'lfp', volts: Array(192).fill(13), events },
      { id: 'old', battery_class: 'agm', volts: Array(192).fill(12), events: [] },
    ],
  })
  const asked = async (answer: object) => {
    fake.others['GET /api/rigs/7/trial'] = () => answer as Record<string, unknown>
    const made = inside(useRun)
    await wait(180)
    await settle()
    return made
  }

  it('draws what the program says until a bank is picked, and tells of the last', async () => {
    const made = await asked(run('a'))
    expect(made.drawn.value).toEqual(['agm', 'lfp'])
    expect(made.focus.value).toBe('lfp')
  })

  it('draws three at most, the one picked last told of, and never none', async () => {
    const made = await asked(run('a'))
    for (const id of ['gel', 'old']) made.choose(id)
    expect(made.drawn.value).toEqual(['lfp', 'gel', 'old'])
    made.choose('lfp')
    expect(made.focus.value).toBe('lfp')
    for (const id of ['lfp', 'old', 'gel']) made.choose(id)
    expect(made.drawn.value).toEqual(['gel'])
  })

  it('begins where something first switches off, else in a day that is whole', async () => {
    expect(
      (await asked(run('a', [event('caution', 3), event('blocking', 120)]))).moment.value,
    ).toBe(120)
    expect((await asked(run('b'))).moment.value).toBe(72)
  })

  it('looks at no moment outside of it', async () => {
    const made = await asked(run('a'))
    made.look(500)
    expect(made.moment.value).toBe(191)
    made.look(-3)
    expect(made.moment.value).toBe(0)
  })

  it('keeps the moment while the same stretch is run again', async () => {
    const made = await asked(run('a', [event('blocking', 120)]))
    made.look(40)
    fake.others['GET /api/rigs/7/trial'] = () => run('a', [event('blocking', 90)])
    await change()
    await wait(200)
    await settle()
    expect(made.moment.value).toBe(40)
    fake.others['GET /api/rigs/7/trial'] = () => run('another stretch', [event('blocking', 90)])
    await change()
    await wait(200)
    await settle()
    expect(made.moment.value).toBe(90)
  })
})
