import { usePlan } from '@/stores/plan'
import { share } from '@/stores/share'
import { useUi } from '@/stores/ui'
import ToastStack from '@/ui/ToastStack.vue'
import WhatIfBar from '@/ui/WhatIfBar.vue'
import { useKeys } from '@/ui/useKeys'
import SentenceText from '@/ui/SentenceText.vue'
import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import { FakeServer, server, view } from './fakeServer'

beforeEach(() => {
  server.current = new FakeServer()
  setActivePinia(createPinia())
})

describe('passing messages', () => {
  it('are three at most, the newest last, and go by themselves', () => {
    vi.useFakeTimers()
    const ui = useUi()
    for (const text of ['one', 'two', 'three', 'four']) ui.say(text)
    expect(ui.toasts.map((t) => t.text)).toEqual(['two', 'three', 'four'])
    vi.advanceTimersByTime(7000)
    expect(ui.toasts).toEqual([])
  })

  it('stay longer where there is something to do, and go when it is done', async () => {
    vi.useFakeTimers()
    const ui = useUi()
    const run = vi.fn()
    const made = mount(ToastStack)
    ui.say('Wren deleted.', { label: 'Undo', run })
    vi.advanceTimersByTime(9000)
    await nextTick()
    await made
      .findAll('button')
      .find((b) => b.text() === 'Undo')!
      .trigger('click')
    expect(run).toHaveBeenCalledOnce()
    expect(made.text()).toBe('')
  })

  it('are dismissed one by one', async () => {
    const ui = useUi()
    const made = mount(ToastStack)
    ui.say('first')
    ui.say('second')
    await nextTick()
    await made.findAll('[aria-label=Dismiss]')[0]!.trigger('click')
    expect(ui.toasts.map((t) => t.text)).toEqual(['second'])
  })
})

describe('the theme', () => {
  it('is kept, and stands at the page', async () => {
    const ui = useUi()
    expect(ui.night).toBe(false)
    ui.toggleTheme()
    await nextTick()
    expect(document.documentElement.dataset.theme).toBe('night')
    setActivePinia(createPinia())
    expect(useUi().night).toBe(true)
  })
})

describe('keys', () => {
  const pressed: string[] = []
  const names = ['n', '?', 'ctrl+z', 'ctrl+shift+z']
  const Keys = {
    template: '<input /><p>text</p>',
    setup: () => useKeys(Object.fromEntries(names.map((n) => [n, () => void pressed.push(n)]))),
  }
  const press = (on: Element, key: string, more = {}) => {
    const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more })
    on.dispatchEvent(event)
    return event.defaultPrevented
  }

  it('work outside of fields; undo works inside them too', () => {
    pressed.length = 0
    const made = mount(Keys, { attachTo: document.body })
    const [input, text] = [made.get('input').element, made.get('p').element]
    expect(press(text, 'n')).toBe(true)
    expect(press(input, 'n')).toBe(false)
    expect(press(input, 'z', { ctrlKey: true })).toBe(true)
    expect(press(input, 'Z', { metaKey: true, shiftKey: true })).toBe(true)
    expect(press(text, '?', { shiftKey: true })).toBe(true)
    expect(press(text, 'n', { altKey: true })).toBe(false)
    expect(press(text, 'q')).toBe(false)
    made.unmount()
    expect(press(document.body, 'n')).toBe(false)
    expect(pressed).toEqual(['n', 'ctrl+z', 'ctrl+shift+z', '?'])
  })
})

describe('what if', () => {
  const bar = async (tried: string[] | null) => {
    const fake = (server.current = new FakeServer())
    fake.shown = view({ what_if: tried && { tried } })
    await usePlan().open(7)
    return { fake, made: mount(WhatIfBar) }
  }

  it('is not shown while nothing is tried', async () => {
    expect((await bar(null)).made.find('[data-what-if]').exists()).toBe(false)
  })

  it('counts what is tried and names the last three', async () => {
    expect((await bar([])).made.text()).toContain('Change anything')
    expect((await bar(['nights'])).made.text()).toContain('1 change tried: nights.')
    const four = (await bar(['a', 'b', 'c', 'd'])).made.text()
    expect(four).toContain('4 changes tried: … b, c, d.')
  })

  it('is kept or dropped', async () => {
    const { fake, made } = await bar(['nights'])
    fake.others['POST /api/rigs/7/what-if/end'] = () => ({
      version: 'w',
      revision: 2,
      whole: view({ revision: 2 }),
    })
    const plan = usePlan()
    plan.drafts['/rig/name'] = { text: 'W', message: '' }
    await made.findAll('button')[1]!.trigger('click')
    await plan.settled()
    expect(fake.asked.at(-1)).toMatchObject({ body: { keep: false } })
    await nextTick()
    expect(plan.drafts).toEqual({})
    expect(made.find('[data-what-if]').exists()).toBe(false)
  })
})

describe('what did not change', () => {
  it('is the same object as before, so that it is not drawn again', () => {
    const before = { a: { x: [1, { y: 2 }] }, b: { z: 1 }, c: null }
    const after = share(before, { a: { x: [1, { y: 2 }] }, b: { z: 2 }, c: null })
    expect(after).toEqual({ ...before, b: { z: 2 } })
    expect(after.a).toBe(before.a)
    expect(after.b).not.toBe(before.b)
    expect(share(before, structuredClone(before))).toBe(before)
  })

  it('is never taken from a value that has more or less in it, or is of another kind', () => {
    expect(share({ a: 1, b: 2 }, { a: 1 })).toEqual({ a: 1 })
    expect(share([1, 2, 3], [1, 2])).toEqual([1, 2])
    expect(share([1], { 0: 1 })).toEqual({ 0: 1 })
    expect(share(null, { a: 1 })).toEqual({ a: 1 })
    expect(share({ a: 1 }, null)).toBeNull()
  })
})

describe('a sentence with figures', () => {
  it('keeps a stop to the figure before it, and opens its workings', async () => {
    const tokens = [
      { text: 'It needs ', key: null },
      { text: '240 Ah', key: 'need.ah' },
      { text: '. No more', key: null },
    ]
    const made = mount(SentenceText, { props: { tokens: tokens as never } })
    expect(made.text()).toBe('It needs 240 Ah. No more')
    expect(made.get('.whitespace-nowrap').text()).toBe('240 Ah.')
    await made.get('button').trigger('click')
    expect(useUi().workings).toEqual(['need.ah'])
    const plain = mount(SentenceText, { props: { tokens: tokens as never, plain: true } })
    expect(plain.text()).toBe('It needs 240 Ah. No more')
    expect(plain.find('button').exists()).toBe(false)
  })
})
