import { phrase } from '@/phrases/charging'
import { Anchor, CarFront, Fuel, PlugZap, SunMedium, Wind } from '@lucide/vue'
import type { Source } from '@/api/rigFile'
import type { FieldSpec } from '@/ui/fieldSpec'
import type { Component } from 'vue'

export interface Kind {
  key: string
  name: string
  says: string
  icon: Component
}

export const KINDS: Kind[] = [
  {
    key: 'mains',
    name: phrase('charging.kinds.mains_charger'),
    says: phrase('charging.kinds.while_hook_up'),
    icon: PlugZap,
  },
  {
    key: 'solar',
    name: phrase('charging.kinds.solar'),
    says: phrase('charging.kinds.day'),
    icon: SunMedium,
  },
  {
    key: 'engine',
    name: phrase('charging.kinds.engine'),
    says: phrase('charging.kinds.while_driving'),
    icon: CarFront,
  },
  {
    key: 'generator',
    name: phrase('charging.kinds.generator'),
    says: phrase('charging.kinds.through_mains_charger'),
    icon: Fuel,
  },
  {
    key: 'stream',
    name: phrase('charging.kinds.wind_water'),
    says: phrase('charging.kinds.month'),
    icon: Wind,
  },
  {
    key: 'upkeep',
    name: phrase('charging.kinds.starting_battery'),
    says: phrase('charging.kinds.charged_house_bank'),
    icon: Anchor,
  },
]

export type SourceField = FieldSpec<Source>

const relay = (s: Source) => s.link === 'relay'
const charger = (s: Source) => s.link !== 'relay'
const mains = (s: Source) => s.kind === 'mains'

const VOLTS: SourceField[] = [
  {
    key: 'absorption_v',
    name: phrase('charging.kinds.absorption'),
    unit: 'V',
    empty: phrase('charging.kinds.single_voltage'),
    when: charger,
  },
  {
    key: 'float_v',
    name: phrase('charging.kinds.float'),
    unit: 'V',
    empty: phrase('charging.kinds.switches_off'),
    when: charger,
  },
]
const MORE: SourceField[] = [
  {
    key: 'equalise_v',
    name: phrase('charging.kinds.equalises'),
    unit: 'V',
    empty: 'never',
    when: charger,
  },
  {
    key: 'positions',
    name: phrase('charging.kinds.other_switch_positions'),
    text: true,
    wide: true,
    empty: '14.4/13.6, 14.7/13.8',
    hint: phrase('charging.kinds.absorption_float_12_v'),
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
        unit: 'A',
        empty: phrase('charging.kinds.label'),
      },
      ...VOLTS,
      {
        key: 'timeout_h',
        name: phrase('charging.kinds.absorption_time'),
        unit: 'h',
        empty: phrase('charging.kinds.limit'),
      },
    ],
    more: [
      { key: 'rests', name: phrase('charging.kinds.stops_after_float'), yes: true },
      {
        key: 'rebulk_v',
        name: phrase('charging.kinds.restarts_below'),
        unit: 'V',
        when: (s) => s.rests === true,
      },
      ...MORE,
    ],
  },
  solar: {
    first: [
      { key: 'watts', name: phrase('charging.kinds.panels'), unit: 'W' },
      {
        key: 'controller',
        name: phrase('charging.kinds.controller'),
        choices: [
          { value: 'mppt', name: phrase('charging.kinds.mppt') },
          { value: 'pwm', name: phrase('charging.kinds.pwm') },
        ],
      },
      {
        key: 'tilt',
        name: phrase('charging.kinds.tilt'),
        unit: '°',
        hint: phrase('charging.kinds.n0_flat'),
      },
      {
        key: 'azimuth',
        name: phrase('charging.kinds.direction'),
        unit: '°',
        hint: phrase('charging.kinds.n180_south'),
      },
    ],
    more: [
      ...VOLTS,
      {
        key: 'amps',
        name: phrase('charging.kinds.controller_limit'),
        unit: 'A',
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
        choices: [
          { value: 'dc_dc', name: phrase('charging.kinds.dc_dc_charger') },
          { value: 'relay', name: phrase('charging.kinds.relay') },
        ],
      },
      { key: 'amps', name: phrase('charging.kinds.current'), unit: 'A', when: charger },
      { key: 'alternator_a', name: phrase('charging.kinds.alternator'), unit: 'A' },
      { key: 'smart', name: phrase('charging.kinds.smart_alternator_lowers_voltage'), yes: true },
    ],
    more: [
      ...VOLTS,
      { key: 'alternator_v', name: phrase('charging.kinds.alternator_voltage'), unit: 'V' },
      {
        key: 'cable_mohm',
        name: phrase('charging.kinds.cable_both_ways'),
        unit: 'mΩ',
        when: relay,
      },
      {
        key: 'drop_out_v',
        name: phrase('charging.kinds.relay_opens_below'),
        unit: 'V',
        when: relay,
      },
      { key: 'fridge_w', name: phrase('charging.kinds.fridge_power_while_driving'), unit: 'W' },
      ...MORE.filter((f) => f.key !== 'compensates'),
    ],
  },
  generator: {
    first: [
      { key: 'watts', name: phrase('charging.kinds.current'), unit: 'W' },
      { key: 'litres_per_h', name: phrase('charging.kinds.fuel_consumption'), unit: 'l/h' },
      { key: 'litre_price', name: phrase('charging.kinds.price_per_litre'), unit: 'currency' },
      { key: 'start_soc', name: phrase('charging.kinds.starts_below') },
      { key: 'stop_soc', name: phrase('charging.kinds.stops') },
      { key: 'quiet_from', name: phrase('charging.kinds.quiet_hours'), empty: '21:00' },
      { key: 'quiet_to', name: 'to', empty: '08:00' },
    ],
    more: [],
  },
  stream: { first: [...VOLTS], more: [...MORE] },
  upkeep: {
    first: [
      { key: 'amps', name: phrase('charging.kinds.power'), unit: 'A' },
      { key: 'hours', name: phrase('charging.kinds.day_3'), unit: 'h' },
    ],
    more: [],
  },
}

/** What a new source starts with. */
export const FRESH: Record<string, Record<string, unknown>> = {
  mains: { amps: 20, absorption_v: 14.4, float_v: 13.6 },
  solar: { watts: 200, absorption_v: 14.4, float_v: 13.6, adjustable: true },
  engine: { link: 'dc_dc', amps: 30, alternator_a: 120, wakes: true, adjustable: true },
  generator: { watts: 1000, litres_per_h: 0.6, litre_price: 2 },
  stream: { monthly_w: [30, 30, 30, 25, 20, 15, 15, 15, 20, 25, 30, 30] },
  upkeep: { amps: 2, hours: 3 },
}
