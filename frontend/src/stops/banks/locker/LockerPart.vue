<script setup lang="ts">
import { api, type Schemas } from '@/api/client'
import { usePlan } from '@/stores/plan'
import SentenceText from '@/ui/SentenceText.vue'
import { RotateCw, Wand2 } from '@lucide/vue'
import { computed, ref } from 'vue'
import BankPicker from '@/ui/BankPicker.vue'
import LockerRoom from './LockerRoom.vue'
import { useAsked } from '@/stores/useAsked'
import { useOneBank } from '@/stops/banks/useOneBank'
import VerdictMark from '@/stops/banks/cards/VerdictMark.vue'
import { useBoxes } from './useBoxes'

const plan = usePlan()
const { built, bank, chosen } = useOneBank()
const picked = ref<number | null>(null)
const { answer } = useAsked<Schemas['LockerView']>(
  () => bank.value?.id ?? '',
  (signal) =>
    api.GET('/api/rigs/{rig_id}/locker', {
      signal,
      params: { path: { rig_id: plan.rig!.id }, query: { candidate: bank.value!.id } },
    }),
)
const { boxes, move, drop, turn, lay, reset } = useBoxes(answer, bank)
const one = computed(() => boxes.value.find((b) => b.number === picked.value))
const POSES: Record<string, string> = {
  upright: 'Upright',
  side: 'On its side',
  end: 'On its end',
}

function place(number: number) {
  picked.value = number
}
</script>

<template>
  <div v-if="bank">
    <BankPicker
      :banks="built"
      :chosen="[bank.id]"
      label="Bank in the locker"
      @choose="(id) => (chosen = id)"
    />
    <div v-if="answer && !answer.rooms.length" class="mt-6 max-w-2xl text-lg">
      The locker is not measured yet.
      <RouterLink
        class="text-sea underline underline-offset-4"
        :to="{ name: 'rig', params: { id: plan.rig!.id, stop: 'rig' } }"
        >Enter its inside on the Rig stop</RouterLink
      >; the boxes then stand in it, to scale.
    </div>
    <template v-else-if="answer">
      <p class="mt-5 flex items-start gap-2 text-lg leading-snug" data-locker-says>
        <VerdictMark :verdict="answer.verdict" class="mt-1 shrink-0" />
        <SentenceText :tokens="answer.says" />
      </p>
      <p class="text-soft">
        {{ answer.count }} × {{ answer.case_text }}, with {{ answer.side }} mm kept at the sides and
        {{ answer.over }} mm at the terminals.
        {{
          answer.own ? 'Placed by you.' : 'Placed by a search: drag a box to place them yourself.'
        }}
      </p>
      <div class="mt-3 flex flex-wrap items-center gap-2">
        <template v-if="one">
          <span class="font-semibold">Battery {{ one.number }}</span>
          <button type="button" class="btn" @click="turn(one.number)">
            <RotateCw :size="15" aria-hidden="true" /> Turn
          </button>
          <button
            v-for="p in answer.poses"
            :key="p"
            type="button"
            class="btn"
            :aria-pressed="one.pose === p"
            :class="one.pose === p ? 'border-sea bg-wash' : ''"
            @click="lay(one.number, p)"
          >
            {{ POSES[p] }}
          </button>
          <button
            v-if="answer.rooms.length > 1"
            type="button"
            class="btn"
            @click="
              drop(one.number, { compartment: 1 - one.compartment, x: answer.side, y: answer.side })
            "
          >
            To the {{ one.compartment ? 'first' : 'second' }} compartment
          </button>
        </template>
        <span v-else class="text-soft">Touch a box to turn or lay it. Arrow keys move it.</span>
        <button v-if="answer.own" type="button" class="btn" @click="reset">
          <Wand2 :size="15" aria-hidden="true" /> Let the search place them
        </button>
      </div>
      <LockerRoom
        v-for="(room, i) in answer.rooms"
        :key="i"
        class="mt-4"
        :name="answer.rooms.length > 1 ? (i ? 'Second compartment' : 'First compartment') : ''"
        :room="room"
        :boxes="boxes.filter((b) => b.compartment === i)"
        :side="answer.side"
        :over="answer.over"
        :picked="picked"
        :battery-class="bank.battery_class"
        :terminal-side="answer.terminal_side"
        @pick="place"
        @move="move"
        @drop="drop"
        @turn="turn"
      />
    </template>
  </div>
  <p v-else class="text-soft">Put up a bank first; it then stands in the locker here.</p>
</template>
