<script setup lang="ts">
import { phrase } from '@/phrases/log'
import { api, problemsOf, type Schemas } from '@/api/client'
import { useUi } from '@/stores/ui'
import SeverityMark from '@/ui/SeverityMark.vue'
import { computed, nextTick, ref } from 'vue'
import { dateOf } from '@/ui/when'
import CalendarLinks from './CalendarLinks.vue'
import { freshId, now } from './useLog'

/** What is to be done about the bank, the most urgent first: done with one touch, or put off with a reason. */
const props = defineProps<{ rig: number; duties: Schemas['DutyView'][] }>()
const emit = defineEmits<{ done: [] }>()
const ui = useUi()
const all = ref(false)
const shown = computed(() =>
  all.value ? props.duties : props.duties.filter((d) => d.state !== 'later'),
)
const later = computed(() => props.duties.length - shown.value.length)
const putting = ref('')
const reason = ref('')
const days = ref('14')
const problem = ref('')
const field = ref<HTMLInputElement[] | null>(null)

async function send(duty: Schemas['DutyView'], put_off_days: number) {
  const { data, error } = await api
    .POST('/api/rigs/{rig_id}/log/duties/{duty}', {
      params: { path: { rig_id: props.rig, duty: duty.key } },
      body: { id: freshId(), ...now(), put_off_days, reason: put_off_days ? reason.value : '' },
    })
    .catch(() => ({ data: undefined, error: undefined }))
  if (!data) {
    problem.value = problemsOf(error)[0]!.message
    if (!put_off_days) ui.say(problem.value)
    return
  }
  putting.value = ''
  emit('done')
}

async function ask(key: string) {
  putting.value = key
  reason.value = ''
  problem.value = ''
  await nextTick()
  field.value?.[0]?.focus()
}
</script>

<template>
  <section data-duties>
    <h2 class="text-xl">{{ phrase('log.duties.title') }}</h2>
    <p v-if="!shown.length" class="text-soft">{{ phrase('log.duties.nothing') }}</p>
    <ul v-else class="mt-1 divide-y divide-line border-y border-line">
      <li v-for="d in shown" :key="d.key" class="py-2.5" :data-duty="d.key" :data-state="d.state">
        <div class="flex flex-wrap items-center gap-x-4 gap-y-2">
          <SeverityMark v-if="d.state === 'due'" severity="caution" class="shrink-0" />
          <span v-else class="w-[18px] shrink-0 max-sm:hidden" aria-hidden="true" />
          <div class="min-w-0 grow basis-64 leading-snug">
            <p class="font-semibold">{{ d.title }}</p>
            <p class="text-soft">{{ d.why }}</p>
          </div>
          <p class="shrink-0 text-sm leading-snug sm:w-40">
            {{
              d.state === 'due'
                ? phrase('log.duties.since', { day: dateOf(d.due) })
                : phrase('log.duties.on', { day: dateOf(d.due) })
            }}
            <span class="block text-soft">{{
              d.last
                ? phrase('log.duties.last', { day: dateOf(d.last) })
                : d.every
                  ? phrase('log.duties.never')
                  : ''
            }}</span>
          </p>
          <div class="flex gap-2">
            <button
              type="button"
              class="btn"
              :aria-label="phrase('log.duties.done_of', { title: d.title })"
              @click="send(d, 0)"
            >
              {{ phrase('log.duties.done') }}
            </button>
            <button
              type="button"
              class="btn btn-quiet"
              :aria-label="phrase('log.duties.later_of', { title: d.title })"
              :aria-expanded="putting === d.key"
              @click="putting === d.key ? (putting = '') : ask(d.key)"
            >
              {{ phrase('log.duties.later') }}
            </button>
          </div>
        </div>
        <form
          v-if="putting === d.key"
          class="mt-2 grid items-end gap-3 sm:grid-cols-[8rem_1fr_auto]"
          @submit.prevent="send(d, Number(days))"
        >
          <label class="block">
            <span class="eyebrow mb-1 block">{{ phrase('log.duties.by') }}</span>
            <select v-model="days" class="field" name="days">
              <option v-for="n in ['7', '14', '30', '90']" :key="n" :value="n">
                {{ phrase('log.duties.days', { count: Number(n) }) }}
              </option>
            </select>
          </label>
          <label class="block">
            <span class="eyebrow mb-1 block">{{ phrase('log.duties.reason') }}</span>
            <input ref="field" v-model="reason" class="field" name="reason" maxlength="1000" />
          </label>
          <button type="submit" class="btn btn-main">{{ phrase('log.duties.put_off') }}</button>
          <p v-if="problem" class="text-blocking sm:col-span-3" role="alert">{{ problem }}</p>
        </form>
      </li>
    </ul>
    <button
      v-if="later || all"
      type="button"
      class="btn btn-quiet mt-1 -ml-3"
      data-later-duties
      @click="all = !all"
    >
      {{ all ? phrase('log.duties.fewer') : phrase('log.duties.more', { count: later }) }}
    </button>
    <CalendarLinks :rig="rig" class="mt-1" />
  </section>
</template>
