import texts from '@/phrases/en/glossary.json'
import { phrase } from '@/phrases/shared'
import { router } from '@/router'
import ExplanationCard from '@/ui/ExplanationCard.vue'
import TermText from '@/ui/TermText.vue'
import { loadTerms, piecesOf, terms } from '@/ui/terms'
import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { defineComponent, h, nextTick } from 'vue'

const show = (...said: string[]) =>
  mount(
    defineComponent({
      props: { said: { type: Array as () => string[], default: () => said } },
      setup: (props) => () => [
        ...props.said.map((text) => h(TermText, { text })),
        h(ExplanationCard),
      ],
    }),
    { attachTo: document.body, global: { plugins: [router] } },
  )
const linked = () => [...document.querySelectorAll<HTMLElement>('.term')].map((t) => t.textContent)

describe('the terms of the trade', () => {
  it('are written in one way each, and explained in whole sentences', async () => {
    await loadTerms()
    expect(terms.value.length).toBe(Object.keys(texts).length)
    const written = terms.value.flatMap((t) => t.words.map((w) => w.toLowerCase()))
    expect(new Set(written).size).toBe(written.length)
    for (const t of terms.value) {
      expect(t.means, t.key).toMatch(/^[A-Z0-9][^]*\.$/)
      expect(t.here, t.key).toMatch(/^[A-Z0-9][^]*\.$/)
    }
  })

  it('are found as whole words, the longest first, and no text is lost', async () => {
    await loadTerms()
    const text = 'The absorption voltage: absorption stops; gelling is not gel.'
    const pieces = piecesOf(text)
    expect(pieces.map((p) => p.text).join('')).toBe(text)
    const found = pieces.filter((p) => p.term).map((p) => p.text)
    expect(found).toContain('gel')
    expect(found.every((f) => f !== 'gelling' && text.includes(f))).toBe(true)
  })

  it('are linked once on a screen, and again on the next one', async () => {
    await loadTerms()
    const first = show('Gel and gel.', 'Now gel.')
    expect(linked()).toEqual(['Gel'])
    await first.setProps({ said: ['Nothing here.', 'Now gel.'] })
    expect(linked()).toEqual([])
    first.unmount()
    const second = show('Here is gel.')
    expect(linked()).toEqual(['gel'])
    second.unmount()
  })

  it('open a card, which Escape or a touch elsewhere closes', async () => {
    await loadTerms()
    const made = show('A gel battery.')
    const card = () => document.querySelector('[data-explanation]')
    const term = document.querySelector<HTMLElement>('.term')!
    term.click()
    await nextTick()
    expect(card()!.textContent).toContain(phrase('glossary.gel.means'))
    document.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape', bubbles: true }))
    await nextTick()
    expect(card()).toBeNull()
    term.click()
    await nextTick()
    document.body.dispatchEvent(new Event('pointerdown', { bubbles: true }))
    await nextTick()
    expect(card()).toBeNull()
    made.unmount()
  })
})
