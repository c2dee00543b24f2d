<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { phrase } from '@/phrases/compare'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import { Check } from '@lucide/vue'
import { computed } from 'vue'
import { takePackage } from './packageEdits'

/** One package: what is done, what becomes of the bank, and what it comes to. */
const props = defineProps<{
  package: Schemas['BankPackageView']
  name?: string
  advised?: boolean
  /** The largest cost up front and over the years of those beside it, for the bars. */
  most: number
}>()
const FACTS = ['served', 'kg', 'hours'] as const
const NAMES = {
  served: phrase('compare.ladder_part.served'),
  kg: phrase('compare.ladder_part.kg'),
  hours: phrase('compare.ladder_part.hours'),
}
const MONEY = [
  { key: 'outlay', name: phrase('compare.ladder_part.outlay') },
  { key: 'lifetime', name: phrase('compare.ladder_part.lifetime') },
] as const
const bars = computed(() =>
  MONEY.map(({ key, name }) => ({
    key,
    name,
    text: props.package.figures[key]!.text,
    width: `${Math.max(1, (Math.max(0, props.package[key]) / props.most) * 100)}%`,
  })),
)
</script>

<template>
  <article
    class="flex h-full min-w-0 flex-col gap-3 p-4"
    :class="advised ? 'bg-wash' : ''"
    :data-package="package.key"
  >
    <h3 v-if="name" class="text-lg leading-tight" :class="advised ? 'text-sea' : ''">{{ name }}</h3>
    <ul class="space-y-1 leading-snug">
      <li v-for="does in package.does" :key="does" class="flex gap-2">
        <Check :size="16" class="mt-1 shrink-0 text-sea" aria-hidden="true" />
        <span class="min-w-0">{{ does }}</span>
      </li>
      <li class="flex gap-2">
        <ChemistryMark :battery-class="package.battery_class" class="mt-0.5 shrink-0 scale-90" />
        <span class="min-w-0">
          <template v-if="package.keeps">{{ phrase('compare.ladder_part.keep_old') }}</template>
          <template v-else>{{ phrase('compare.ladder_part.buy') }} {{ package.bank }}</template>
        </span>
      </li>
    </ul>
    <dl class="mt-auto space-y-2">
      <div
        v-for="b in bars"
        :key="b.key"
        class="relative flex flex-wrap items-baseline justify-between gap-x-3 pb-2"
      >
        <dt class="text-sm text-soft">{{ b.name }}</dt>
        <dd class="figure font-semibold">
          {{ b.text }}
          <span
            class="absolute inset-x-0 bottom-0 h-1.5 overflow-hidden rounded-full bg-line/50"
            aria-hidden="true"
          >
            <span
              class="block h-full rounded-full"
              :class="b.key === 'outlay' ? 'bg-sea' : 'bg-soft'"
              :style="{ width: b.width }"
            />
          </span>
        </dd>
      </div>
      <div v-for="key in FACTS" :key="key" class="flex justify-between gap-x-3">
        <dt class="text-sm text-soft">{{ NAMES[key] }}</dt>
        <dd class="figure">{{ package.figures[key]!.text }}</dd>
      </div>
      <div v-if="package.keeps" class="flex justify-between gap-x-3">
        <dt class="text-sm text-soft">{{ phrase('compare.ladder_part.keeps') }}</dt>
        <dd class="figure">{{ package.figures.years!.text }}</dd>
      </div>
    </dl>
    <button
      v-if="package.take.length"
      type="button"
      class="btn self-start"
      :class="advised ? 'btn-main' : ''"
      data-plan-package
      @click="takePackage(package)"
    >
      {{ phrase('compare.ladder_part.plan_it') }}
    </button>
  </article>
</template>
