<script setup lang="ts">
import { computed, onBeforeUnmount } from 'vue'
import { claim, explained, explainTerm, piecesOf, release, type Term } from './terms'

/** A text whose terms of the trade can be opened, each where it is first used on the screen. */
const props = defineProps<{
  text: string
  /** It names a field: Tab goes from field to field and does not stop here. */
  label?: boolean
}>()

const me = Symbol('text')
const pieces = computed(() => {
  release(me)
  const named = new Set<string>()
  return piecesOf(props.text).map((piece) => {
    const key = piece.term?.key
    const first = !!key && !named.has(key) && claim(key, me)
    if (key) named.add(key)
    return { ...piece, first }
  })
})
// At once, so that the screen that comes next can explain the same terms.
onBeforeUnmount(() => release(me))

function open(term: Term, event: MouseEvent) {
  explainTerm(term, (event.currentTarget as HTMLElement).getBoundingClientRect())
}
</script>

<template>
  <template v-for="(piece, i) in pieces" :key="i"
    ><component
      :is="label ? 'span' : 'button'"
      v-if="piece.first"
      :type="label ? undefined : 'button'"
      class="term"
      :data-term="piece.term!.key"
      :aria-expanded="label ? undefined : explained?.key === piece.term!.key"
      @click.prevent="open(piece.term!, $event)"
      >{{ piece.text }}</component
    ><template v-else>{{ piece.text }}</template></template
  >
</template>
