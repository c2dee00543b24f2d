import { phrase } from '@/phrases/harbor'
import { Bus, Caravan, House, Package, Sailboat, Van } from '@lucide/vue'
import type { Component } from 'vue'

export const KINDS: { value: string; name: string; icon: Component }[] = [
  { value: 'van', name: phrase('harbor.kinds.van'), icon: Van },
  { value: 'rv', name: 'RV', icon: Bus },
  { value: 'caravan', name: phrase('harbor.kinds.caravan'), icon: Caravan },
  { value: 'boat', name: phrase('harbor.kinds.boat'), icon: Sailboat },
  { value: 'cabin', name: phrase('harbor.kinds.cabin'), icon: House },
  { value: 'other', name: phrase('harbor.kinds.other'), icon: Package },
]

export const kindOf = (value: string) => KINDS.find((k) => k.value === value) ?? KINDS[5]!
