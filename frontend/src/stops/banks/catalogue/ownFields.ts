import type { OwnModel } from '@/api/rigFile'
import type { FieldSpec } from '@/ui/fieldSpec'
import { TERMINALS } from '@/ui/terminals'

/** The fields of a battery that the owner enters, as the form shows them. */

export type Own = FieldSpec<OwnModel>

export interface OwnGroup {
  key: string
  name: string
  lithium?: boolean
  /** Shown only while this field is on. */
  when?: keyof OwnModel
  fields: Own[]
}

export const LABEL: Own[] = [
  { key: 'unit_v', name: 'Volts', unit: 'V' },
  { key: 'rated_ah', name: 'Capacity', unit: 'Ah' },
  { key: 'rated_hours', name: 'rated over', unit: 'h' },
  { key: 'kg', name: 'Weight', unit: 'weight' },
  { key: 'price', name: 'Price', unit: 'currency' },
  { key: 'length_mm', name: 'Length', unit: 'small_length', empty: 'not known' },
  { key: 'width_mm', name: 'Width', unit: 'small_length', empty: 'not known' },
  { key: 'height_mm', name: 'Height with terminals', unit: 'small_length', empty: 'not known' },
  { key: 'max_series', name: 'Most in series' },
  { key: 'max_parallel', name: 'Most strings' },
  { key: 'cycles', name: 'Cycles' },
  { key: 'cycles_at_dod', name: 'at a depth of' },
]

export const GROUPS: OwnGroup[] = [
  {
    key: 'more',
    name: 'More of the label',
    fields: [
      { key: 'ah_2', name: 'Second capacity', unit: 'Ah', empty: 'none' },
      { key: 'hours_2', name: 'over', unit: 'h', empty: 'none' },
      { key: 'ah_3', name: 'Third capacity', unit: 'Ah', empty: 'none' },
      { key: 'hours_3', name: 'over', unit: 'h', empty: 'none' },
      { key: 'reserve_minutes', name: 'Reserve at 25 A', unit: 'min', empty: 'none' },
      { key: 'cycles_2', name: 'Cycles, second point', empty: 'none' },
      { key: 'cycles_at_2', name: 'at a depth of', empty: 'none' },
      { key: 'cycles_3', name: 'Cycles, third point', empty: 'none' },
      { key: 'cycles_at_3', name: 'at a depth of', empty: 'none' },
      { key: 'charge_a', name: 'Highest charge', unit: 'A', empty: 'of its class' },
      { key: 'discharge_a', name: 'Highest discharge', unit: 'A', empty: 'not stated' },
    ],
  },
  {
    key: 'case',
    name: 'Case',
    fields: [
      {
        key: 'orientation',
        name: 'May stand',
        choices: [
          { value: 'upright', name: 'Upright only' },
          { value: 'sides', name: 'Also on its sides' },
          { value: 'any', name: 'In any pose' },
        ],
      },
      { key: 'terminals', name: 'Terminals', choices: TERMINALS },
      {
        key: 'terminal_side',
        name: 'They sit',
        choices: [
          { value: 'ends', name: 'At both ends' },
          { value: 'long_side', name: 'Along one long side' },
          { value: 'one_end', name: 'At one end' },
        ],
      },
      { key: 'ingress', name: 'Ingress protection', text: true, empty: 'IP65' },
    ],
  },
  {
    key: 'bms',
    name: 'BMS',
    lithium: true,
    fields: [
      {
        key: 'bms',
        name: 'It has',
        choices: [
          { value: 'own', name: 'A switch of its own' },
          { value: 'monitor', name: 'A monitor only' },
          { value: 'none', name: 'None' },
        ],
      },
      { key: 'bms_continuous_a', name: 'Passes for ever', unit: 'A', empty: 'not stated' },
      { key: 'bms_peak_a', name: 'Peak', unit: 'A', empty: 'not stated' },
      { key: 'bms_peak_s', name: 'for', unit: 's', empty: '0' },
      { key: 'bms_cut_v', name: 'Opens at', unit: 'V', empty: 'not stated' },
      { key: 'bms_reconnect_v', name: 'Closes at', unit: 'V', empty: 'not stated' },
      { key: 'bms_balance_v', name: 'Balances above', unit: 'V', empty: 'not stated' },
      {
        key: 'bms_resets',
        name: 'Resets',
        choices: [
          { value: 'itself', name: 'By itself' },
          { value: 'charger', name: 'Only by a charger' },
        ],
      },
      { key: 'heater_w', name: 'Heater', unit: 'W', empty: 'none' },
      { key: 'bms_warns', name: 'Warns before it opens', yes: true },
      { key: 'bms_stops_cold', name: 'Stops a charge in the cold', yes: true },
      { key: 'radio', name: 'Read by radio', yes: true },
    ],
  },
  {
    key: 'warmth',
    name: 'Temperatures',
    fields: [
      { key: 'charge_min_c', name: 'Charge from', unit: 'temperature', empty: 'of its class' },
      { key: 'charge_max_c', name: 'to', unit: 'temperature', empty: 'of its class' },
      { key: 'discharge_min_c', name: 'Use from', unit: 'temperature', empty: 'of its class' },
      { key: 'discharge_max_c', name: 'to', unit: 'temperature', empty: 'of its class' },
      { key: 'storage_min_c', name: 'Store from', unit: 'temperature', empty: 'of its class' },
      { key: 'storage_max_c', name: 'to', unit: 'temperature', empty: 'of its class' },
    ],
  },
  {
    key: 'offer',
    name: 'Price and warranty',
    fields: [
      { key: 'price_low', name: 'Price, low', unit: 'currency', empty: 'open' },
      { key: 'price_high', name: 'Price, high', unit: 'currency', empty: 'open' },
      { key: 'price_date', name: 'Price of', text: true, empty: '2026-11' },
      { key: 'discount', name: 'Discount' },
      { key: 'tax', name: 'Tax on top' },
      { key: 'delivery', name: 'Delivery', unit: 'currency' },
      { key: 'deposit', name: 'Deposit for one', unit: 'currency' },
      { key: 'warranty_years', name: 'Warranty', unit: 'years' },
      { key: 'warranty_full_years', name: 'of it in full', unit: 'years' },
      { key: 'warranty_conditions', name: 'Its conditions', text: true, wide: true },
    ],
  },
  {
    key: 'proof',
    name: 'What backs it up',
    fields: [
      { key: 'certifications', name: 'Certified to', text: true, wide: true },
      { key: 'support_years', name: 'Support', unit: 'years' },
      { key: 'curve_published', name: 'Publishes a cycle curve', yes: true },
      { key: 'serviceable', name: 'Can be opened and repaired', yes: true },
      { key: 'note', name: 'Note', text: true, wide: true },
    ],
  },
  {
    key: 'used',
    name: 'Its past',
    when: 'used',
    fields: [
      { key: 'cycles_made', name: 'Cycles made' },
      { key: 'age_years', name: 'Age', unit: 'years' },
      { key: 'measured_ah', name: 'Measured capacity', unit: 'Ah', empty: 'not tested' },
      { key: 'cell_spread_mv', name: 'Spread of its cells', unit: 'mV', empty: 'not read' },
      { key: 'faults', name: 'Faults in its log' },
      { key: 'spare', name: 'A spare one is bought with it', yes: true },
    ],
  },
  {
    key: 'pack',
    name: 'Portable pack',
    lithium: true,
    fields: [
      { key: 'pack_ac_w', name: 'Its inverter', unit: 'W', empty: 'no pack' },
      { key: 'pack_surge_w', name: 'for a moment', unit: 'W', empty: 'no pack' },
      { key: 'pack_in_w', name: 'Takes in at most', unit: 'W', empty: 'no pack' },
    ],
  },
]
