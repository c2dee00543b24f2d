/** Line pattern and point of each battery class: told apart without colour, everywhere the same. */
export const PATTERNS: Record<string, { svg: string; chart: 'solid' | number[]; symbol: string }> =
  {
    flooded_dual: { svg: '2.2 2.4', chart: [2, 4], symbol: 'triangle' },
    flooded_deep: { svg: '7 2.5 2 2.5', chart: [10, 4, 2, 4], symbol: 'diamond' },
    agm: { svg: '5 3', chart: [7, 5], symbol: 'rect' },
    gel: { svg: '10 4', chart: [14, 6], symbol: 'pin' },
    lfp: { svg: '', chart: 'solid', symbol: 'circle' },
  }

/** A colour of the current theme, read from its style sheet variable. */
export function themeColour(name: string): string {
  return getComputedStyle(document.documentElement).getPropertyValue(`--${name}`).trim()
}
