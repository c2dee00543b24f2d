/** Where a figure comes from, in words. */
export const ORIGINS: Record<string, string> = {
  typed: 'entered by you',
  'house rule': 'set by the house rule',
  override: 'set by you, over the house rule',
  reference: 'reference value',
  datasheet: 'from the battery’s entry',
  computed: 'computed',
}
