import { router } from '@/router'
import { usePlan } from '@/stores/plan'
import { useReference } from '@/stores/reference'
import { useUi } from '@/stores/ui'
import CommandPalette from '@/ui/CommandPalette.vue'
import { mount, type VueWrapper } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick } from 'vue'
import { FakeServer, server, view } from './fakeServer'

let fake: FakeServer
let made: VueWrapper

beforeEach(async () => {
  fake = server.current = new FakeServer()
  fake.shown = view({
    undo: 'name of the rig',
    document: {
      rig: { name: 'Wren', units: 'metric', lead: 'wh', system_v: 12 },
      day: { loads: [], types: [{ id: 'summer', name: 'Summer' }] },
      plan: { house_rule: 'customary' },
      candidates: [],
    },
    day: { type: 'summer', index: 0, loads: [] },
    assumptions: [{ key: 'nights', name: 'Nights without charging', text: '2 nights' }],
  })
  fake.others['GET /api/reference'] = () => ({
    classes: [],
    appliances: [{ name: 'Kettle', says: '2 kW', load: { name: 'Kettle', draw: '2000 W' } }],
    rules: [
      { key: 'customary', name: 'customary school' },
      { key: 'long_life', name: 'long-life school' },
    ],
  })
  fake.others['GET /api/appliances'] = () => ({ appliances: [] })
  setActivePinia(createPinia())
  vi.spyOn(router, 'push').mockResolvedValue(undefined)
  await usePlan().open(7)
  await useReference().load()
  useUi().paletteShown = true
  made = mount(CommandPalette, { attachTo: document.body })
  await drawn()
})
afterEach(() => {
  made.unmount()
  document.body.innerHTML = ''
})

/** Let the list be drawn, which the library does in steps of its own. */
const drawn = () => new Promise((done) => setTimeout(done, 20))
const options = () => [...document.querySelectorAll('[role=option]')]
const names = () => options().map((o) => o.firstElementChild!.textContent)

async function ask(words: string) {
  const input = document.querySelector('input')!
  input.value = words
  input.dispatchEvent(new Event('input'))
  await drawn()
}

async function run(name: string) {
  useUi().paletteShown = true
  await drawn()
  await ask(name)
  options()
    .find((o) => o.textContent!.includes(name))!
    .dispatchEvent(new MouseEvent('mousedown', { bubbles: true, button: 0 }))
  // It runs after the dialog has given the focus back.
  await drawn()
  await usePlan().settled()
  await nextTick()
}

describe('the commands', () => {
  it('are found by their words, in any order', async () => {
    await ask('banks FIND')
    expect(names()).toEqual(['Find banks in the whole catalogue'])
    await ask('nothing of that kind')
    expect(document.body.textContent).toContain('Nothing found.')
  })

  it('are a dozen at most', () => {
    expect(options()).toHaveLength(12)
  })

  it('offer what can be changed only, not what holds', async () => {
    await ask('Set the system')
    expect(names()).toEqual([
      'Set the system to 24 V',
      'Set the system to 36 V',
      'Set the system to 48 V',
    ])
    await ask('Use the house rule')
    expect(names()).toEqual(['Use the house rule “long-life school”'])
    await ask('Undo')
    expect(names()).toEqual(['Undo: name of the rig'])
    await ask('Redo')
    expect(names()).toEqual([])
  })

  it('go to a stop', async () => {
    await run('Go to Charging')
    expect(router.push).toHaveBeenCalledWith({
      name: 'rig',
      params: { id: 7, stop: 'charging' },
    })
    expect(useUi().paletteShown).toBe(false)
  })

  it('change the rig as an edit that can be undone', async () => {
    await run('Show pounds and °F')
    await run('Set the system to 24 V')
    await run('Use the house rule “long-life school”')
    expect(fake.edits().map((e) => [e.label, e.operations])).toEqual([
      ['units', [{ op: 'replace', path: '/rig/units', value: 'us' }]],
      ['system voltage', [{ op: 'replace', path: '/rig/system_v', value: 24 }]],
      ['house rule', [{ op: 'replace', path: '/plan/house_rule', value: 'long_life' }]],
    ])
  })

  it('add an appliance on the day', async () => {
    await run('Add Kettle')
    expect(router.push).toHaveBeenCalledWith({ name: 'rig', params: { id: 7, stop: 'day' } })
    expect(fake.edits()[0]!.operations).toMatchObject([
      { path: '/day/loads/-', value: { name: 'Kettle', draw: '2000 W' } },
    ])
  })

  it('show the workings of an assumption and a kind of day', async () => {
    await run('Workings: Nights')
    expect(useUi().workings).toEqual(['assume.nights'])
    await run('Show the day')
    expect(usePlan().show).toBe('summer')
  })

  it('forget what was asked when they are closed', async () => {
    await run('Keyboard shortcuts')
    expect(useUi().keysShown).toBe(true)
    useUi().paletteShown = true
    await drawn()
    expect(options()).toHaveLength(12)
  })
})
