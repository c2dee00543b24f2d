import { usePlan } from '@/stores/plan'
import { useUi } from '@/stores/ui'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { FakeServer, server, settle, view } from './fakeServer'

let fake: FakeServer
let plan: ReturnType<typeof usePlan>

async function openRig() {
  await plan.open(7)
  await settle()
}

beforeEach(async () => {
  fake = server.current = new FakeServer()
  setActivePinia(createPinia())
  plan = usePlan()
  await openRig()
})

const toasts = () => useUi().toasts.map((t) => t.text)

describe('the rig that is open', () => {
  it('tells the version that it has with every request, and the stop that is open', async () => {
    await plan.toStop('day')
    await plan.type('/rig/name', 'Heron', 'name')
    const [first, second, edit] = fake.asked
    expect(first!.query.get('have')).toBe('')
    expect([second!.query.get('stop'), second!.query.get('have')]).toEqual(['day', 'v1'])
    expect([edit!.body.stop, edit!.body.have, edit!.body.revision]).toEqual(['day', 'v2', 1])
    expect(plan.rig!.fields['/rig/name']).toBe('Heron')
    expect(plan.rig!.revision).toBe(2)
  })

  it('keeps the parts of a stop until those of the next are there', async () => {
    fake.held = []
    const going = plan.toStop('need')
    await settle()
    expect(plan.rig!.stop).toBe('rig')
    await fake.release()
    await going
    expect(plan.rig!.stop).toBe('need')
  })

  it('asks only once when the stop is open already', async () => {
    await plan.toStop('rig')
    expect(fake.asked.length).toBe(1)
  })

  it('says so where the rig is not there', async () => {
    fake.next = [{ status: 404, body: { problems: [{ path: '', message: 'No such rig.' }] } }]
    await plan.open(99)
    expect(plan.missing).toBe(true)
    expect(toasts()).toEqual([])
  })
})

describe('typing', () => {
  it('shows what is typed at once and drops the draft when it is stored', async () => {
    fake.held = []
    const stored = plan.type('/rig/name', 'Heron', 'name')
    expect(plan.drafts['/rig/name']!.text).toBe('Heron')
    await settle()
    await fake.release()
    await stored
    expect(plan.drafts).toEqual({})
    expect(plan.rig!.fields['/rig/name']).toBe('Heron')
  })

  it('keeps the draft where more was typed meanwhile', async () => {
    fake.held = []
    plan.type('/rig/name', 'H', 'name')
    await settle()
    plan.type('/rig/name', 'He', 'name')
    await fake.release()
    expect(plan.drafts['/rig/name']!.text).toBe('He')
    await fake.release()
    expect(plan.drafts).toEqual({})
    expect(fake.edits().map((e) => (e.operations as { value: string }[])[0]!.value)).toEqual([
      'H',
      'He',
    ])
  })

  it('speaks of a wrong value only after a pause, and keeps it', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
    const problem = { path: '/rig/name', message: 'A name is needed.', interpretations: [] }
    fake.next = [{ status: 422, body: { problems: [problem] } }]
    await plan.type('/rig/name', ' ', 'name')
    expect(plan.drafts['/rig/name']).toEqual({ text: ' ', message: '' })
    vi.advanceTimersByTime(700)
    expect(plan.drafts['/rig/name']!.message).toBe('A name is needed.')
    expect(plan.rig!.fields['/rig/name']).toBe('Wren')
  })

  it('says nothing of a wrong value that was passed through', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
    fake.next = [{ status: 422, body: { problems: [{ path: '/rig/name', message: 'No.' }] } }]
    await plan.type('/rig/name', ' ', 'name')
    await plan.type('/rig/name', ' Heron', 'name')
    vi.advanceTimersByTime(700)
    expect(plan.drafts).toEqual({})
  })

  it('keeps what could not be sent, says so, and sends it after a reload', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
    fake.next = ['unreachable', 'unreachable']
    await plan.type('/rig/name', 'Heron', 'name')
    await vi.advanceTimersByTimeAsync(700)
    expect(plan.drafts['/rig/name']!.message).toContain('does not answer')
    expect(plan.unsent).toBe(1)
    vi.useRealTimers()
    setActivePinia(createPinia())
    plan = usePlan()
    await openRig()
    await plan.settled()
    const sent = fake.edits()
    expect(sent.length).toBe(3)
    expect(new Set(sent.map((e) => e.key)).size, 'the server does it once').toBe(1)
    expect(plan.rig!.fields['/rig/name']).toBe('Heron')
    expect(plan.drafts).toEqual({})
  })

  it('adds an override and replaces any other value', async () => {
    await plan.type('/plan/overrides/nights', '3', 'nights')
    await plan.type('/rig/name', 'Heron', 'name')
    const ops = fake.edits().map((e) => (e.operations as { op: string }[])[0]!.op)
    expect(ops).toEqual(['add', 'replace'])
  })

  it('enters what was meant as one edit and gives the draft up', async () => {
    fake.next = [
      { status: 422, body: { problems: [{ path: '/day/standby_w', message: 'Which?' }] } },
    ]
    await plan.type('/day/standby_w', '48 Wh', 'standby')
    const operations = [{ op: 'replace' as const, path: '/day/standby_w', value: 2 }]
    await plan.mean('/day/standby_w', { label: '2 W', operations })
    expect(plan.drafts).toEqual({})
    expect(fake.edits().at(-1)).toMatchObject({ label: 'read as 2 W', operations, field: '' })
  })
})

describe('what waits to be stored', () => {
  const choice = (value: string) => plan.edit('name', { op: 'replace', path: '/rig/name', value })

  it('shows choices as they will be, and as they were where they are refused in the end', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
    fake.next = ['unreachable']
    await choice('Heron')
    expect(plan.document.rig.name).toBe('Heron')
    // A row that is added is shown when it is there; what it does not touch stays as it is.
    await plan.edit('load', { op: 'add', path: '/day/loads/-', value: { id: 'a' } })
    expect([plan.document.rig.name, plan.document.day.loads.length]).toEqual(['Heron', 0])
    fake.next = [{ status: 422, body: { problems: [{ path: '/rig/name', message: 'No.' }] } }]
    await vi.advanceTimersByTimeAsync(700)
    expect(plan.unsent).toBe(0)
    expect(plan.document.rig.name).toBe('Wren')
  })

  it('tells what the program says of its disk, and what of a program that says nothing', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
    const full = { status: 507, body: { problems: [{ path: '', message: 'The disk is full.' }] } }
    fake.next = [full, 'unreachable']
    await choice('Heron')
    expect([plan.unsent, plan.troubled]).toEqual([1, 'The disk is full.'])
    await vi.advanceTimersByTimeAsync(600)
    expect([plan.unsent, plan.troubled]).toEqual([1, ''])
    await vi.advanceTimersByTimeAsync(1100)
    expect(plan.unsent).toBe(0)
  })

  it('copies a rig with what was changed of it before', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
    fake.next = ['unreachable']
    fake.others['POST /api/rigs/7/copy'] = () => ({ id: 8, name: 'Heron, copy' })
    await choice('Heron')
    const made = vi.fn()
    const wanted = { make: 'copy' as const, rig: 7, label: 'copy', body: '' }
    await plan.makeRig(wanted, { made, refused: vi.fn() })
    // Undo takes back the edit, and leaves the copy.
    await choice('Tern')
    await plan.step('undo')
    expect([plan.unsent, plan.unmade.length]).toEqual([2, 1])
    await vi.advanceTimersByTimeAsync(700)
    const sent = fake.asked.filter((a) => a.method !== 'GET').map((a) => a.method)
    expect(sent).toEqual(['PATCH', 'PATCH', 'POST'])
    expect(made).toHaveBeenCalledWith({ id: 8, name: 'Heron, copy' })
  })
})

describe('steps and rows', () => {
  it('tells why a choice was refused, and forgets it with the next that is taken', async () => {
    const problem = { path: '/rig/kind', message: 'There is no such kind.' }
    fake.next = [{ status: 422, body: { problems: [problem] } }]
    await plan.edit('kind', { op: 'replace', path: '/rig/kind', value: 'raft' })
    expect(plan.refused?.message).toBe('There is no such kind.')
    expect(toasts()).toEqual([])
    await plan.edit('kind', { op: 'replace', path: '/rig/kind', value: 'boat' })
    expect(plan.refused).toBeNull()
  })

  it('says aloud what was refused elsewhere than at the choice', async () => {
    fake.next = [
      { status: 422, body: { problems: [{ path: '/candidates', message: 'Eight at most.' }] } },
    ]
    await plan.edit('add', { op: 'add', path: '/candidates/-', value: {} })
    expect(toasts()).toEqual(['Eight at most.'])
  })

  const rows = (...ids: string[]) => ({
    rig: { name: 'Wren' },
    day: { loads: ids.map((id) => ({ id, draw: '1 W' })) },
    candidates: [],
  })
  const changed = { problems: [{ path: '', message: 'Changed in another window.' }] }

  it('types into the row that was meant where another window removed one above it', async () => {
    fake.shown = view({ document: rows('tv', 'heater') })
    await openRig()
    fake.next = [{ status: 409, body: changed }]
    fake.shown = view({ revision: 5, document: rows('heater') })
    await plan.type('/day/loads/1/draw', '35 W', 'Draw')
    const sent = fake
      .edits()
      .map((e) => (e.operations as { op: string; path: string }[]).at(-1)!.path)
    expect(sent).toEqual(['/day/loads/1/draw', '/day/loads/0/draw'])
    expect(fake.asked.at(-1)!.body.operations).toContainEqual({
      op: 'test',
      path: '/day/loads/0/id',
      value: 'heater',
    })
    expect(plan.drafts).toEqual({})
  })

  it('drops what was typed into a row that is gone, with its text in the message', async () => {
    fake.shown = view({ document: rows('tv', 'heater') })
    await openRig()
    fake.next = [{ status: 409, body: changed }]
    fake.shown = view({ revision: 5, document: rows('tv') })
    await plan.type('/day/loads/1/draw', '35 W', 'Draw of the heater')
    expect(fake.edits().length).toBe(1)
    expect(toasts().at(-1)).toContain('“Draw of the heater” was not saved')
    expect(toasts().at(-1)).toContain('“35 W”')
    expect(plan.drafts).toEqual({})
    await openRig()
    expect(fake.edits().length, 'nor is it sent again').toBe(1)
  })

  it('gives up where the rig changes under it again and again', async () => {
    fake.next = Array.from({ length: 9 }, () => ({ status: 409, body: changed }))
    // Every other answer is the rig as it stands.
    const whole = fake.answer.bind(fake)
    fake.answer = (asked) => {
      if (asked.method === 'GET') {
        const kept = fake.next
        fake.next = []
        return whole(asked).finally(() => (fake.next = kept))
      }
      return whole(asked)
    }
    await plan.type('/rig/name', 'Heron', 'name')
    expect(fake.edits().length).toBe(3)
    expect(toasts().at(-1)).toContain('is being changed in another window')
  })

  it('loads the rig again where another window changed it', async () => {
    const problem = { path: '', message: 'Changed in another window.' }
    fake.shown = view({ revision: 9, fields: { '/rig/name': 'Other' } })
    fake.next = [{ status: 409, body: { problems: [problem] } }]
    await plan.edit('kind', { op: 'replace', path: '/rig/kind', value: 'boat' })
    expect(toasts()).toEqual(['Changed in another window.'])
    // And the choice is made again, against the rig as it is now.
    expect(fake.edits().map((e) => e.revision)).toEqual([1, 9])
    expect(plan.rig!.fields['/rig/name']).toBe('Other')
  })

  it('undoes nothing where there is nothing, and drops drafts where there is', async () => {
    await plan.step('undo')
    expect(fake.asked.length).toBe(1)
    await plan.type('/rig/name', 'Heron', 'name')
    fake.next = ['unreachable']
    await plan.edit('kind', { op: 'replace', path: '/rig/kind', value: 'boat' })
    await plan.type('/rig/years_kept', '12', 'years')
    expect(plan.drafts['/rig/years_kept']!.text).toBe('12')
    expect(plan.unsent).toBe(2)
    const steps = plan.steps
    // What is not stored yet goes first, and nothing else.
    await plan.step('undo')
    expect(plan.drafts).toEqual({})
    expect(plan.steps).toBe(steps + 1)
    expect(toasts()).toEqual(['Undone before it was saved: years'])
    // Of what was sent nobody knows whether it is stored: it is undone with the answer.
    await plan.step('undo')
    expect(plan.unsent).toBe(1)
    expect(toasts().at(-1)).toBe('To be undone when the program answers: kind')
    await plan.step('undo')
    expect(toasts().at(-1)).toContain('does not answer')
    fake.others['POST /api/rigs/7/undo'] = () => ({
      version: 'u',
      revision: 3,
      did: 'name',
      whole: { ...fake.shown, revision: 3 },
    })
    await plan.sendAgain()
    expect(fake.asked.at(-1)!.path).toBe('/api/rigs/7/undo')
    expect(fake.asked.at(-1)!.body).toEqual({ revision: 3 })
    expect(plan.unsent).toBe(0)
    fake.shown = { ...fake.shown, undo: 'name' }
    await plan.open(7)
    await plan.step('undo')
    expect(fake.asked.at(-1)!.body).toEqual({ revision: 3 })
    expect(toasts().at(-1)).toBe('Undone: name')
  })
})

describe('what takes long', () => {
  it('is fetched when the hand rests, and not before', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
    fake.shown = view({ stale: true })
    await openRig()
    await plan.type('/rig/name', 'H', 'name')
    await settle()
    vi.advanceTimersByTime(200)
    await plan.type('/rig/name', 'He', 'name')
    await settle()
    const gets = () => fake.asked.filter((a) => a.method === 'GET').length
    const before = gets()
    vi.advanceTimersByTime(200)
    await settle()
    expect(gets()).toBe(before)
    fake.shown = { ...fake.shown, stale: false }
    vi.advanceTimersByTime(200)
    await settle()
    expect(gets()).toBe(before + 1)
    expect(plan.rig!.stale).toBe(false)
  })

  it('does not overwrite what was edited while it was on its way', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
    fake.shown = view({ stale: true })
    await openRig()
    await plan.type('/rig/name', 'H', 'name')
    await settle()
    fake.held = []
    vi.advanceTimersByTime(400)
    await settle()
    plan.type('/rig/name', 'He', 'name')
    await settle()
    // The edit is answered first, then the older question.
    const [question, edit] = fake.held
    edit!()
    await settle()
    question!()
    await settle()
    expect(plan.rig!.fields['/rig/name']).toBe('He')
    expect(plan.rig!.revision).toBe(3)
  })
})

describe('answers that cross', () => {
  beforeEach(() => vi.useFakeTimers())

  /** An edit after which trial and year are those of before, and the asking anew that follows it. */
  async function editAndRest() {
    fake.shown = view({ revision: 1, stale: true })
    await plan.open(7)
    await plan.type('/rig/name', 'Heron', 'name')
    fake.held = []
    await vi.advanceTimersByTimeAsync(1000)
    expect(fake.held.length, 'it asks anew').toBe(1)
  }

  it('leaves what is asked anew aside when an edit has been sent meanwhile', async () => {
    await editAndRest()
    const typed = plan.type('/rig/name', 'Teal', 'name')
    await settle()
    fake.shown = { ...fake.shown, stale: false }
    await fake.release()
    expect(plan.rig!.stale, 'the edit is answered by what differs from this view').toBe(true)
    await fake.release()
    await typed
    expect(plan.rig!.fields['/rig/name']).toBe('Teal')
    expect(plan.rig!.undo).toBe('name')
  })

  it('takes nothing that was asked before an edit that is shown already', async () => {
    await editAndRest()
    const typed = plan.type('/rig/name', 'Teal', 'name')
    await settle()
    const [asking, edit] = fake.held!
    edit!()
    await typed
    const revision = plan.rig!.revision
    asking!()
    await settle()
    expect(plan.rig!.fields['/rig/name']).toBe('Teal')
    expect(plan.rig!.revision).toBe(revision)
  })

  it('asks for the whole where an answer differs from a view that is no longer shown', async () => {
    fake.held = []
    const typed = plan.type('/rig/name', 'Teal', 'name')
    await settle()
    // The rig is opened anew, as after a change in another window, before the edit is answered.
    const opened = plan.open(7)
    await settle()
    const [edit, opening] = fake.held
    opening!()
    await opened
    edit!()
    await settle()
    const last = fake.asked.at(-1)!
    expect([last.method, last.query.get('have')]).toEqual(['GET', ''])
    fake.held!.at(-1)!()
    await typed
    expect(plan.rig!.fields['/rig/name']).toBe('Teal')
  })

  it('lets an answer go by while another rig is being opened', async () => {
    fake.held = []
    const typed = plan.type('/rig/name', 'Teal', 'name')
    await settle()
    const opened = plan.open(8)
    await settle()
    fake.held[0]!()
    await typed
    expect(plan.rig).toBeNull()
    expect(toasts()).toEqual([])
    fake.held[1]!()
    await opened
    expect(plan.rig).not.toBeNull()
  })
})
