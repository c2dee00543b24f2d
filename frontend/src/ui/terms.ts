import { ref, shallowRef } from 'vue'

/** A term of the trade: how it is written in texts, what it means, and where it matters. */
export interface Term {
  key: string
  words: string[]
  means: string
  here: string
}

export const terms = shallowRef<Term[]>([])
/** What is explained: its paragraphs, some with a heading, and where on the screen it stands. */
export interface Explanation {
  key: string
  title: string
  says: { head?: string; text: string }[]
  at: DOMRect
}

export const explained = ref<Explanation | null>(null)

/** Explain a term, or close its explanation. */
export function explainTerm(term: Term, at: DOMRect) {
  explained.value =
    explained.value?.key === term.key
      ? null
      : {
          key: term.key,
          title: term.words[0]!,
          says: [{ text: term.means }, { text: term.here }],
          at,
        }
}

let pattern: RegExp | null = null
let byWords = new Map<string, Term>()

/** Get the glossary; it comes after the screen that uses it. */
export async function loadTerms() {
  if (terms.value.length) return
  const { glossary } = await import('@/phrases/glossary')
  const escaped = (words: string) => words.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')
  const found = glossary()
  byWords = new Map(
    found.flatMap((t) => t.words.map((w) => [w.toLowerCase(), t] as [string, Term])),
  )
  const longestFirst = [...byWords.keys()].sort((a, b) => b.length - a.length).map(escaped)
  pattern = new RegExp(`(?<![\\w-])(${longestFirst.join('|')})(?![\\w-])`, 'gi')
  terms.value = found
}

/** A text cut into pieces, those that are terms with their explanation. */
export function piecesOf(text: string): { text: string; term?: Term }[] {
  if (!terms.value.length || !pattern) return [{ text }]
  const pieces: { text: string; term?: Term }[] = []
  let at = 0
  for (const found of text.matchAll(pattern)) {
    if (found.index > at) pieces.push({ text: text.slice(at, found.index) })
    pieces.push({ text: found[0], term: byWords.get(found[0].toLowerCase())! })
    at = found.index + found[0].length
  }
  if (at < text.length || !pieces.length) pieces.push({ text: text.slice(at) })
  return pieces
}

/** Which text on the screen explains a term: the first that names it. */
const owners = new Map<string, symbol>()

export function claim(key: string, by: symbol): boolean {
  if (!owners.has(key)) owners.set(key, by)
  return owners.get(key) === by
}

export function release(by: symbol) {
  for (const [key, owner] of owners) if (owner === by) owners.delete(key)
}
