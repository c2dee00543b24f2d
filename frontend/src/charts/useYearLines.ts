import { phrase } from '@/phrases/shared'
import type { ComparedBankView, SeriesView } from '@/api/client'
import { computed, type ComputedRef } from 'vue'
import { markOf } from './sameClass'
import { tip } from './tip'
import { useLook } from './useLook'

/** Lines over the years of keeping, one for each bank: what the pictures of money and capacity share. */
export function useYearLines(
  columns: ComputedRef<ComparedBankView[]>,
  lines: ComputedRef<SeriesView[]>,
  tell: (value: number) => string,
) {
  const { look, chemistry } = useLook()

  const axis = computed(() => ({
    ...look.value.axis,
    type: 'value',
    min: 0,
    max: lines.value[0]?.points.at(-1)?.[0],
    name: phrase('shared.use_year_lines.years_now'),
    nameLocation: 'middle',
    nameGap: 26,
    splitLine: { show: false },
    minInterval: 1,
  }))

  const tooltip = computed(() => ({
    ...look.value.tooltip,
    trigger: 'item',
    formatter: (p: { seriesName: string; value: [number, number] }) =>
      tip(p.seriesName, [
        phrase('shared.use_year_lines.after_years', { p: p.value[0].toFixed(1) }),
        tell(p.value[1]),
      ]),
  }))

  /** A bank that is out is drawn thin. */
  const series = computed(() =>
    lines.value.map((line, i) => {
      const column = columns.value[i]!
      const mark = chemistry(column.battery_class)
      const number = markOf(columns.value, column.id)
      return {
        name: column.title,
        type: 'line',
        data: line.points,
        symbol: mark.symbol,
        symbolSize: 6,
        showAllSymbol: false,
        color: mark.color,
        z: 3,
        lineStyle: {
          width: column.out ? 1.2 : 2.5,
          type: mark.type,
          color: mark.color,
          opacity: column.out ? 0.6 : 1,
        },
        endLabel: { show: number !== '', formatter: number, color: mark.color, fontWeight: 700 },
        labelLayout: { moveOverlap: 'shiftY' },
        emphasis: { focus: 'series' },
      }
    }),
  )

  const rows = computed(() =>
    lines.value.flatMap((line, i) =>
      line.points.map(([t, v]) => [columns.value[i]!.title, t.toFixed(1), tell(v)]),
    ),
  )

  return { look, chemistry, axis, tooltip, series, rows }
}
