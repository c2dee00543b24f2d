<script setup lang="ts">
import type { Schemas } from '@/api/client'
import { phrase } from '@/phrases/compare'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import { computed } from 'vue'
import { takePackage } from './packageEdits'

/** One package: what is done, what becomes of the bank, and what it comes to. */
const props = defineProps<{
  package: Schemas['BankPackageView']
  name?: string
  advised?: boolean
  /** The largest cost up front and over the years of those beside it, for the bars. */
  most: number
  /** How long the rig is kept. */
  kept: string
}>()
const NUMBERS = computed(() => [
  { key: 'outlay', name: phrase('compare.ladder_part.outlay'), money: props.package.outlay },
  {
    key: 'lifetime',
    name: phrase('compare.ladder_part.lifetime', { kept: props.kept }),
    money: props.package.lifetime,
  },
  { key: 'served', name: phrase('compare.ladder_part.served'), money: null },
])
const width = (money: number) => `${Math.max(1, (Math.max(0, money) / props.most) * 100)}%`
const text = (key: string) => props.package.figures[key]!.text
</script>

<template>
  <article
    class="flex h-full min-w-0 flex-col gap-2 px-4 py-3 sm:p-4"
    :class="advised ? 'bg-wash' : ''"
    :data-package="package.key"
  >
    <h3 v-if="name" class="text-lg leading-tight" :class="advised ? 'text-sea' : ''">{{ name }}</h3>
    <p class="flex items-start gap-2 leading-snug">
      <ChemistryMark :battery-class="package.battery_class" class="shrink-0 scale-90" />
      <span class="min-w-0">
        <template v-if="package.keeps">{{
          phrase('compare.ladder_part.keep_old', { years: text('years') })
        }}</template>
        <template v-else>{{ package.bank }}</template><template
          v-for="does in package.does"
          :key="does"
        >
          + {{ does }}</template
        >
      </span>
    </p>
    <dl class="mt-auto grid grid-cols-3 gap-x-4">
      <div v-for="n in NUMBERS" :key="n.key" class="min-w-0">
        <dt class="text-sm text-soft">{{ n.name }}</dt>
        <dd class="figure font-semibold">
          {{ text(n.key) }}
          <span
            v-if="n.money !== null"
            class="mt-0.5 block h-1.5 overflow-hidden rounded-full bg-line/60"
            aria-hidden="true"
          >
            <span
              class="block h-full rounded-full"
              :class="n.key === 'outlay' ? 'bg-sea' : 'bg-soft'"
              :style="{ width: width(n.money) }"
            />
          </span>
        </dd>
      </div>
    </dl>
    <p class="text-sm text-soft max-sm:hidden">
      {{
        package.figures.hours!.value
          ? phrase('compare.ladder_part.body', { kg: text('kg'), hours: text('hours') })
          : text('kg')
      }}
    </p>
    <button
      v-if="package.take.length && !advised"
      type="button"
      class="btn self-start"
      data-plan-package
      @click="takePackage(package)"
    >
      {{ phrase('compare.ladder_part.plan_it') }}
    </button>
  </article>
</template>
