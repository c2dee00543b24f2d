<script setup lang="ts">
import { phrase } from '@/phrases/harbor'
import { api, type Schemas } from '@/api/client'
import { onMounted, ref } from 'vue'

const about = ref<Schemas['AboutView'] | null>(null)
const licence = ref<{ name: string; text: string } | null>(null)
const PARTS = [
  { part: 'interface', name: phrase('harbor.about_page.browser') },
  { part: 'server', name: phrase('harbor.about_page.computer') },
] as const

onMounted(async () => {
  document.title = phrase('harbor.about_page.about_vast_harbor')
  about.value = (await api.GET('/api/about').catch(() => ({ data: undefined }))).data ?? null
})

async function show(name: string) {
  if (licence.value?.name === name) {
    licence.value = null
    return
  }
  const params = { query: { name } }
  licence.value =
    (await api.GET('/api/about/licence', { params }).catch(() => ({ data: undefined }))).data ??
    null
}
</script>

<template>
  <main id="main" class="mx-auto max-w-[820px] px-4 py-8">
    <RouterLink to="/" class="text-sea underline underline-offset-4">{{
      phrase('harbor.about_page.harbor')
    }}</RouterLink>
    <h1 class="mt-2 text-3xl">{{ phrase('harbor.about_page.about_vast_harbor') }}</h1>
    <p v-if="about" class="text-soft">
      {{
        phrase('harbor.about_page.version_python_sqlite', {
          version: about.version,
          python: about.python,
          sqlite: about.sqlite,
        })
      }}
    </p>

    <h2 class="mt-6 text-xl">{{ phrase('harbor.about_page.never') }}</h2>
    <ul class="mt-2 list-disc space-y-1 pl-5">
      <li>
        {{ phrase('harbor.about_page.sends_nothing_over_network') }}
      </li>
      <li>{{ phrase('harbor.about_page.tells_nobody_enter_accounts') }}</li>
      <li>
        {{ phrase('harbor.about_page.nobody_pays_verdict_batteries') }}
      </li>
      <li>
        {{ phrase('harbor.about_page.replace_local_code_makers') }}
      </li>
    </ul>

    <template v-if="about">
      <h2 class="mt-6 text-xl">{{ phrase('harbor.about_page.where_rigs') }}</h2>
      <dl class="mt-2 grid gap-x-6 gap-y-1 sm:grid-cols-[auto_1fr]">
        <dt class="text-soft">{{ phrase('harbor.about_page.rigs') }}</dt>
        <dd>
          <code class="break-all select-all">{{ about.file }}</code>
        </dd>
        <dt class="text-soft">{{ phrase('harbor.about_page.daily_copies') }}</dt>
        <dd>
          <code class="break-all select-all">{{ about.copies }}</code>
        </dd>
      </dl>

      <h2 class="mt-6 text-xl">{{ phrase('harbor.about_page.open_source_packages') }}</h2>
      <p class="text-soft">
        {{ phrase('harbor.about_page.vast_harbor_uses_packages') }}
      </p>
      <section v-for="p in PARTS" :key="p.part" class="mt-4">
        <h3 class="eyebrow">{{ p.name }}</h3>
        <ul class="mt-1 divide-y divide-line">
          <li v-for="one in about.packages.filter((x) => x.part === p.part)" :key="one.name">
            <button
              type="button"
              class="flex w-full flex-wrap items-baseline gap-x-3 py-1.5 text-left hover:bg-wash"
              :aria-expanded="licence?.name === one.name"
              @click="show(one.name)"
            >
              <span class="min-w-0 grow font-semibold">{{ one.name }}</span>
              <span class="text-soft">{{ one.version }}</span>
              <span class="w-full text-soft sm:w-64">{{ one.licence }}</span>
            </button>
            <pre
              v-if="licence?.name === one.name"
              class="max-h-80 overflow-auto rounded bg-well p-3 text-sm whitespace-pre-wrap"
              tabindex="0"
              >{{ licence.text }}</pre>
          </li>
        </ul>
      </section>
    </template>
  </main>
</template>
