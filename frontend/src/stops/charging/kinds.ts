import { choicesOf } from '@/ui/choicesOf'
import { phrase } from '@/phrases/charging'
import type { Source } from '@/api/rigFile'
import type { FieldSpec } from '@/ui/fieldSpec'

export type SourceField = FieldSpec<Source>

const relay = (s: Source) => s.link === 'relay'
const charger = (s: Source) => s.link !== 'relay'
const mains = (s: Source) => s.kind === 'mains'

const VOLTS: SourceField[] = [
  {
    key: 'absorption_v',
    name: phrase('charging.kinds.absorption'),
    empty: phrase('charging.kinds.single_voltage'),
    when: charger,
  },
  {
    key: 'float_v',
    name: phrase('charging.kinds.float'),
    empty: phrase('charging.kinds.switches_off'),
    when: charger,
  },
]
const MORE: SourceField[] = [
  {
    key: 'equalise_v',
    name: phrase('charging.kinds.equalises'),
    empty: phrase('charging.kinds.never'),
    when: charger,
  },
  {
    key: 'positions',
    name: phrase('charging.kinds.other_switch_positions'),
    text: true,
    wide: true,
    hint: phrase('charging.kinds.absorption_float'),
    when: charger,
  },
  {
    key: 'compensates',
    name: phrase('charging.kinds.temperature_compensation'),
    yes: true,
    when: charger,
  },
  {
    key: 'adjustable',
    name: phrase('charging.kinds.settings_adjustable'),
    yes: true,
    when: charger,
  },
  {
    key: 'firmware',
    name: phrase('charging.kinds.maker_offers_firmware_lfp'),
    yes: true,
    when: charger,
  },
  {
    key: 'board',
    name: phrase('charging.kinds.maker_sells_control_board'),
    yes: true,
    when: mains,
  },
  {
    key: 'built_in',
    name: phrase('charging.kinds.built_into_distribution_panel'),
    yes: true,
    when: mains,
  },
  {
    key: 'wakes',
    name: phrase('charging.kinds.wake_battery_shows_voltage'),
    yes: true,
    when: charger,
  },
]

/** What is asked of each kind: first what one must know, then what one may. */
export const FIELDS: Record<string, { first: SourceField[]; more: SourceField[] }> = {
  mains: {
    first: [
      {
        key: 'amps',
        name: phrase('charging.kinds.current'),
        empty: phrase('charging.kinds.label'),
      },
      ...VOLTS,
      {
        key: 'timeout_h',
        name: phrase('charging.kinds.absorption_time'),
        empty: phrase('charging.kinds.limit'),
      },
    ],
    more: [
      { key: 'rests', name: phrase('charging.kinds.stops_after_float'), yes: true },
      {
        key: 'rebulk_v',
        name: phrase('charging.kinds.restarts_below'),
        when: (s) => s.rests === true,
      },
      ...MORE,
    ],
  },
  solar: {
    first: [
      { key: 'watts', name: phrase('charging.kinds.panels') },
      {
        key: 'controller',
        name: phrase('charging.kinds.controller'),
        choices: choicesOf('sources.controller', {
          mppt: phrase('charging.kinds.mppt'),
          pwm: phrase('charging.kinds.pwm'),
        }),
      },
      {
        key: 'tilt',
        name: phrase('charging.kinds.tilt'),
        hint: phrase('charging.kinds.n0_flat'),
      },
      {
        key: 'azimuth',
        name: phrase('charging.kinds.direction'),
        hint: phrase('charging.kinds.n180_south'),
      },
    ],
    more: [
      ...VOLTS,
      {
        key: 'amps',
        name: phrase('charging.kinds.controller_limit'),
        empty: phrase('charging.kinds.limit'),
      },
      { key: 'starter_share', name: phrase('charging.kinds.share_starting_battery') },
      ...MORE,
    ],
  },
  engine: {
    first: [
      {
        key: 'link',
        name: phrase('charging.kinds.connected'),
        choices: choicesOf('sources.link', {
          dc_dc: phrase('charging.kinds.dc_dc_charger'),
          relay: phrase('charging.kinds.relay'),
        }),
      },
      { key: 'amps', name: phrase('charging.kinds.current'), when: charger },
      { key: 'alternator_a', name: phrase('charging.kinds.alternator') },
      { key: 'smart', name: phrase('charging.kinds.smart_alternator_lowers_voltage'), yes: true },
    ],
    more: [
      ...VOLTS,
      { key: 'alternator_v', name: phrase('charging.kinds.alternator_voltage') },
      {
        key: 'cable_mohm',
        name: phrase('charging.kinds.cable_both_ways'),
        when: relay,
      },
      {
        key: 'drop_out_v',
        name: phrase('charging.kinds.relay_opens_below'),
        when: relay,
      },
      { key: 'fridge_w', name: phrase('charging.kinds.fridge_power_while_driving') },
      ...MORE.filter((f) => f.key !== 'compensates'),
    ],
  },
  generator: {
    first: [
      { key: 'watts', name: phrase('charging.kinds.power') },
      { key: 'litres_per_h', name: phrase('charging.kinds.fuel_consumption') },
      { key: 'litre_price', name: phrase('charging.kinds.fuel_price') },
      { key: 'start_soc', name: phrase('charging.kinds.starts_below') },
      { key: 'stop_soc', name: phrase('charging.kinds.stops') },
      { key: 'quiet_from', name: phrase('charging.kinds.quiet_hours'), empty: '21:00' },
      { key: 'quiet_to', name: phrase('charging.kinds.up_to'), empty: '08:00' },
    ],
    more: [],
  },
  stream: { first: [...VOLTS], more: [...MORE] },
  upkeep: {
    first: [
      { key: 'amps', name: phrase('charging.kinds.current') },
      { key: 'hours', name: phrase('charging.kinds.hours_day') },
    ],
    more: [],
  },
}
