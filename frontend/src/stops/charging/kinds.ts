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
  { key: 'mains', name: 'Mains charger', says: 'while on hook-up', icon: PlugZap },
  { key: 'solar', name: 'Solar', says: 'by day', icon: SunMedium },
  { key: 'engine', name: 'Engine', says: 'while driving', icon: CarFront },
  { key: 'generator', name: 'Generator', says: 'through the mains charger', icon: Fuel },
  { key: 'stream', name: 'Wind or water', says: 'by the month', icon: Wind },
  {
    key: 'upkeep',
    name: 'Starting battery',
    says: 'kept full from the house bank',
    icon: Anchor,
  },
]

export type SourceField = FieldSpec<Source>

const relay = (s: Source) => s.link === 'relay'
const charger = (s: Source) => s.link !== 'relay'
const mains = (s: Source) => s.kind === 'mains'

const VOLTS: SourceField[] = [
  { key: 'absorption_v', name: 'Absorption', unit: 'V', empty: 'one voltage only', when: charger },
  { key: 'float_v', name: 'Float', unit: 'V', empty: 'switches off', when: charger },
]
const MORE: SourceField[] = [
  { key: 'equalise_v', name: 'Equalises at', unit: 'V', empty: 'never', when: charger },
  {
    key: 'positions',
    name: 'Other positions of its switch',
    text: true,
    wide: true,
    empty: '14.4/13.6, 14.7/13.8',
    hint: 'Absorption / float, for 12 V.',
    when: charger,
  },
  { key: 'compensates', name: 'Follows the battery’s temperature', yes: true, when: charger },
  { key: 'adjustable', name: 'Every setting can be set', yes: true, when: charger },
  { key: 'firmware', name: 'Its maker has firmware for LFP', yes: true, when: charger },
  { key: 'board', name: 'Its maker sells a control board for LFP', yes: true, when: mains },
  { key: 'built_in', name: 'It is part of the distribution panel', yes: true, when: mains },
  { key: 'wakes', name: 'Starts a battery that shows no volts', yes: true, when: charger },
]

/** What is asked of each kind: first what one must know, then what one may. */
export const FIELDS: Record<string, { first: SourceField[]; more: SourceField[] }> = {
  mains: {
    first: [
      { key: 'amps', name: 'Gives', unit: 'A', empty: 'on its label' },
      ...VOLTS,
      { key: 'timeout_h', name: 'Absorption lasts', unit: 'h', empty: 'no limit' },
    ],
    more: [
      { key: 'rests', name: 'Rests after float', yes: true },
      {
        key: 'rebulk_v',
        name: 'and starts again below',
        unit: 'V',
        when: (s) => s.rests === true,
      },
      ...MORE,
    ],
  },
  solar: {
    first: [
      { key: 'watts', name: 'Panels', unit: 'W' },
      {
        key: 'controller',
        name: 'Controller',
        choices: [
          { value: 'mppt', name: 'MPPT: seeks the best point' },
          { value: 'pwm', name: 'PWM: passes the current' },
        ],
      },
      { key: 'tilt', name: 'Tilt', unit: '°', hint: '0 is flat.' },
      { key: 'azimuth', name: 'They face', unit: '°', hint: '180 is south.' },
    ],
    more: [
      ...VOLTS,
      { key: 'amps', name: 'Controller gives at most', unit: 'A', empty: 'no limit' },
      { key: 'starter_share', name: 'Share to the starting battery' },
      ...MORE,
    ],
  },
  engine: {
    first: [
      {
        key: 'link',
        name: 'Joined by',
        choices: [
          { value: 'dc_dc', name: 'A DC-DC charger' },
          { value: 'relay', name: 'A relay' },
        ],
      },
      { key: 'amps', name: 'Gives', unit: 'A', when: charger },
      { key: 'alternator_a', name: 'Alternator', unit: 'A' },
      { key: 'smart', name: 'Smart: it lowers its volts', yes: true },
    ],
    more: [
      ...VOLTS,
      { key: 'alternator_v', name: 'Alternator holds', unit: 'V' },
      { key: 'cable_mohm', name: 'Cable, both ways', unit: 'mΩ', when: relay },
      { key: 'drop_out_v', name: 'Relay opens below', unit: 'V', when: relay },
      { key: 'fridge_w', name: 'A fridge takes while driving', unit: 'W' },
      ...MORE.filter((f) => f.key !== 'compensates'),
    ],
  },
  generator: {
    first: [
      { key: 'watts', name: 'Gives', unit: 'W' },
      { key: 'litres_per_h', name: 'Burns at work', unit: 'l/h' },
      { key: 'litre_price', name: 'Price of a litre', unit: 'currency' },
      { key: 'start_soc', name: 'Started below' },
      { key: 'stop_soc', name: 'Stopped at' },
      { key: 'quiet_from', name: 'Quiet from', empty: '21:00' },
      { key: 'quiet_to', name: 'to', empty: '08:00' },
    ],
    more: [],
  },
  stream: { first: [...VOLTS], more: [...MORE] },
  upkeep: {
    first: [
      { key: 'amps', name: 'Takes', unit: 'A' },
      { key: 'hours', name: 'for, each day', unit: 'h' },
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
