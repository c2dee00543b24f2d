import { choicesOf } from '@/ui/choicesOf'
import { phrase } from '@/phrases/banks'
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
  { key: 'unit_v', name: phrase('banks.own_fields.voltage') },
  { key: 'rated_ah', name: phrase('banks.own_fields.capacity') },
  { key: 'rated_hours', name: phrase('banks.own_fields.rated_over') },
  { key: 'kg', name: phrase('banks.own_fields.weight') },
  { key: 'price', name: phrase('banks.own_fields.price') },
  {
    key: 'length_mm',
    name: phrase('banks.own_fields.length'),
    empty: phrase('banks.own_fields.known'),
  },
  {
    key: 'width_mm',
    name: phrase('banks.own_fields.width'),
    empty: phrase('banks.own_fields.known'),
  },
  {
    key: 'height_mm',
    name: phrase('banks.own_fields.height_terminals'),
    empty: phrase('banks.own_fields.known'),
  },
  { key: 'max_series', name: phrase('banks.own_fields.maximum_series') },
  { key: 'max_parallel', name: phrase('banks.own_fields.maximum_parallel') },
  { key: 'cycles', name: phrase('banks.own_fields.cycles') },
  { key: 'cycles_at_dod', name: phrase('banks.own_fields.depth_discharge') },
]

export const GROUPS: OwnGroup[] = [
  {
    key: 'more',
    name: phrase('banks.own_fields.label'),
    fields: [
      {
        key: 'ah_2',
        name: phrase('banks.own_fields.second_capacity'),
        empty: phrase('banks.own_fields.not_given'),
      },
      {
        key: 'hours_2',
        name: phrase('banks.own_fields.over'),
        empty: phrase('banks.own_fields.not_given'),
      },
      {
        key: 'ah_3',
        name: phrase('banks.own_fields.third_capacity'),
        empty: phrase('banks.own_fields.not_given'),
      },
      {
        key: 'hours_3',
        name: phrase('banks.own_fields.over'),
        empty: phrase('banks.own_fields.not_given'),
      },
      {
        key: 'reserve_minutes',
        name: phrase('banks.own_fields.reserve_25'),
        empty: phrase('banks.own_fields.not_given'),
      },
      {
        key: 'cycles_2',
        name: phrase('banks.own_fields.cycles_second_value'),
        empty: phrase('banks.own_fields.not_given'),
      },
      {
        key: 'cycles_at_2',
        name: phrase('banks.own_fields.depth_discharge'),
        empty: phrase('banks.own_fields.not_given'),
      },
      {
        key: 'cycles_3',
        name: phrase('banks.own_fields.cycles_third_value'),
        empty: phrase('banks.own_fields.not_given'),
      },
      {
        key: 'cycles_at_3',
        name: phrase('banks.own_fields.depth_discharge'),
        empty: phrase('banks.own_fields.not_given'),
      },
      {
        key: 'charge_a',
        name: phrase('banks.own_fields.highest_charge_current'),
        empty: phrase('banks.own_fields.typical_class'),
      },
      {
        key: 'discharge_a',
        name: phrase('banks.own_fields.highest_discharge_current'),
        empty: phrase('banks.own_fields.stated'),
      },
    ],
  },
  {
    key: 'case',
    name: phrase('banks.own_fields.case'),
    fields: [
      {
        key: 'orientation',
        name: phrase('banks.own_fields.allowed_positions'),
        choices: choicesOf('own_models.orientation', {
          upright: phrase('banks.own_fields.upright'),
          sides: phrase('banks.own_fields.upright_side'),
          any: phrase('banks.own_fields.position'),
        }),
      },
      { key: 'terminals', name: phrase('banks.own_fields.terminals'), choices: TERMINALS },
      {
        key: 'terminal_side',
        name: phrase('banks.own_fields.terminal_position'),
        choices: choicesOf('own_models.terminal_side', {
          ends: phrase('banks.own_fields.both_ends'),
          long_side: phrase('banks.own_fields.along_long_side'),
          one_end: phrase('banks.own_fields.end'),
        }),
      },
      {
        key: 'ingress',
        name: phrase('banks.own_fields.protection_class'),
        text: true,
        empty: 'IP65',
      },
    ],
  },
  {
    key: 'bms',
    name: 'BMS',
    lithium: true,
    fields: [
      {
        key: 'bms',
        name: phrase('banks.own_fields.bms'),
        choices: choicesOf('own_models.bms', {
          own: phrase('banks.own_fields.switch'),
          monitor: phrase('banks.own_fields.monitor'),
          none: phrase('banks.own_fields.none'),
        }),
      },
      {
        key: 'bms_continuous_a',
        name: phrase('banks.own_fields.continuous_current'),
        empty: phrase('banks.own_fields.stated'),
      },
      {
        key: 'bms_peak_a',
        name: phrase('banks.own_fields.peak_current'),
        empty: phrase('banks.own_fields.stated'),
      },
      { key: 'bms_peak_s', name: phrase('banks.own_fields.for_seconds'), empty: '0' },
      {
        key: 'bms_cut_v',
        name: phrase('banks.own_fields.shuts_down'),
        empty: phrase('banks.own_fields.stated'),
      },
      {
        key: 'bms_reconnect_v',
        name: phrase('banks.own_fields.reconnects'),
        empty: phrase('banks.own_fields.stated'),
      },
      {
        key: 'bms_balance_v',
        name: phrase('banks.own_fields.balances_above'),
        empty: phrase('banks.own_fields.stated'),
      },
      {
        key: 'bms_resets',
        name: phrase('banks.own_fields.reconnects_short'),
        choices: choicesOf('own_models.bms_resets', {
          itself: phrase('banks.own_fields.itself'),
          charger: phrase('banks.own_fields.charger'),
        }),
      },
      {
        key: 'heater_w',
        name: phrase('banks.own_fields.heater'),
        empty: phrase('banks.own_fields.not_given'),
      },
      { key: 'bms_warns', name: phrase('banks.own_fields.warns_before_shuts_down'), yes: true },
      { key: 'bms_stops_cold', name: phrase('banks.own_fields.stops_charging_cold'), yes: true },
      { key: 'radio', name: phrase('banks.own_fields.wireless_readout'), yes: true },
    ],
  },
  {
    key: 'warmth',
    name: phrase('banks.own_fields.temperatures'),
    fields: [
      {
        key: 'charge_min_c',
        name: phrase('banks.own_fields.charging'),
        empty: phrase('banks.own_fields.typical_class'),
      },
      {
        key: 'charge_max_c',
        name: phrase('banks.own_fields.up_to'),
        empty: phrase('banks.own_fields.typical_class'),
      },
      {
        key: 'discharge_min_c',
        name: phrase('banks.own_fields.use'),
        empty: phrase('banks.own_fields.typical_class'),
      },
      {
        key: 'discharge_max_c',
        name: phrase('banks.own_fields.up_to'),
        empty: phrase('banks.own_fields.typical_class'),
      },
      {
        key: 'storage_min_c',
        name: phrase('banks.own_fields.storage'),
        empty: phrase('banks.own_fields.typical_class'),
      },
      {
        key: 'storage_max_c',
        name: phrase('banks.own_fields.up_to'),
        empty: phrase('banks.own_fields.typical_class'),
      },
    ],
  },
  {
    key: 'offer',
    name: phrase('banks.own_fields.price_warranty'),
    fields: [
      {
        key: 'price_low',
        name: phrase('banks.own_fields.price_low'),
        empty: phrase('banks.own_fields.open'),
      },
      {
        key: 'price_high',
        name: phrase('banks.own_fields.price_high'),
        empty: phrase('banks.own_fields.open'),
      },
      {
        key: 'price_date',
        name: phrase('banks.own_fields.date_price'),
        text: true,
        empty: '2026-11',
      },
      { key: 'discount', name: phrase('banks.own_fields.discount') },
      { key: 'tax', name: phrase('banks.own_fields.tax_added') },
      { key: 'delivery', name: phrase('banks.own_fields.delivery') },
      { key: 'deposit', name: phrase('banks.own_fields.deposit_battery') },
      { key: 'warranty_years', name: phrase('banks.own_fields.warranty') },
      { key: 'warranty_full_years', name: phrase('banks.own_fields.full') },
      {
        key: 'warranty_conditions',
        name: phrase('banks.own_fields.warranty_conditions'),
        text: true,
        wide: true,
      },
    ],
  },
  {
    key: 'proof',
    name: phrase('banks.own_fields.documentation_support'),
    fields: [
      { key: 'certifications', name: phrase('banks.own_fields.certified'), text: true, wide: true },
      { key: 'support_years', name: phrase('banks.own_fields.years_support') },
      { key: 'curve_published', name: phrase('banks.own_fields.publishes_cycle_curve'), yes: true },
      { key: 'serviceable', name: phrase('banks.own_fields.opened_repaired'), yes: true },
      { key: 'note', name: phrase('banks.own_fields.note'), text: true, wide: true },
    ],
  },
  {
    key: 'used',
    name: phrase('banks.own_fields.history_used_battery'),
    when: 'used',
    fields: [
      { key: 'cycles_made', name: phrase('banks.own_fields.cycles_already_used') },
      { key: 'age_years', name: phrase('banks.own_fields.age') },
      {
        key: 'measured_ah',
        name: phrase('banks.own_fields.measured_capacity'),
        empty: phrase('banks.own_fields.tested'),
      },
      {
        key: 'cell_spread_mv',
        name: phrase('banks.own_fields.voltage_difference_between_cells'),
        empty: phrase('banks.own_fields.read'),
      },
      { key: 'faults', name: phrase('banks.own_fields.faults_log') },
      { key: 'spare', name: phrase('banks.own_fields.spare_included_price'), yes: true },
    ],
  },
  {
    key: 'pack',
    name: phrase('banks.own_fields.portable_power_pack'),
    lithium: true,
    fields: [
      {
        key: 'pack_ac_w',
        name: phrase('banks.own_fields.inverter_power'),
        empty: phrase('banks.own_fields.power_pack'),
      },
      {
        key: 'pack_surge_w',
        name: phrase('banks.own_fields.moment'),
        empty: phrase('banks.own_fields.power_pack'),
      },
      {
        key: 'pack_in_w',
        name: phrase('banks.own_fields.highest_input_power'),
        empty: phrase('banks.own_fields.power_pack'),
      },
    ],
  },
]
