import { phrase } from '@/phrases/shared'
import { Anchor, CarFront, Fuel, PlugZap, SunMedium, Wind } from '@lucide/vue'
import type { Component } from 'vue'

export interface SourceKind {
  key: string
  name: string
  says: string
  icon: Component
}

export const SOURCE_KINDS: SourceKind[] = [
  {
    key: 'mains',
    name: phrase('shared.source_kinds.mains_charger'),
    says: phrase('shared.source_kinds.while_hook_up'),
    icon: PlugZap,
  },
  {
    key: 'solar',
    name: phrase('shared.source_kinds.solar'),
    says: phrase('shared.source_kinds.day'),
    icon: SunMedium,
  },
  {
    key: 'engine',
    name: phrase('shared.source_kinds.engine'),
    says: phrase('shared.source_kinds.while_driving'),
    icon: CarFront,
  },
  {
    key: 'generator',
    name: phrase('shared.source_kinds.generator'),
    says: phrase('shared.source_kinds.through_mains_charger'),
    icon: Fuel,
  },
  {
    key: 'stream',
    name: phrase('shared.source_kinds.wind_water'),
    says: phrase('shared.source_kinds.month'),
    icon: Wind,
  },
  {
    key: 'upkeep',
    name: phrase('shared.source_kinds.starting_battery'),
    says: phrase('shared.source_kinds.charged_house_bank'),
    icon: Anchor,
  },
]
