<script setup lang="ts">
import { api, problemsOf, type Schemas } from '@/api/client'
import { phrase } from '@/phrases/harbor'
import { when } from '@/ui/when'
import DialogFrame from '@/ui/DialogFrame.vue'
import { Smartphone } from '@lucide/vue'
import { onMounted, ref, shallowRef } from 'vue'

/** The phones that may use the program, and how one more is let in. */
const emit = defineEmits<{ close: [] }>()
const found = shallowRef<Schemas['PhonesView'] | null>(null)
const code = shallowRef<Schemas['CodeView'] | null>(null)
const problem = ref('')

type Answer<T> = Promise<{ data?: T; error?: unknown }>
async function ask<T>(call: () => Answer<T>): Promise<T | undefined> {
  const { data, error } = await call().catch(() => ({ data: undefined, error: undefined }))
  problem.value = data ? '' : problemsOf(error)[0]!.message
  return data
}

async function load() {
  found.value = (await ask(() => api.GET('/api/phones'))) ?? found.value
}

async function show() {
  code.value = (await ask(() => api.POST('/api/phones/code'))) ?? null
}

async function revoke(id: number) {
  const params = { path: { phone_id: id } }
  found.value = (await ask(() => api.DELETE('/api/phones/{phone_id}', { params }))) ?? found.value
}

onMounted(load)
</script>

<template>
  <DialogFrame
    open
    :title="phrase('harbor.phones_dialog.phones')"
    crossed
    class="max-w-lg"
    data-phones
    @close="emit('close')"
  >
    <p v-if="problem" class="mt-2 text-blocking" role="alert">{{ problem }}</p>
    <template v-if="found">
      <p class="mt-1 text-pretty text-soft">{{ phrase('harbor.phones_dialog.lead') }}</p>
      <template v-if="found.listens && found.address">
        <button type="button" class="btn btn-main mt-4" data-show-code @click="show">
          <Smartphone :size="18" aria-hidden="true" />
          {{ phrase('harbor.phones_dialog.pair') }}
        </button>
        <div v-if="code" class="mt-4 flex flex-wrap items-center gap-5" data-code>
          <img
            :src="code.picture"
            alt=""
            width="190"
            height="190"
            class="rounded-lg border border-line"
          />
          <div class="min-w-0 grow basis-48">
            <p>{{ phrase('harbor.phones_dialog.scan') }}</p>
            <p class="mt-2 text-soft">{{ phrase('harbor.phones_dialog.or_open') }}</p>
            <p class="font-semibold break-all select-all">{{ found.address }}</p>
            <p class="mt-2 text-3xl font-semibold tracking-widest select-all" data-code-text>
              {{ code.code }}
            </p>
            <p class="text-sm text-soft">
              {{
                phrase('harbor.phones_dialog.counts', {
                  minutes: Math.round(code.seconds / 60),
                })
              }}
            </p>
          </div>
        </div>
      </template>
      <p v-else class="mt-3">
        {{ phrase('harbor.phones_dialog.not_listening') }}
        <code class="block select-all">vast-harbor serve --lan</code>
      </p>
      <h3 class="mt-6 text-lg">{{ phrase('harbor.phones_dialog.paired') }}</h3>
      <ul class="mt-1 divide-y divide-line">
        <li v-for="p in found.phones" :key="p.id" class="flex items-center gap-4 py-1.5">
          <span class="min-w-0 grow [overflow-wrap:anywhere]">
            {{ p.name }}
            <span class="block text-sm text-soft">{{
              phrase('harbor.phones_dialog.since', {
                paired: when(p.paired_at),
                seen: when(p.seen_at),
              })
            }}</span>
          </span>
          <button
            type="button"
            class="btn"
            :aria-label="phrase('harbor.phones_dialog.remove_name', { name: p.name })"
            @click="revoke(p.id)"
          >
            {{ phrase('harbor.phones_dialog.remove') }}
          </button>
        </li>
        <li v-if="!found.phones.length" class="py-2 text-soft">
          {{ phrase('harbor.phones_dialog.none') }}
        </li>
      </ul>
    </template>
  </DialogFrame>
</template>
