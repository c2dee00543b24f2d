/** Where a figure comes from, in words. */
import { phrase } from '@/phrases/shared'
export const ORIGINS: Record<string, string> = {
  typed: phrase('shared.origins.entered'),
  'house rule': phrase('shared.origins.set_house_rule'),
  override: phrase('shared.origins.changed_house_rule'),
  reference: phrase('shared.origins.reference_value'),
  datasheet: phrase('shared.origins.batterys_datasheet'),
  computed: 'computed',
}
