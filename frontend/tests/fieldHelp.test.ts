import { router } from '@/router'
import { usePlan } from '@/stores/plan'
import ExplanationCard from '@/ui/ExplanationCard.vue'
import FieldHelp from '@/ui/FieldHelp.vue'
import PlanCheck from '@/ui/PlanCheck.vue'
import PlanField from '@/ui/PlanField.vue'
import ToolField from '@/ui/ToolField.vue'
import { explained } from '@/ui/terms'
import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { defineComponent, h, nextTick } from 'vue'
import { FakeServer, server } from './fakeServer'

let fake: FakeServer

beforeEach(async () => {
  fake = server.current = new FakeServer()
  const helped = ({ query }: { query: URLSearchParams }) => ({
    what: `What ${query.get('field')} is.`,
    where: 'On its label.',
    unknown: 'Leave it empty.',
  })
  fake.others['GET /api/rigs/7/help'] = helped as never
  setActivePinia(createPinia())
  await usePlan().open(7)
  mount(
    defineComponent({
      setup: () => () => [
        h(PlanField, { path: '/rig/name', label: 'Name' }),
        h(PlanCheck, { path: '/rig/locker_vented', label: 'Vented outside', value: false }),
        h(ToolField, { label: 'Measured', modelValue: '', help: 'charge/amps' }),
        h('button', { id: 'elsewhere' }, 'Elsewhere'),
        h(FieldHelp),
        h(ExplanationCard),
      ],
    }),
    { attachTo: document.body, global: { plugins: [router] } },
  )
})
afterEach(() => {
  explained.value = null
})

const element = (path: string) =>
  document.querySelector<HTMLElement>(`[data-path="${path}"], [data-help="${path}"]`)!
const badge = () => document.querySelector<HTMLElement>('[data-opens-help]')
const card = () => document.querySelector('[data-explanation]')
const asked = () =>
  fake.asked.filter((a) => a.path.endsWith('/help')).map((a) => a.query.get('field'))
const point = (at: Element, kind = 'mouse') => {
  const event = new Event('pointerover', { bubbles: true })
  at.dispatchEvent(Object.assign(event, { pointerType: kind }))
  return nextTick()
}
const press = async (at: Element, key: string) => {
  const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true })
  at.dispatchEvent(event)
  await flushPromises()
  return event
}
const pause = async () => {
  await new Promise((done) => setTimeout(done, 400))
  await nextTick()
}

describe('the help on a field', () => {
  it('is offered at the field which is typed into, and not when it is left', async () => {
    expect(badge()).toBeNull()
    element('/rig/name').focus()
    await nextTick()
    expect(badge()!.getAttribute('aria-label')).toContain('F1')
    // Tab goes from field to field.
    expect(badge()!.tabIndex).toBe(-1)
    document.querySelector<HTMLElement>('#elsewhere')!.focus()
    await pause()
    expect(badge()).toBeNull()
  })

  it('is offered where the mouse points, and goes back to where one types', async () => {
    element('/rig/name').focus()
    await point(element('/rig/locker_vented'))
    badge()!.click()
    await flushPromises()
    expect(asked()).toEqual(['/rig/locker_vented'])
    await point(document.body)
    await pause()
    badge()!.click()
    await flushPromises()
    expect(asked()).toEqual(['/rig/locker_vented', '/rig/name'])
  })

  it('stays while the mouse goes to it', async () => {
    await point(element('/rig/name'))
    await point(badge()!)
    await pause()
    expect(badge()).not.toBeNull()
    await point(document.body)
    await pause()
    expect(badge()).toBeNull()
  })

  it('is not offered to a finger that only passes', async () => {
    await point(element('/rig/name'), 'touch')
    expect(badge()).toBeNull()
  })

  it('opens with F1 in its field, names it, and closes with F1 or Escape', async () => {
    const name = element('/rig/name')
    name.focus()
    const event = await press(name, 'F1')
    expect(event.defaultPrevented).toBe(true)
    expect(card()!.textContent).toContain('Name')
    expect(card()!.textContent).toContain('What /rig/name is.')
    expect(card()!.textContent).toMatch(/Where to find it\s*On its label\./)
    expect(card()!.textContent).toMatch(/If you do not know\s*Leave it empty\./)
    expect(document.activeElement).toBe(name)
    await press(name, 'F1')
    expect(card()).toBeNull()
    await press(name, 'F1')
    await press(name, 'Escape')
    expect(card()).toBeNull()
  })

  it('leaves F1 to the browser where there is no field', async () => {
    const event = await press(document.querySelector('#elsewhere')!, 'F1')
    expect(event.defaultPrevented).toBe(false)
    expect(asked()).toEqual([])
  })

  it('is there for the fields of tools too', async () => {
    await press(element('/tool/charge/amps'), 'F1')
    expect(asked()).toEqual(['/tool/charge/amps'])
    expect(card()!.textContent).toContain('Measured')
  })

  it('shows nothing where the server has none', async () => {
    fake.next.push({ status: 404, body: { problems: [{ path: '', message: 'None.' }] } })
    await press(element('/rig/name'), 'F1')
    expect(card()).toBeNull()
  })
})
