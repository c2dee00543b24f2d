<script setup lang="ts">
import { phrase } from '@/phrases/log'
import { api, type Schemas } from '@/api/client'
import { useUi } from '@/stores/ui'
import { CalendarDays } from '@lucide/vue'
import { computed, ref, shallowRef } from 'vue'

/** The duties for the owner's own calendar: a file, or an address that it follows. */
const props = defineProps<{ rig: number }>()
const ui = useUi()
const open = ref(false)
const view = shallowRef<Schemas['CalendarView'] | null>(null)
const at = { params: { path: { rig_id: props.rig } } }
const url = '/api/rigs/{rig_id}/log/calendar'
const addresses = computed(() =>
  view.value?.path
    ? [location.origin, ...view.value.hosts.filter((h) => h !== location.origin)].map(
        (host) => host + view.value!.path,
      )
    : [],
)

async function show() {
  open.value = !open.value
  if (!open.value) return
  const { data } = await api.GET(url, at).catch(() => ({ data: undefined }))
  view.value = data ?? null
}
async function renew() {
  const { data } = await api.POST(url, at).catch(() => ({ data: undefined }))
  if (data) view.value = data
}
async function end() {
  const { data } = await api.DELETE(url, at).catch(() => ({ data: undefined }))
  if (!data) return
  view.value = data
  ui.say(phrase('log.calendar.ended'))
}
async function copy(text: string) {
  await navigator.clipboard?.writeText(text)
  ui.say(phrase('log.calendar.copied'))
}
</script>

<template>
  <div data-calendar>
    <div class="flex flex-wrap items-center gap-x-1">
      <a class="btn btn-quiet" :href="`/api/rigs/${rig}/log/duties.ics`" download
        ><CalendarDays :size="16" aria-hidden="true" /> {{ phrase('log.calendar.file') }}</a
      >
      <button type="button" class="btn btn-quiet" :aria-expanded="open" @click="show">
        {{ phrase('log.calendar.subscribe') }}
      </button>
    </div>
    <div v-if="open && view" class="mt-2 max-w-3xl">
      <p class="text-soft">{{ phrase('log.calendar.lead') }}</p>
      <ul class="mt-2 space-y-1">
        <li v-for="a in addresses" :key="a" class="flex flex-wrap items-center gap-2">
          <code class="break-all" data-calendar-address>{{ a }}</code>
          <button type="button" class="btn btn-quiet" @click="copy(a)">
            {{ phrase('log.calendar.copy') }}
          </button>
        </li>
      </ul>
      <p v-if="view.path && !view.hosts.length" class="mt-1 text-soft">
        {{ phrase('log.calendar.only_here') }}
      </p>
      <div class="mt-2 flex flex-wrap gap-2">
        <button type="button" class="btn" data-renew-calendar @click="renew">
          {{ view.path ? phrase('log.calendar.renew') : phrase('log.calendar.make') }}
        </button>
        <button v-if="view.path" type="button" class="btn btn-quiet" data-end-calendar @click="end">
          {{ phrase('log.calendar.end') }}
        </button>
      </div>
    </div>
  </div>
</template>
