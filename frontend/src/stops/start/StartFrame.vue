<script setup lang="ts">
import { phrase } from '@/phrases/questions'
import { QUESTIONS } from '@/questions/questions'
import { useReference } from '@/stores/reference'
import { computed, nextTick, ref, watch } from 'vue'

/** One question on one calm screen: where it stands among the others, and what can be done with it. */
const props = defineProps<{ question: string; to?: (key: string) => object; busy?: boolean }>()
defineEmits<{ back: []; unknown: []; next: [] }>()
const reference = useReference()
const keys = computed(() => reference.data?.guide ?? Object.keys(QUESTIONS))
const place = computed(() => keys.value.indexOf(props.question))
const asked = computed(() => QUESTIONS[props.question]!)
const heading = ref<HTMLElement | null>(null)

watch(
  () => props.question,
  async () => {
    await nextTick()
    heading.value?.focus({ preventScroll: true })
    window.scrollTo({ top: 0 })
  },
)
</script>

<template>
  <div class="mx-auto flex min-h-dvh max-w-[980px] flex-col px-4 py-5">
    <header class="flex items-center gap-3">
      <img src="/mark.svg" alt="" width="30" height="30" />
      <p class="font-semibold" data-progress>
        {{ phrase('questions.start.progress', { number: place + 1, all: keys.length }) }}
      </p>
      <RouterLink to="/" class="ml-auto text-sea underline underline-offset-4" data-leave>{{
        phrase('questions.start.leave')
      }}</RouterLink>
    </header>
    <nav class="mt-3" :aria-label="phrase('questions.start.steps')">
      <ol class="flex gap-1">
        <li v-for="(k, i) in keys" :key="k" class="min-w-0 grow">
          <component
            :is="to && i !== place ? 'RouterLink' : 'span'"
            v-bind="to && i !== place ? { to: to(k) } : {}"
            class="block pt-2 text-sm"
            :class="i === place ? 'font-semibold' : 'text-soft hover:text-ink'"
            :aria-current="i === place ? 'step' : undefined"
            :data-question-link="k"
          >
            <span
              class="block h-1.5 rounded-full"
              :class="i <= place ? 'bg-sea' : 'bg-line'"
              aria-hidden="true"
            />
            <span class="mt-1 truncate max-md:sr-only md:block">{{ QUESTIONS[k]?.name }}</span>
          </component>
        </li>
      </ol>
    </nav>
    <main id="main" class="flex grow flex-col pt-8" :data-question="question">
      <h1 ref="heading" tabindex="-1" class="text-3xl focus:outline-none">{{ asked.asks }}</h1>
      <p class="mt-1 mb-6 max-w-2xl text-pretty text-soft">{{ asked.hint }}</p>
      <slot />
      <div class="mt-auto pt-8"><slot name="assumes" /></div>
      <div
        class="sticky bottom-0 z-10 flex flex-wrap items-center gap-3 border-t border-line bg-paper py-3"
      >
        <button
          v-if="place > 0"
          type="button"
          class="btn min-h-11"
          data-back
          @click="$emit('back')"
        >
          {{ phrase('questions.start.back') }}
        </button>
        <button
          type="button"
          class="btn ml-auto min-h-11"
          :disabled="busy"
          data-unknown
          @click="$emit('unknown')"
        >
          {{ phrase('questions.start.unknown') }}
        </button>
        <button
          type="button"
          class="btn btn-main min-h-11"
          :disabled="busy"
          data-next
          @click="$emit('next')"
        >
          {{
            place === keys.length - 1
              ? phrase('questions.start.finish')
              : phrase('questions.start.next')
          }}
        </button>
      </div>
    </main>
  </div>
</template>
