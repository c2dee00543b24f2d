import { computed } from 'vue'
import { tip } from './tip'
import { useLook } from './useLook'

/** What the pointer meets on a line. */
export interface Met {
  seriesName: string
  seriesIndex: number
  dataIndex: number
  value: [number, number]
}

interface Axis {
  name?: string
  /** Stands after each number, or writes it. */
  unit?: string | ((value: number) => string)
  [more: string]: unknown
}

interface Picture {
  grid?: Record<string, number>
  x: Axis
  y: Axis
  /** What is said where the pointer is; left out where the picture brings its own. */
  tell?: (items: Met[]) => HTMLElement | ''
  series: object[]
  [more: string]: unknown
}

/** Pictures of lines: one frame, axes and lines of one look for all. */
export function useLines() {
  const { look, chemistry } = useLook()

  const axis = computed(() => ({ name, unit, ...more }: Axis) => ({
    ...look.value.axis,
    type: 'value',
    ...(name ? { name, nameLocation: 'middle', nameGap: 26 } : {}),
    ...(unit
      ? {
          axisLabel: {
            ...look.value.text,
            formatter: typeof unit === 'string' ? (v: number) => `${v} ${unit}` : unit,
          },
        }
      : {}),
    ...more,
  }))

  /** The whole of a picture; its horizontal axis begins at nought. */
  const picture = ({ grid, x, y, tell, ...more }: Picture) => ({
    animation: false,
    grid: { left: 54, right: 24, top: 14, bottom: 42, ...grid },
    tooltip: { ...look.value.tooltip, trigger: 'axis', formatter: tell },
    xAxis: axis.value({ min: 0, ...x }),
    yAxis: axis.value(y),
    ...more,
  })

  /** Where the pointer is, and the value of each line there. */
  const values = (where: (x: number) => string, unit: string, digits: number) => (items: Met[]) =>
    tip(
      where(items[0]!.value[0]),
      ...items.map((i): [string, string] => [
        i.seriesName,
        `${i.value[1].toFixed(digits)} ${unit}`,
      ]),
    )

  /** A line of a plain colour. */
  const plain = (color: string, lineStyle: object) => ({
    type: 'line',
    symbol: 'none',
    color,
    lineStyle: { color, ...lineStyle },
  })

  /** A line in colour and pattern of its battery class, with its number at its end. */
  function ofClass(batteryClass: string, number = '', lineStyle: object = {}) {
    const mark = chemistry(batteryClass)
    return {
      ...plain(mark.color, { width: 2.5, type: mark.type, ...lineStyle }),
      endLabel: { show: number !== '', formatter: number, color: mark.color, fontWeight: 700 },
      labelLayout: { moveOverlap: 'shiftY' },
    }
  }

  return { look, chemistry, axis, picture, values, plain, ofClass }
}
