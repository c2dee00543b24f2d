<script setup lang="ts">
import { phrase } from '@/phrases/banks'
import { api, type Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import { useReference } from '@/stores/reference'
import ChemistryMark from '@/ui/ChemistryMark.vue'
import FigureLink from '@/ui/FigureLink.vue'
import SeverityMark from '@/ui/SeverityMark.vue'
import { Tab, TabGroup, TabList, TabPanel, TabPanels } from '@headlessui/vue'
import { Plus } from '@lucide/vue'
import { useAsked } from '@/stores/useAsked'
import { useBanks } from '@/stores/useBanks'

const plan = usePlan()
const reference = useReference()
const { add, full } = useBanks()
const { answer } = useAsked<Schemas['CatalogueView']>(
  () => '',
  (signal) =>
    api.GET('/api/rigs/{rig_id}/catalogue', { signal, params: { path: { rig_id: plan.rig!.id } } }),
)

/** What else a model is in its class, of those that cover the need. */
const marks = (p: Schemas['ProposalView'], model: string) =>
  Object.entries({
    smallest: 'smallest',
    lightest: 'lightest',
    cheapest: phrase('banks.catalogue_tabs.lowest_up_front_cost'),
  })
    .filter(([key]) => p.alternatives[key] === model)
    .map(([, name]) => name)
</script>

<template>
  <TabGroup v-if="answer">
    <TabList class="relative flex gap-1 overflow-x-auto border-b border-line">
      <Tab v-for="p in answer.classes" :key="p.battery_class" v-slot="{ selected }" as="template">
        <button
          type="button"
          class="flex shrink-0 items-center gap-2 rounded-t-lg border-b-[3px] px-3 py-2 hover:bg-wash"
          :class="selected ? 'border-sea font-semibold' : 'border-transparent text-soft'"
        >
          <ChemistryMark :battery-class="p.battery_class" />
          <span class="hidden sm:inline">{{ reference.classes.get(p.battery_class)?.name }}</span>
        </button>
      </Tab>
    </TabList>
    <TabPanels>
      <TabPanel v-for="p in answer.classes" :key="p.battery_class" class="divide-y divide-line">
        <p class="py-2 font-semibold sm:hidden">
          {{ reference.classes.get(p.battery_class)?.name }}
        </p>
        <div
          v-for="m in p.layouts"
          :key="m.model"
          class="grid grid-cols-3 items-center gap-x-4 gap-y-1 py-2.5 md:grid-cols-[1fr_6rem_5rem_6rem_7.5rem]"
          :data-model="m.model"
        >
          <div class="col-span-3 leading-snug md:col-span-1">
            <span class="font-semibold">{{ m.title }}</span>
            <span class="text-soft"> · {{ m.layout }}</span>
            <span v-if="m.model === p.best && m.covers" class="ml-2 font-semibold text-sea">{{
              phrase('banks.catalogue_tabs.lowest_lifetime_cost_everything')
            }}</span>
            <span
              v-for="name in marks(p, m.model)"
              :key="name"
              class="ml-2 font-semibold text-soft"
              :data-mark="name"
              >{{ name }}</span
            >
            <span class="flex items-start gap-1.5 text-sm text-soft">
              <SeverityMark v-if="!m.covers" severity="blocking" class="mt-px shrink-0" />
              {{ m.covers ? m.note : phrase('banks.catalogue_tabs.too_small_even_recommended') }}
            </span>
          </div>
          <FigureLink
            :figure="m.usable"
            :name="phrase('banks.catalogue_tabs.usable')"
            class="md:text-right"
          />
          <FigureLink
            :figure="m.kg"
            :name="phrase('banks.catalogue_tabs.weight')"
            class="md:text-right"
          />
          <FigureLink
            :figure="m.purchase"
            :name="phrase('banks.catalogue_tabs.price')"
            class="text-right"
          />
          <button
            type="button"
            class="btn col-span-3 md:col-span-1"
            :disabled="full"
            :aria-label="phrase('banks.catalogue_tabs.add', { title: m.title })"
            @click="add(p.battery_class, m.model, m.title)"
          >
            <Plus :size="15" aria-hidden="true" /> {{ phrase('banks.catalogue_tabs.add_short') }}
          </button>
        </div>
        <p v-for="m in p.unfit" :key="m.model" class="py-2.5 text-soft">
          <span class="font-semibold">{{ m.title }}</span> · {{ m.reason }}
        </p>
        <p v-if="!p.layouts.length && !p.unfit.length" class="py-4 text-soft">
          {{ phrase('banks.catalogue_tabs.battery_class_yet') }}
        </p>
      </TabPanel>
    </TabPanels>
  </TabGroup>
</template>
