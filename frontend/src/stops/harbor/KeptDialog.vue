<script setup lang="ts">
import { phrase } from '@/phrases/harbor'
import DialogFrame from '@/ui/DialogFrame.vue'
import { Download, Upload } from '@lucide/vue'
import { nextTick, ref, watch } from 'vue'
import { when } from '@/ui/when'
import { useKept } from './useKept'

const props = defineProps<{ open: boolean; rigs: number; at?: 'copies' | 'deleted' | '' }>()
const emit = defineEmits<{ close: []; restored: [rigs: number]; bringBack: [id: number] }>()

/** What is about to take the place of all rigs. */
const wanted = ref<{ name: string; run: () => Promise<void> } | null>(null)
const picker = ref<HTMLInputElement | null>(null)
const trash = ref<HTMLElement | null>(null)
const { kept, problem, busy, load, putCopy, putFile } = useKept((rigs) => {
  wanted.value = null
  emit('restored', rigs)
})

watch(
  () => props.open,
  (open) => {
    wanted.value = null
    if (open) void show()
  },
  { immediate: true },
)

async function show() {
  await load()
  await nextTick()
  if (props.at === 'deleted') trash.value?.scrollIntoView()
}

function picked(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (file) wanted.value = { name: file.name, run: () => putFile(file) }
  input.value = ''
}

function bring(id: number) {
  emit('bringBack', id)
  kept.value!.deleted = kept.value!.deleted.filter((d) => d.id !== id)
}

const counted = (n: number) => phrase('harbor.kept_dialog.rigs', { count: n })
</script>

<template>
  <DialogFrame
    :open="open"
    :title="phrase('harbor.kept_dialog.backup_restore')"
    crossed
    class="max-w-2xl"
    data-kept
    @close="emit('close')"
  >
    <p v-if="problem" class="mt-2 text-blocking" role="alert">{{ problem }}</p>
    <template v-if="kept">
      <p class="mt-1 text-soft">
        {{ phrase('harbor.kept_dialog.rigs_file_computer') }}
        <code class="break-all text-ink select-all">{{ kept.file }}</code>
      </p>
      <div class="mt-4 flex flex-wrap gap-2">
        <a class="btn btn-main" href="/api/backup" download>
          <Download :size="16" aria-hidden="true" />
          {{ phrase('harbor.kept_dialog.my_rigs_file') }}
        </a>
        <button type="button" class="btn" :disabled="busy" @click="picker?.click()">
          <Upload :size="16" aria-hidden="true" />
          {{ phrase('harbor.kept_dialog.restore_file') }}
        </button>
        <input
          ref="picker"
          type="file"
          accept=".sqlite3,application/vnd.sqlite3"
          class="sr-only"
          tabindex="-1"
          :aria-label="phrase('harbor.kept_dialog.file_rigs')"
          @change="picked"
        />
      </div>
      <div
        v-if="wanted"
        class="mt-4 rounded-lg border-2 border-caution bg-wash p-4"
        role="alert"
        data-confirm
      >
        <p>
          <b>{{ wanted.name }}</b>
          {{
            phrase('harbor.kept_dialog.replaces_everything_copy_present', {
              rigs: counted(props.rigs),
            })
          }}
        </p>
        <div class="mt-3 flex gap-2">
          <button type="button" class="btn btn-main" :disabled="busy" @click="wanted.run()">
            {{
              busy ? phrase('harbor.kept_dialog.restoring') : phrase('harbor.kept_dialog.restore')
            }}
          </button>
          <button type="button" class="btn" @click="wanted = null">
            {{ phrase('harbor.kept_dialog.cancel') }}
          </button>
        </div>
      </div>

      <h3 class="mt-6 text-lg">{{ phrase('harbor.kept_dialog.automatic_copies') }}</h3>
      <p class="text-soft">
        {{ phrase('harbor.kept_dialog.day_use_before_new') }}
      </p>
      <ul class="mt-2 divide-y divide-line">
        <li
          v-for="c in kept.copies"
          :key="c.name"
          class="flex flex-wrap items-center gap-x-4 gap-y-1 py-1.5"
        >
          <span class="min-w-0 grow">
            {{ when(c.at) }}
            <span class="block text-sm break-all text-soft">{{ c.name }}</span>
          </span>
          <span class="text-soft">{{
            c.rigs === null ? phrase('harbor.kept_dialog.unreadable') : counted(c.rigs)
          }}</span>
          <button
            type="button"
            class="btn"
            :disabled="busy || c.rigs === null"
            :aria-label="phrase('harbor.kept_dialog.restore_copy', { at: when(c.at) })"
            @click="
              wanted = {
                name: phrase('harbor.kept_dialog.copy', { at: when(c.at) }),
                run: () => putCopy(c.name),
              }
            "
          >
            {{ phrase('harbor.kept_dialog.restore') }}
          </button>
        </li>
        <li v-if="!kept.copies.length" class="py-2 text-soft">
          {{ phrase('harbor.kept_dialog.copies_yet') }}
        </li>
      </ul>

      <h3 ref="trash" class="mt-6 scroll-mt-4 text-lg">
        {{ phrase('harbor.kept_dialog.deleted_rigs') }}
      </h3>
      <p class="text-soft">{{ phrase('harbor.kept_dialog.restore_30_days') }}</p>
      <ul class="mt-2 divide-y divide-line" data-deleted>
        <li v-for="d in kept.deleted" :key="d.id" class="flex items-center gap-4 py-1.5">
          <span class="min-w-0 grow">
            {{ d.name }}
            <span class="block text-sm text-soft">{{
              phrase('harbor.kept_dialog.deleted', { at: when(d.at) })
            }}</span>
          </span>
          <button
            type="button"
            class="btn"
            :aria-label="phrase('harbor.kept_dialog.restore_name', { name: d.name })"
            @click="bring(d.id)"
          >
            {{ phrase('harbor.kept_dialog.restore_short') }}
          </button>
        </li>
        <li v-if="!kept.deleted.length" class="py-2 text-soft">
          {{ phrase('harbor.kept_dialog.none') }}
        </li>
      </ul>
    </template>
  </DialogFrame>
</template>
