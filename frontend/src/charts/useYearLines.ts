import { phrase } from '@/phrases/shared'
import type { ComparedBankView, SeriesView } from '@/api/client'
import { computed, type ComputedRef } from 'vue'
import { markOf } from './sameClass'
import { tip } from './tip'
import { useLines } from './useLines'

/** Lines over the years of keeping, one for each bank: what the pictures of money and capacity share. */
export function useYearLines(
  columns: ComputedRef<ComparedBankView[]>,
  lines: ComputedRef<SeriesView[]>,
  tell: (value: number) => string,
) {
  const { look, chemistry, ofClass, picture } = useLines()

  /** A bank that is out is drawn thin. */
  const series = computed(() =>
    lines.value.map((line, i) => {
      const column = columns.value[i]!
      return {
        ...ofClass(
          column.battery_class,
          markOf(columns.value, column.id),
          column.out ? { width: 1.2, opacity: 0.6 } : undefined,
        ),
        name: column.title,
        data: line.points,
        symbol: chemistry(column.battery_class).symbol,
        symbolSize: 6,
        showAllSymbol: false,
        z: 3,
        emphasis: { focus: 'series' },
      }
    }),
  )

  /** The picture with these lines, or others about them. */
  const overYears = (
    grid: Record<string, number>,
    y: Record<string, unknown>,
    drawn: object[] = series.value,
  ) =>
    picture({
      grid,
      tooltip: {
        ...look.value.tooltip,
        trigger: 'item',
        formatter: (p: { seriesName: string; value: [number, number] }) =>
          tip(p.seriesName, [
            phrase('shared.use_year_lines.after_years', { p: p.value[0].toFixed(1) }),
            tell(p.value[1]),
          ]),
      },
      x: {
        max: lines.value[0]?.points.at(-1)?.[0],
        name: phrase('shared.use_year_lines.years_now'),
        splitLine: { show: false },
        minInterval: 1,
      },
      y,
      series: drawn,
    })

  const rows = computed(() =>
    lines.value.flatMap((line, i) =>
      line.points.map(([t, v]) => [columns.value[i]!.title, t.toFixed(1), tell(v)]),
    ),
  )

  return { look, chemistry, series, overYears, rows }
}
