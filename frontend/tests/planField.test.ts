import { usePlan } from '@/stores/plan'
import PlanField from '@/ui/PlanField.vue'
import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import { nextTick } from 'vue'
import { FakeServer, server, settle } from './fakeServer'

let fake: FakeServer
let plan: ReturnType<typeof usePlan>

beforeEach(async () => {
  fake = server.current = new FakeServer()
  setActivePinia(createPinia())
  plan = usePlan()
  await plan.open(7)
})

const field = (props = {}) => {
  const made = mount(PlanField, { props: { path: '/rig/name', label: 'Name', ...props } })
  return { made, input: made.get('input') }
}
const value = (input: { element: Element }) => (input.element as HTMLInputElement).value

describe('a field of the rig file', () => {
  it('shows the stored value, and its label names it', () => {
    const { made, input } = field()
    expect(value(input)).toBe('Wren')
    expect(made.get('label').attributes('for')).toBe(input.attributes('id'))
    expect(input.attributes('aria-invalid')).toBeUndefined()
  })

  it('shows a default where nothing is stored', () => {
    expect(value(field({ path: '/plan/overrides/nights', fallback: '2' }).input)).toBe('2')
  })

  it('sends every keystroke as one edit of its own field', async () => {
    const { input } = field({ called: 'name of the rig' })
    await input.trigger('focus')
    await input.setValue('Heron')
    await plan.settled()
    expect(fake.edits()[0]).toMatchObject({ field: '/rig/name', label: 'name of the rig' })
    expect(value(input)).toBe('Heron')
  })

  it('keeps what is being typed while an older answer arrives', async () => {
    const { input } = field()
    await input.trigger('focus')
    fake.held = []
    await input.setValue('He')
    await settle()
    await input.setValue('Her')
    await fake.release()
    expect(value(input)).toBe('Her')
    await fake.release()
    await input.trigger('blur')
    expect(value(input)).toBe('Her')
  })

  it('tells what is wrong at its place, and Escape gives it up', async () => {
    const { made, input } = field()
    await input.trigger('focus')
    plan.drafts['/rig/name'] = { text: '?', message: 'A name has letters.' }
    await nextTick()
    expect(input.attributes('aria-invalid')).toBe('true')
    const told = made.get('[role=alert]')
    expect(told.text()).toContain('A name has letters.')
    expect(input.attributes('aria-describedby')).toBe(told.attributes('id'))
    await input.trigger('keydown.esc')
    expect(plan.drafts).toEqual({})
    expect(value(input)).toBe('Wren')
    expect(made.find('[role=alert]').exists()).toBe(false)
  })

  it('follows an undo in the field that is being typed into', async () => {
    const { input } = field()
    await input.trigger('focus')
    await input.setValue('Heron')
    await plan.settled()
    fake.shown = { ...fake.shown, fields: { '/rig/name': 'Wren' } }
    fake.next = [{ status: 200, body: { version: 'u', revision: 9, whole: fake.shown } }]
    await plan.step('undo')
    await nextTick()
    expect(value(input)).toBe('Wren')
  })
})
