<script setup lang="ts">
import { phrase } from '@/phrases/banks'
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
  upright: phrase('banks.locker_part.upright'),
  side: phrase('banks.locker_part.side'),
  end: phrase('banks.locker_part.end'),
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
      :label="phrase('banks.locker_part.bank_locker')"
      @choose="(id) => (chosen = id)"
    />
    <div v-if="answer && !answer.rooms.length" class="mt-6 max-w-2xl text-lg">
      {{ phrase('banks.locker_part.locker_measured_yet') }}
      <RouterLink
        class="text-sea underline underline-offset-4"
        :to="{ name: 'rig', params: { id: plan.rig!.id, stop: 'rig' } }"
        >{{ phrase('banks.locker_part.enter_inside_dimensions_rig') }}</RouterLink>{{
        phrase('banks.locker_part.see_batteries_scale')
      }}
    </div>
    <template v-else-if="answer">
      <p class="mt-5 flex items-start gap-2 text-lg leading-snug" data-locker-says>
        <VerdictMark :verdict="answer.verdict" class="mt-1 shrink-0" />
        <SentenceText :tokens="answer.says" />
      </p>
      <p class="text-soft">
        {{
          phrase('banks.locker_part.mm_clearance_sides_mm', {
            count: answer.count,
            case_text: answer.case_text,
            side: answer.side_text,
            over: answer.over_text,
            own: answer.own
              ? phrase('banks.locker_part.placed')
              : phrase('banks.locker_part.placed_automatically_drag_battery'),
          })
        }}
      </p>
      <div class="mt-3 flex flex-wrap items-center gap-2">
        <template v-if="one">
          <span class="font-semibold">{{
            phrase('banks.locker_part.battery', { number: one.number })
          }}</span>
          <button type="button" class="btn" @click="turn(one.number)">
            <RotateCw :size="15" aria-hidden="true" /> {{ phrase('banks.locker_part.turn') }}
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
            {{
              phrase('banks.locker_part.compartment', {
                compartment: one.compartment ? 'first' : 'second',
              })
            }}
          </button>
        </template>
        <span v-else class="text-soft">{{ phrase('banks.locker_part.tap_battery_turn_lay') }}</span>
        <button v-if="answer.own" type="button" class="btn" @click="reset">
          <Wand2 :size="15" aria-hidden="true" />
          {{ phrase('banks.locker_part.place_automatically') }}
        </button>
      </div>
      <LockerRoom
        v-for="(room, i) in answer.rooms"
        :key="i"
        class="mt-4"
        :name="
          answer.rooms.length > 1
            ? i
              ? phrase('banks.locker_part.second_compartment')
              : phrase('banks.locker_part.first_compartment')
            : ''
        "
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
  <p v-else class="text-soft">{{ phrase('banks.locker_part.add_bank_first_see') }}</p>
</template>
