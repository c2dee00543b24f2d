import { useUi } from '@/stores/ui'
import { PATTERNS, themeColour } from '@/ui/chemistry'
import { computed } from 'vue'

/** Colours, type and axes that all pictures share, in the theme of the moment. */
export function useLook() {
  const ui = useUi()

  const look = computed(() => {
    void ui.night
    const ink = themeColour('ink')
    const soft = themeColour('soft')
    const line = themeColour('line')
    const text = { color: soft, fontFamily: 'Source Sans 3 Variable', fontSize: 13 }
    return {
      ink,
      soft,
      line,
      sea: themeColour('sea'),
      text,
      axis: {
        axisLine: { lineStyle: { color: themeColour('edge') } },
        axisTick: { show: false },
        splitLine: { lineStyle: { color: line } },
        axisLabel: text,
        nameTextStyle: text,
      },
      tooltip: {
        backgroundColor: themeColour('sheet'),
        borderColor: line,
        textStyle: { ...text, color: ink },
        confine: true,
      },
    }
  })

  function chemistry(batteryClass: string) {
    void ui.night
    const pattern = PATTERNS[batteryClass]
    return {
      color: themeColour(`chem-${batteryClass}`),
      type: pattern?.chart ?? 'solid',
      symbol: pattern?.symbol ?? 'circle',
    }
  }

  return { look, chemistry }
}
