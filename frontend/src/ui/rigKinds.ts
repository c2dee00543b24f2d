import { phrase } from '@/phrases/shared'
import { Bus, Caravan, House, Package, Sailboat, Van } from '@lucide/vue'
import type { Component } from 'vue'

export const KINDS: { value: string; name: string; icon: Component }[] = [
  { value: 'van', name: phrase('shared.rig_kinds.van'), icon: Van },
  { value: 'rv', name: phrase('shared.rig_kinds.rv'), icon: Bus },
  { value: 'caravan', name: phrase('shared.rig_kinds.caravan'), icon: Caravan },
  { value: 'boat', name: phrase('shared.rig_kinds.boat'), icon: Sailboat },
  { value: 'cabin', name: phrase('shared.rig_kinds.cabin'), icon: House },
  { value: 'other', name: phrase('shared.rig_kinds.other'), icon: Package },
]

export const kindOf = (value: string) => KINDS.find((k) => k.value === value) ?? KINDS[5]!
