import { router } from '@/router'
import { useUi } from '@/stores/ui'
import NewRig from '@/stops/harbor/NewRig.vue'
import { useHarbor } from '@/stops/harbor/useHarbor'
import CsvImport from '@/ui/CsvImport.vue'
import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { FakeServer, pick, server, settle } from './fakeServer'

let fake: FakeServer
const wanted = { name: 'Tern', kind: 'boat', pattern: '', region: 'maritime' }

beforeEach(() => {
  fake = server.current = new FakeServer()
  fake.others['GET /api/rigs'] = () => ({ rigs: [{ id: 1, name: 'Wren' }] })
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
    expect(fake.asked[0]!.body).toEqual({ ...wanted, units: '', currency: '' })
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

  it('copies a rig and shows it', async () => {
    fake.others['POST /api/rigs/1/copy'] = () => ({ id: 2, name: 'Wren, copy' })
    await useHarbor().copy(1)
    expect(asked()).toEqual(['POST /api/rigs/1/copy', 'GET /api/rigs'])
    expect(useUi().toasts[0]!.text).toBe('Wren, copy made.')
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

  it('does not send a file that cannot be a rig', async () => {
    const harbor = useHarbor()
    const film = new File(['x'], 'film.mp4')
    Object.defineProperty(film, 'size', { value: 31_000_000 })
    await harbor.bring(film)
    expect(harbor.problems.value[0]).toContain('film.mp4 has 31 MB')
    expect(fake.asked).toEqual([])
  })
})

describe('the form of a new rig', () => {
  it('sends what was filled in', async () => {
    const made = mount(NewRig)
    await made.get('#new-name').setValue('Tern')
    await made.get('#new-kind').setValue('boat')
    await made.get('form').trigger('submit')
    expect(made.emitted('make')).toEqual([[{ ...wanted, region: '' }]])
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
