import CumulativeChart from '@/charts/CumulativeChart.vue'
import ProfileChart from '@/charts/ProfileChart.vue'
import RunDownChart from '@/stops/trial/RunDownChart.vue'
import { markOf } from '@/charts/sameClass'
import { amount, grouped, numbers } from '@/ui/numbers'
import { usePlan } from '@/stores/plan'
import DepthChart from '@/stops/trial/DepthChart.vue'
import TrialChart from '@/stops/trial/TrialChart.vue'
import UseMap from '@/stops/compare/UseMap.vue'
import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { describe, expect, it } from 'vitest'
import { FakeServer, server, view } from './fakeServer'

const column = (id: string, battery_class: string, out = false) => ({
  id,
  battery_class,
  title: `The ${id}`,
  out,
})
const banks = [column('one', 'lfp'), column('two', 'agm', true), column('three', 'lfp')]
const line = (id: string, points: [number, number][]) => ({ id, points })

async function openWith(parts: object) {
  const fake = (server.current = new FakeServer())
  fake.shown = view(parts as Record<string, unknown>)
  setActivePinia(createPinia())
  await usePlan().open(7)
}

type Line = { name: string; data: unknown[]; lineStyle: { width: number }; [key: string]: unknown }
interface Option {
  series: Line[]
  xAxis: { max: number; interval: number }
  yAxis: { max: number; interval: number; axisLabel: { formatter: (v: number) => string } }
  tooltip: { formatter: (items: unknown) => HTMLElement }
}
const optionOf = (made: ReturnType<typeof mount>, at = 0) =>
  made.findAllComponents({ name: 'VChart' })[at]!.props('option') as Option

describe('a number in a picture', () => {
  it('has thin spaces between thousands and a true minus', () => {
    expect(grouped(0)).toBe('0')
    expect(grouped(999)).toBe('999')
    expect(grouped(1000)).toBe('1\u202f000')
    expect(grouped(-1234567.4)).toBe('−1\u202f234\u202f567')
    expect(grouped(12.345, 1)).toBe('12.3')
  })

  it('is written as in the region of the rig', () => {
    numbers.value = 'en-US'
    expect([grouped(-1918.5, 1), amount(1918, '$', 'USD')]).toEqual(['−1,918.5', '$1,918'])
    numbers.value = 'de-DE'
    expect(grouped(1918.5, 1)).toBe('1.918,5')
    expect(amount(1918, '€', 'EUR').replace(/\s/g, ' ')).toBe('1.918 €')
    numbers.value = ''
    expect(amount(1918, 'NOK', 'NOK')).toBe('NOK\u202f1\u202f918')
  })
})

describe('banks of one class', () => {
  it('have numbers, a bank alone in its class and the old one have none', () => {
    setActivePinia(createPinia())
    const all = [...banks, column('old', 'agm')]
    expect(all.map((c) => markOf(all, c.id))).toEqual(['1', '', '2', ''])
    expect(markOf(all, 'unheard of')).toBe('')
  })
})

describe('the power of the day', () => {
  it('is drawn to midnight, each step at its own height', async () => {
    const day = { edges_h: [0, 6.5, 18, 24], watts: [5, 1250, 40] }
    await openWith({ day })
    const made = mount(ProfileChart)
    const { series, tooltip } = optionOf(made)
    expect(series[0]!.data).toEqual([
      [0, 5],
      [6.5, 1250],
      [18, 40],
      [24, 40],
    ])
    expect(tooltip.formatter([{ value: [6.5, 1250] }]).innerHTML).toBe(
      '<div>06:30</div><div><b>1\u202f250 W</b></div>',
    )
    expect(made.text()).toContain('06:30 to 18:00')
  })
})

describe('money over the years', () => {
  const parts = (currency = '€') => ({
    units: { money: currency },
    compare: {
      compared_banks: banks,
      cumulative: [
        line('one', [
          [0, 900],
          [10, 1230],
        ]),
        line('two', [
          [0, 9000],
          [10, 9900],
        ]),
        line('three', [
          [0, 700],
          [10, 1100],
        ]),
      ],
    },
  })
  const band = (id: string) => ({ id, years: [0, 10], p10: [600, 800], p90: [800, 1400] })

  it('draws a bank that is out thin, and does not let it set the scale', async () => {
    await openWith(parts())
    const { series, yAxis, xAxis } = optionOf(mount(CumulativeChart))
    expect(series.map((s) => s.lineStyle.width)).toEqual([2.5, 1.2, 2.5])
    expect(yAxis.max).toBe(1500)
    expect(xAxis.max).toBe(10)
  })

  it('shows all where every bank is out', async () => {
    const all = parts()
    all.compare.compared_banks = banks.map((b) => ({ ...b, out: true }))
    await openWith(all)
    expect(optionOf(mount(CumulativeChart)).yAxis.max).toBe(10_000)
  })

  it('fills a band between its edges, under the lines; none for a bank that is out', async () => {
    await openWith(parts())
    const bands = [band('one'), band('two'), band('gone')]
    const { series } = optionOf(mount(CumulativeChart, { props: { bands: bands as never } }))
    expect(series).toHaveLength(5)
    expect(series[0]!.data).toEqual([
      [0, 600],
      [10, 800],
    ])
    expect(series[1]!.data).toEqual([
      [0, 200],
      [10, 600],
    ])
    expect(series[0]!.stack).toBe(series[1]!.stack)
  })

  it('writes money as the rest of the page does', async () => {
    await openWith(parts('CHF'))
    const { yAxis, tooltip } = optionOf(mount(CumulativeChart))
    expect(yAxis.axisLabel.formatter(12000)).toBe('CHF\u202f12\u202f000')
    const says = tooltip.formatter({ seriesName: 'The one', value: [2.25, 950] })
    expect(says.innerHTML).toBe('<div>The one</div><div>after 2.3 years: <b>CHF\u202f950</b></div>')
  })
})

describe('charge left without charging', () => {
  it('is drawn thick for a new bank and thin for a worn one, told by the clock', async () => {
    const bank = (id: string, state: string, soc: number[]) => ({
      ...column(id, 'lfp'),
      state,
      until_empty: '',
      soc,
      runs: [],
    })
    const answer = {
      start_h: 18,
      loads: [],
      banks: [
        bank('one', 'new', [1, 0.8, 0.5]),
        bank('one', 'worn', [1, 0.7]),
        bank('two', 'new', [1, 0.9, 0.7]),
        bank('old', 'now', [1, 0.2]),
      ],
    }
    await openWith({})
    const { series, tooltip, xAxis } = optionOf(mount(RunDownChart, { props: { answer } }))
    expect(series.map((s) => s.lineStyle.width)).toEqual([2.5, 1.3, 2.5, 1.3])
    // Two banks are LFP: each new one bears its mark where it ends, the others none.
    expect(series.map((s) => (s.endLabel as { formatter: string }).formatter)).toEqual([
      '1',
      '',
      '2',
      '',
    ])
    expect(series[0]!.data.at(-1)).toEqual([2, 50])
    expect(xAxis.max).toBe(24)
    expect(tooltip.formatter([{ seriesName: '<i>x', value: [6, 50] }]).textContent).toBe(
      'day 2, 00:00<i>x: 50 %',
    )
  })
})

describe('depths of cycles', () => {
  const year = (id: string, depths: number[]) => ({ ...column(id, 'lfp'), depths })
  const scaleOf = (...depths: number[][]) => {
    const made = mount(DepthChart, {
      props: { banks: depths.map((d, i) => year(`b${i}`, d)) as never },
    })
    return optionOf(made).yAxis
  }

  it('share one scale over all banks, in steps that people count in', async () => {
    await openWith({})
    expect(scaleOf([0, 3, 12], [0, 44, 1])).toMatchObject({ max: 60, interval: 20 })
    expect(scaleOf([7])).toMatchObject({ max: 10, interval: 5 })
    expect(scaleOf([0.2])).toMatchObject({ max: 1, interval: 0.5 })
    expect(scaleOf([300])).toMatchObject({ max: 300, interval: 100 })
  })
})

describe('the picture of a trial', () => {
  const run = {
    days: [{}, {}],
    step_h: 0.25,
    night: [{ begins: 20, ends: 30 }],
    banks: banks.map((one) => ({ ...one, soc: [1, 0.9], volts: [13, 13], amps: [0, 0] })),
  }
  const bank = {
    ...banks[0]!,
    soc: [1, 0.5, 0.04],
    volts: [13.2, 12.9, 0],
    amps: [-2, -40, 0],
    events: [
      { severity: 'caution', step: 1 },
      { severity: 'blocking', step: 2 },
    ],
  }
  const chart = async (moment = 1) => {
    await openWith({})
    return mount(TrialChart, {
      props: { run, banks: [bank], moment } as never,
      global: { stubs: { DayStrip: true } },
    })
  }
  const byId = (option: Option, id: string) => option.series.find((s) => s.id === id)!

  it('shows charge in per cent, and no volts where the BMS is open', async () => {
    const option = optionOf(await chart())
    expect(byId(option, 'one-0').data).toEqual([
      [0, 100],
      [0.25, 50],
      [0.5, 4],
    ])
    expect(byId(option, 'one-1').data.at(-1)).toEqual([0.5, null])
    expect(byId(option, 'one-2').data[1]).toEqual([0.25, -40])
  })

  it('draws the banks that are not picked as a faint line of their charge', async () => {
    const option = optionOf(await chart())
    const faint = option.series.filter((s) => String(s.id).endsWith('-faint'))
    expect(faint.map((s) => s.id)).toEqual(banks.slice(1).map((b) => `${b.id}-faint`))
    expect(byId(option, `${banks[1]!.id}-faint`).data.at(-1)).toEqual([0.25, 90])
  })

  it('marks where something switches off, and only that', async () => {
    const dark = byId(optionOf(await chart()), 'dark').data
    expect(dark).toMatchObject([{ name: 'The one', value: [0.5, 4] }])
  })

  it('stands at the moment that is looked at, and moves by the slider', async () => {
    const made = await chart(2)
    const pointer = byId(optionOf(made), 'moment-0').markLine as { data: object[] }
    expect(pointer.data).toEqual([{ xAxis: 0.5 }])
    await made.get('[data-scrub]').setValue(17)
    expect(made.emitted('look')).toEqual([[17]])
    expect(made.get('[data-scrub]').attributes('max')).toBe('191')
  })

  it('tells the moment under the pointer with its units', async () => {
    const { tooltip } = optionOf(await chart())
    const says = tooltip.formatter([
      { axisIndex: 0, seriesName: 'The one', value: [25.5, 50] },
      { axisIndex: 2, seriesName: 'The one', value: [25.5, -40] },
      { axisIndex: 1, seriesName: 'The one', value: [25.5, null] },
    ])
    expect(says.innerHTML).toBe(
      '<div>day 2, 01:30</div><div>The one: <b>50 %</b></div><div>The one: <b>-40 A</b></div>',
    )
    expect(tooltip.formatter([{ axisIndex: 0, seriesName: '', value: [1, 1] }])).toBe('')
  })
})

describe('the map of use', () => {
  const map = {
    ids: ['one', 'two', 'three'],
    nights: [10, 60, 110],
    years: [2, 6, 10],
    cheapest: [
      [1, 1, 1],
      [1, 2, 2],
      [2, 2, 2],
    ],
    gap: [
      [0.5, 0.3, 0.2],
      [0.04, 0.004, 0.2],
      [0.2, 0.3, 0.5],
    ],
    here: [60, 6],
    supposed: false,
  }
  const drawn = async (more = {}) => {
    await openWith({ compare: { compared_banks: banks } })
    return mount(UseMap, { props: { map: { ...map, ...more } as never } })
  }

  it('names only the banks that are cheapest somewhere', async () => {
    const made = await drawn()
    expect(made.findAll('li').map((l) => l.text())).toEqual([
      expect.stringContaining('The two'),
      expect.stringContaining('The three'),
    ])
    expect(made.text()).toContain('44 %')
    expect(made.text()).toContain('56 %')
  })

  it('has few years below and many above, and pales where the next bank is near', async () => {
    const cells = (await drawn()).findAll('rect[shape-rendering]')
    const y = cells.map((c) => Number(c.attributes('y')))
    expect(y[0]).toBeGreaterThan(y[3]!)
    expect(cells.map((c) => c.attributes('opacity'))).toEqual([
      '1',
      '1',
      '1',
      '0.5',
      '0.5',
      '1',
      '1',
      '1',
      '1',
    ])
    expect(cells[0]!.attributes('fill')).toBe('url(#use-1)')
  })

  it('puts the pin onto the middle of the cell that is this rig', async () => {
    const made = await drawn()
    const cell = made.findAll('rect[shape-rendering]')[4]!
    const at = (name: string, size: string) =>
      Number(cell.attributes(name)) + Number(cell.attributes(size)) / 2
    const [x, y] = made
      .get('svg > g[transform^="translate("]')
      .attributes('transform')!
      .match(/-?[\d.]+/g)!
      .map(Number)
    expect(x).toBeCloseTo(at('x', 'width'), 6)
    expect(y).toBeCloseTo(at('y', 'height'), 6)
  })

  it('has no pin where this rig is outside of it', async () => {
    const made = await drawn({ here: [300, 6] })
    expect(made.find('svg > g[transform^="translate("]').exists()).toBe(false)
  })

  it('tells what a cell means, with care where it is close', async () => {
    const made = await drawn()
    const cells = made.findAll('rect[shape-rendering]')
    await cells[4]!.trigger('pointerenter')
    expect(made.text()).toContain(
      '60 nights a year for 6 years: The three. The next one costs less than 1',
    )
    await cells[0]!.trigger('pointerenter')
    expect(made.text()).toContain(
      '10 nights a year for 2 years: The two. The next one costs 50 % more',
    )
  })
})
