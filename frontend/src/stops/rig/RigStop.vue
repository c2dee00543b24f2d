<script setup lang="ts">
import { phrase } from '@/phrases/rig'
import { usePlan } from '@/stores/plan'
import { useUi } from '@/stores/ui'
import FindingList from '@/ui/FindingList.vue'
import MeterReader from '@/ui/MeterReader.vue'
import PartTabs from '@/ui/PartTabs.vue'
import { Tag } from '@lucide/vue'
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import BuildPart from './BuildPart.vue'
import PrioritiesPart from './PrioritiesPart.vue'
import DiagnosisPart from './DiagnosisPart.vue'
import IdentityPart from './IdentityPart.vue'
import LoadingPart from './LoadingPart.vue'
import OldBank from './OldBank.vue'
import SecondBank from './SecondBank.vue'
import SitePart from './SitePart.vue'
import UnitsPart from './UnitsPart.vue'
import UsePart from './UsePart.vue'
import VoltageChoices from './VoltageChoices.vue'

const plan = usePlan()
const ui = useUi()
const route = useRoute()
const PARTS = [
  { key: 'why', name: phrase('rig.rig_stop.why_now'), lead: phrase('rig.rig_stop.lead_why') },
  { key: 'use', name: phrase('rig.rig_stop.use'), lead: phrase('rig.rig_stop.lead_use') },
  { key: 'place', name: phrase('rig.rig_stop.place'), lead: phrase('rig.rig_stop.lead_place') },
  {
    key: 'space',
    name: phrase('rig.rig_stop.weight_space'),
    lead: phrase('rig.rig_stop.lead_space'),
  },
  { key: 'build', name: phrase('rig.rig_stop.build'), lead: phrase('rig.rig_stop.lead_build') },
]
const part = computed(() => PARTS.find((p) => p.key === route.query.part) ?? PARTS[0]!)
const ELSEWHERE = ['test_current', 'test_temperature', 'old_bank_serves', 'locker_space']
const findings = computed(() =>
  plan.rig!.findings.filter((f) => f.stop === 'rig' && !ELSEWHERE.includes(f.code)),
)
</script>

<template>
  <h1 class="text-3xl">{{ phrase('rig.rig_stop.rig') }}</h1>
  <PartTabs stop="rig" :parts="PARTS" :chosen="part.key" :name="phrase('rig.rig_stop.parts')" />
  <p class="max-w-3xl text-pretty text-soft">{{ part.lead }}</p>
  <FindingList :findings="findings" class="mt-4" />
  <div class="mt-5 grid grid-cols-1 items-start gap-6 lg:grid-cols-2">
    <template v-if="part.key === 'why'">
      <div class="min-w-0 space-y-6">
        <OldBank />
        <button type="button" class="btn" data-read-label @click="ui.labelShown = true">
          <Tag :size="16" aria-hidden="true" /> {{ phrase('rig.rig_stop.read_label') }}
        </button>
      </div>
      <DiagnosisPart />
      <details class="lg:col-span-2" data-read-voltmeter>
        <summary class="discloses">{{ phrase('rig.rig_stop.read_voltmeter') }}</summary>
        <MeterReader class="mt-2" />
      </details>
    </template>
    <template v-else-if="part.key === 'use'">
      <UsePart />
      <div class="min-w-0 space-y-6">
        <IdentityPart />
        <PrioritiesPart />
      </div>
    </template>
    <SitePart v-else-if="part.key === 'place'" />
    <LoadingPart v-else-if="part.key === 'space'" />
    <template v-else>
      <div class="min-w-0 space-y-6">
        <BuildPart />
        <SecondBank />
      </div>
      <div class="min-w-0 space-y-6">
        <UnitsPart />
        <VoltageChoices />
      </div>
    </template>
  </div>
</template>
