<script setup lang="ts">
import { phrase } from '@/phrases/harbor'
import { loadTerms, terms } from '@/ui/terms'
import { computed, onMounted, ref } from 'vue'

const search = ref('')
const shown = computed(() => {
  const wanted = search.value.trim().toLowerCase()
  return terms.value.filter((t) => `${t.words.join(' ')} ${t.means}`.toLowerCase().includes(wanted))
})
onMounted(async () => {
  document.title = phrase('harbor.glossary_page.title')
  await loadTerms()
})
</script>

<template>
  <main id="main" class="mx-auto max-w-3xl px-4 py-8">
    <RouterLink class="text-sea underline" :to="{ name: 'harbor' }">{{
      phrase('harbor.about_page.harbor')
    }}</RouterLink>
    <h1 class="mt-4 text-3xl">{{ phrase('harbor.glossary_page.glossary') }}</h1>
    <p class="mt-1 text-soft">{{ phrase('harbor.glossary_page.lead') }}</p>
    <input
      v-model="search"
      class="field mt-4"
      type="search"
      :aria-label="phrase('harbor.glossary_page.search')"
      :placeholder="phrase('harbor.glossary_page.search')"
    />
    <dl class="mt-4">
      <div v-for="t in shown" :key="t.key" class="border-b border-line py-3" :data-entry="t.key">
        <dt class="font-semibold first-letter:uppercase">{{ t.words[0] }}</dt>
        <dd class="leading-snug">
          {{ t.means }} <span class="text-soft">{{ t.here }}</span>
        </dd>
      </div>
    </dl>
    <p v-if="!shown.length" class="mt-4 text-soft">{{ phrase('harbor.glossary_page.none') }}</p>
  </main>
</template>
