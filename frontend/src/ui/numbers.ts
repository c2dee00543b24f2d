import { ref } from 'vue'

/** Whose way of writing numbers the open rig has, such as `en-US`; empty for none: 1 918.5. */
export const numbers = ref('')

/** A number as the rest of the page writes it. */
export function grouped(value: number, digits = 0): string {
  if (numbers.value)
    return new Intl.NumberFormat(numbers.value, {
      minimumFractionDigits: digits,
      maximumFractionDigits: digits,
    })
      .format(value)
      .replace('-', '−')
  return value
    .toFixed(digits)
    .replace('-', '−')
    .replace(/\B(?=(\d{3})+(?!\d))/g, '\u202f')
}

/** A whole amount of money; without a region its sign stands before it. */
export function amount(value: number, symbol: string, currency: string): string {
  if (numbers.value)
    return new Intl.NumberFormat(numbers.value, {
      style: 'currency',
      currency,
      currencyDisplay: 'narrowSymbol',
      maximumFractionDigits: 0,
    }).format(value)
  return `${symbol}${symbol.length > 2 ? '\u202f' : ''}${grouped(value)}`
}
