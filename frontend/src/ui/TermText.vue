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
  const found = piecesOf(props.text).map((piece) => {
    const key = piece.term?.key
    const first = !!key && !named.has(key) && claim(key, me)
    if (key) named.add(key)
    return { ...piece, first, after: '' }
  })
  // A stop or comma never stands alone at the start of a line: it keeps to the term before it.
  found.forEach((piece, i) => {
    const before = found[i - 1]
    const mark = /^[.,;:)]/.exec(piece.text)?.[0]
    if (!before?.first || !mark) return
    before.after = mark
    piece.text = piece.text.slice(1)
  })
  return found
})
// At once, so that the screen that comes next can explain the same terms.
onBeforeUnmount(() => release(me))

function open(term: Term, event: MouseEvent) {
  explainTerm(term, (event.currentTarget as HTMLElement).getBoundingClientRect())
}
</script>

<template>
  <template v-for="(piece, i) in pieces" :key="i"
    ><span v-if="piece.first" :class="piece.after ? 'whitespace-nowrap' : ''"
      ><component
        :is="label ? 'span' : 'button'"
        :type="label ? undefined : 'button'"
        class="term"
        :data-term="piece.term!.key"
        :aria-expanded="label ? undefined : explained?.key === piece.term!.key"
        @click.prevent="open(piece.term!, $event)"
        >{{ piece.text }}</component
      >{{ piece.after }}</span
    ><template v-else>{{ piece.text }}</template></template
  >
</template>
