import { router } from '@/router'
import { usePlan } from '@/stores/plan'
import { useUi } from '@/stores/ui'
import RigCard from '@/stops/harbor/RigCard.vue'
import NewRig from '@/stops/harbor/NewRig.vue'
import { useHarbor, type NewRigFields } from '@/stops/harbor/useHarbor'
import CsvImport from '@/ui/CsvImport.vue'
import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { FakeServer, pick, server, settle } from './fakeServer'

let fake: FakeServer
const figures = (text: string) => ({
  strip: [
    { stop: 'rig', figure: '60 nights', attention: '' },
    { stop: 'need', figure: text, attention: 'caution' },
  ],
  result: [{ text: `${text}.`, key: null }],
  worst: 'caution',
  checks: [
    { stop: 'banks', name: 'Fuse' },
    { stop: 'banks', name: 'Cable' },
    { stop: 'trial', name: '' },
  ],
})
const card = (id: number, name: string, known: object | null) => ({
  id,
  name,
  kind: 'van',
  notes: '',
  figures: known,
  fresh: known !== null,
})
const wanted: NewRigFields = {
  name: 'Tern',
  kind: 'boat',
  pattern: '',
  region: 'maritime',
  sources: [],
}

beforeEach(() => {
  fake = server.current = new FakeServer()
  fake.others['GET /api/rigs'] = () => ({ rigs: [card(1, 'Wren', figures('worked out'))] })
  setActivePinia(createPinia())
  vi.spyOn(router, 'push').mockClear().mockResolvedValue(undefined)
})

const asked = () => fake.asked.map((a) => `${a.method} ${a.path}`)

describe('the harbor', () => {
  it('keeps the cards that it has when the program no longer answers, and says so', async () => {
    const harbor = useHarbor()
    await harbor.load()
    fake.next = ['unreachable']
    await harbor.load()
    expect(harbor.cards.value!.map((c) => c.name)).toEqual(['Wren'])
    expect(harbor.problems.value[0]).toContain('does not answer')
  })

  it('makes a rig and opens it', async () => {
    fake.others['POST /api/rigs'] = () => ({ id: 9, name: 'Tern' })
    await useHarbor().make(wanted)
    expect(fake.asked[0]!.body).toEqual({ ...wanted, units: '', currency: '', guide: '' })
    expect(router.push).toHaveBeenCalledWith({ name: 'rig', params: { id: 9, stop: 'rig' } })
  })

  it('says why a rig cannot be made, and opens none', async () => {
    const harbor = useHarbor()
    const problems = [{ path: '/name', message: 'A rig needs a name.', interpretations: [] }]
    fake.next = [{ status: 422, body: { problems } }]
    await harbor.make(wanted)
    expect(harbor.problems.value).toEqual(['A rig needs a name.'])
    expect(router.push).not.toHaveBeenCalled()
  })

  it('keeps a rig that nobody answers for, and makes it once when somebody does', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
    const problems = [{ path: '', message: 'The disk is full.' }]
    fake.next = ['unreachable', { status: 507, body: { problems } }]
    fake.others['POST /api/rigs'] = () => ({ id: 9, name: 'Tern' })
    await useHarbor().make(wanted)
    const plan = usePlan()
    expect(plan.unmade.map((r) => r.label)).toEqual(['Tern'])
    await vi.advanceTimersByTimeAsync(600)
    expect(Object.values(plan.whyUnmade)).toEqual(['The disk is full.'])
    expect(router.push).not.toHaveBeenCalled()
    await vi.advanceTimersByTimeAsync(1100)
    expect(plan.unmade).toEqual([])
    expect(router.push).toHaveBeenCalledWith({ name: 'rig', params: { id: 9, stop: 'rig' } })
    const keys = fake.asked.map((a) => a.query.get('key'))
    expect(keys).toEqual([keys[0], keys[0], keys[0]])
    vi.useRealTimers()
  })

  it('makes what waits after a reload, and drops what is not wanted any more', async () => {
    fake.next = ['unreachable']
    await useHarbor().make(wanted)
    await useHarbor().copy(1)
    const plan = usePlan()
    expect(plan.unmade.map((r) => r.make)).toEqual(['new', 'copy'])
    plan.dropUnmade(plan.unmade[1]!.key)
    fake.others['POST /api/rigs'] = () => ({ id: 9, name: 'Tern' })
    setActivePinia(createPinia())
    await usePlan().settled()
    await settle()
    expect(asked()).toEqual(['POST /api/rigs', 'POST /api/rigs'])
    // Nobody waits for it on this page: it is told.
    expect(useUi().toasts.map((t) => t.text)).toEqual(['Tern created.'])
  })

  it('finds rigs as they are searched, page by page', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
    const harbor = useHarbor()
    fake.others['GET /api/rigs'] = ({ query }) => ({
      rigs: query.get('page') === '2' ? [] : [card(1, query.get('search')!, figures('x'))],
      found: 25,
      all: 30,
      pages: 2,
    })
    await harbor.load()
    harbor.search.value = 'w'
    harbor.search.value = 'wren'
    await vi.advanceTimersByTimeAsync(300)
    expect(harbor.cards.value!.map((c) => c.name)).toEqual(['wren'])
    expect(fake.asked.map((a) => a.query.get('search'))).toEqual(['', 'wren'])
    // A page that has no cards any more gives way to the one before it.
    harbor.turn(2)
    await settle()
    expect([harbor.page.value, harbor.cards.value!.length]).toEqual([1, 1])
    vi.useRealTimers()
  })

  it('copies a rig and shows it', async () => {
    fake.others['POST /api/rigs/1/copy'] = () => ({ id: 2, name: 'Wren, copy' })
    await useHarbor().copy(1)
    expect(asked()).toEqual(['POST /api/rigs/1/copy', 'GET /api/rigs'])
    expect(useUi().toasts[0]!.text).toBe('Wren, copy created.')
  })

  it('deletes a rig so that it can be brought back', async () => {
    fake.others['DELETE /api/rigs/1'] = () => ({ name: 'Wren' })
    fake.others['POST /api/rigs/1/restore'] = () => ({})
    await useHarbor().remove(1)
    const { text, action } = useUi().toasts[0]!
    expect(text).toBe('Wren deleted.')
    await action!.run()
    expect(asked().slice(-2)).toEqual(['POST /api/rigs/1/restore', 'GET /api/rigs'])
  })

  it('says nothing of a delete that failed', async () => {
    fake.next = [{ status: 404, body: { problems: [] } }]
    await useHarbor().remove(5)
    expect(useUi().toasts).toEqual([])
  })

  it('imports a rig file, or names the places that are wrong in it', async () => {
    const harbor = useHarbor()
    fake.others['POST /api/rigs/import'] = ({ body }) => ({ name: body.name })
    await harbor.bring(new File(['{"name": "Heron"}'], 'heron.json'))
    expect(useUi().toasts[0]!.text).toBe('Heron imported.')
    const problems = [
      { path: '/rig/system_v', message: 'A system has 12, 24, 36 or 48 V.' },
      { path: '', message: 'It has no loads.' },
    ]
    fake.next = [{ status: 422, body: { problems } }]
    await harbor.bring(new File(['{}'], 'x.json'))
    expect(harbor.problems.value).toEqual([
      '/rig/system_v: A system has 12, 24, 36 or 48 V.',
      'It has no loads.',
    ])
  })

  it('takes a rig with its log from a ZIP, and says why it cannot', async () => {
    const harbor = useHarbor()
    fake.others['POST /api/rigs/import-archive'] = () => ({ id: 7, name: 'Heron' })
    await harbor.bring(new File(['PK'], 'Heron.ZIP'))
    expect(useUi().toasts.map((t) => t.text)).toContain('Heron imported.')
    fake.next = [{ status: 422, body: { problems: [{ path: '', message: 'It climbs.' }] } }]
    await harbor.bring(new File(['PK'], 'heron.zip'))
    expect(harbor.problems.value).toEqual(['It climbs.'])
  })

  it('does not send a file that cannot be a rig', async () => {
    const harbor = useHarbor()
    const film = new File(['x'], 'film.mp4')
    Object.defineProperty(film, 'size', { value: 31_000_000 })
    await harbor.bring(film)
    expect(harbor.problems.value[0]).toContain('film.mp4 has 31 MB')
    expect(fake.asked).toEqual([])
  })
})

describe('cards', () => {
  const harbor = async (...cards: object[]) => {
    fake.others['GET /api/rigs'] = () => ({ rigs: cards })
    const made = useHarbor()
    await made.load()
    return made
  }
  const shown = (made: ReturnType<typeof useHarbor>) =>
    made.cards.value!.map((c) => c.figures?.result[0]!.text ?? null)

  it('are there at once; their figures follow, those that are known are not asked for', async () => {
    for (const id of [1, 3])
      fake.others[`GET /api/rigs/${id}/card`] = () => figures(`figures of ${id}`)
    const known = card(2, 'Tern', figures('known'))
    const made = await harbor(card(1, 'Wren', null), known, card(3, 'Heron', null))
    expect(shown(made)).toEqual([null, 'known.', null])
    await settle()
    expect(shown(made)).toEqual(['figures of 1.', 'known.', 'figures of 3.'])
    expect(asked()).toEqual(['GET /api/rigs', 'GET /api/rigs/1/card', 'GET /api/rigs/3/card'])
  })

  it('say so where the figures of one cannot be had, and go on with the next', async () => {
    fake.others['GET /api/rigs/3/card'] = () => figures('three')
    const problems = [{ path: '/rig/years_kept', message: '900 years are too many.' }]
    const made = useHarbor()
    fake.others['GET /api/rigs'] = () => {
      fake.next = [{ status: 422, body: { problems } }]
      return { rigs: [card(1, 'Wren', null), card(3, 'Heron', null)] }
    }
    await made.load()
    await settle()
    expect(shown(made)).toEqual(['It cannot be opened. 900 years are too many.', 'three.'])
  })

  it('say nothing of rigs that were never seen, and ask again by themselves', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
    const made = useHarbor()
    const problems = [{ path: '', message: 'The disk is full.' }]
    fake.next = ['unreachable', { status: 503, body: { problems } }]
    await made.load()
    expect([made.cards.value, made.problems.value[0]]).toEqual([
      null,
      expect.stringContaining('does not answer'),
    ])
    await vi.advanceTimersByTimeAsync(3100)
    expect(made.problems.value[0]).toBe('Your rigs could not be read. The disk is full.')
    await vi.advanceTimersByTimeAsync(3100)
    expect([made.cards.value!.length, made.problems.value]).toEqual([1, []])
    vi.useRealTimers()
  })

  it('do not get the figures that were asked for before they were loaded again', async () => {
    let answers = 0
    fake.others['GET /api/rigs/1/card'] = () => figures(`answer ${++answers}`)
    fake.held = []
    const made = useHarbor()
    fake.others['GET /api/rigs'] = () => ({ rigs: [card(1, 'Wren', null)] })
    void made.load()
    await settle()
    await fake.release()
    // The card is asked for; before it is answered the harbor is loaded again, and that answer comes first.
    void made.load()
    await settle()
    expect(fake.held).toHaveLength(2)
    fake.held.splice(1, 1)[0]!()
    await settle()
    await fake.release()
    expect(shown(made)).toEqual([null])
    await fake.release()
    expect(shown(made)).toEqual(['answer 2.'])
  })

  it('show the worst mark of their stops, and that they are being worked out', () => {
    const global = { stubs: { RouterLink: { template: '<a><slot /></a>' } } }
    const ready = mount(RigCard, {
      props: { card: card(1, 'Wren', figures('x')) as never },
      global,
    })
    expect(ready.text()).toContain('60 nights')
    expect(ready.attributes('aria-busy')).toBe('false')
    expect(ready.findComponent({ name: 'SeverityMark' }).props('severity')).toBe('caution')
    expect(ready.get('[data-worst]').text()).toContain('Fuse, Cable and 1 more')
    const busy = mount(RigCard, { props: { card: card(1, 'Wren', null) as never }, global })
    expect(busy.text()).toContain('Calculating')
    expect(busy.attributes('aria-busy')).toBe('true')
  })
})

describe('the form of a new rig', () => {
  it('sends what was filled in', async () => {
    const made = mount(NewRig)
    await made.get('#new-name').setValue('Tern')
    await made.get('#new-kind').setValue('boat')
    await made.get('form').trigger('submit')
    expect(made.emitted('make')).toEqual([[{ ...wanted, region: '', sources: [] }]])
  })

  it('takes a rig file, the same one twice too', async () => {
    const made = mount(NewRig)
    const input = made.get('input[type=file]').element as HTMLInputElement
    const file = new File(['{}'], 'a.json')
    pick(input, file)
    expect(input.value).toBe('')
    pick(input, file)
    expect(made.emitted('bring')).toEqual([[file], [file]])
  })
})

describe('a CSV file of rows', () => {
  const rows = [
    { line: 2, name: 'Kettle', problems: [] },
    { line: 3, name: '', problems: ['It has no watts.'] },
    { line: 4, name: 'Pump', problems: [] },
  ]
  const open = async (answer: object, status = 200) => {
    document.body.innerHTML = ''
    const props = { one: 'load', many: 'loads', url: '/api/loads/csv' }
    const made = mount(CsvImport, { props, attachTo: document.body })
    fake.next = [{ status, body: answer as Record<string, unknown> }]
    pick(made.get('input').element, new File(['{}'], 'loads.csv'))
    await flushPromises()
    await settle()
    return made
  }
  const button = (text: string) =>
    [...document.querySelectorAll('button')].find((b) => b.textContent!.includes(text))!

  it('shows each line with what is wrong with it, and takes the good ones', async () => {
    const made = await open({ rows })
    const lines = [...document.querySelectorAll('li')].map((l) => l.textContent)
    expect(lines[1]).toContain('line 3')
    expect(lines[1]).toContain('It has no watts.')
    expect(document.body.textContent).toContain('2 of 3 can be added.')
    button('Add 2 loads').click()
    await settle()
    expect(made.emitted('take')).toEqual([[[rows[0], rows[2]]]])
    expect(document.querySelector('[role=dialog]')).toBeNull()
    made.unmount()
  })

  it('has nothing to add where every line is wrong', async () => {
    const made = await open({ rows: [rows[1]] })
    expect(button('Add 0 loads').disabled).toBe(true)
    made.unmount()
  })

  it('says what is wrong with the file as a whole', async () => {
    const problems = [{ path: '', message: 'The file has no column “watts”.' }]
    const made = await open({ problems }, 422)
    expect(made.get('[role=alert]').text()).toBe('The file has no column “watts”.')
    made.unmount()
  })
})
