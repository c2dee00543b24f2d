import { Bus, Caravan, House, Package, Sailboat, Van } from '@lucide/vue'
import type { Component } from 'vue'

export const KINDS: { value: string; name: string; icon: Component }[] = [
  { value: 'van', name: 'Van', icon: Van },
  { value: 'rv', name: 'RV', icon: Bus },
  { value: 'caravan', name: 'Caravan', icon: Caravan },
  { value: 'boat', name: 'Boat', icon: Sailboat },
  { value: 'cabin', name: 'Cabin', icon: House },
  { value: 'other', name: 'Other', icon: Package },
]

export const kindOf = (value: string) => KINDS.find((k) => k.value === value) ?? KINDS[5]!
