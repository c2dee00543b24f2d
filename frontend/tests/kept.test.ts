import KeptDialog from '@/stops/harbor/KeptDialog.vue'
import { useKept } from '@/stops/harbor/useKept'
import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { FakeServer, pick, server, settle } from './fakeServer'

let fake: FakeServer
const kept = {
  file: '/home/me/harbor.sqlite3',
  copies: [
    { name: 'harbor-2026-11-26.sqlite3', at: '2026-11-26T08:00', rigs: 4 },
    { name: 'harbor-2026-11-25.sqlite3', at: '2026-11-25T08:00', rigs: null },
  ],
  deleted: [{ id: 3, name: 'Wren', at: '2026-11-26T09:00:00.000+00:00' }],
}

beforeEach(() => {
  fake = server.current = new FakeServer()
  fake.others['GET /api/kept'] = () => structuredClone(kept)
})

describe('what is kept', () => {
  it('is put back from a copy by its name, and looked at again', async () => {
    fake.others['POST /api/kept/restore'] = () => ({ rigs: 4, kept: 'before' })
    const restored = vi.fn()
    const { load, putCopy, problem } = useKept(restored)
    await load()
    await putCopy('harbor-2026-11-26.sqlite3')
    expect(fake.asked.map((a) => a.path)).toEqual(['/api/kept', '/api/kept/restore', '/api/kept'])
    expect(fake.asked[1]!.body).toEqual({ name: 'harbor-2026-11-26.sqlite3' })
    expect(restored).toHaveBeenCalledWith(4)
    expect(problem.value).toBe('')
  })

  it('stays as it is where a file is refused, which is said', async () => {
    const restored = vi.fn()
    const { load, putFile, problem, busy } = useKept(restored)
    await load()
    const problems = [{ path: '', message: 'This file is damaged.', interpretations: [] }]
    fake.next = [{ status: 422, body: { problems } }]
    await putFile(new File(['{}'], 'all.sqlite3'))
    expect([problem.value, busy.value]).toEqual(['This file is damaged.', false])
    fake.next = ['unreachable']
    await putFile(new File(['{}'], 'all.sqlite3'))
    expect(problem.value).toContain('does not answer')
    expect(restored).not.toHaveBeenCalled()
  })

  it('says so where it cannot be looked at', async () => {
    fake.next = ['unreachable']
    const { load, kept, problem } = useKept(vi.fn())
    await load()
    expect([kept.value, problem.value]).toEqual([null, expect.stringContaining('does not answer')])
  })
})

describe('the dialog of what is kept', () => {
  const open = async () => {
    document.body.innerHTML = ''
    const made = mount(KeptDialog, {
      props: { open: true, rigs: 5 },
      attachTo: document.body,
    })
    await settle()
    await flushPromises()
    return made
  }
  const dialog = () => document.querySelector('[data-kept]')!
  const button = (text: string) =>
    [...dialog().querySelectorAll('button')].find((b) => b.textContent!.trim() === text)!

  it('asks before it puts anything in place of what is there', async () => {
    fake.others['POST /api/kept/restore'] = () => ({ rigs: 4, kept: 'before' })
    const made = await open()
    button('Restore').click()
    await settle()
    const confirm = () => dialog().querySelector('[data-confirm]')
    expect(confirm()!.textContent).toContain('replaces everything here (5 rigs)')
    button('Cancel').click()
    await settle()
    expect(confirm()).toBeNull()
    expect(fake.asked.map((a) => a.method)).toEqual(['GET'])
    pick(dialog().querySelector('input[type=file]')!, new File(['{}'], 'all.sqlite3'))
    await settle()
    expect(confirm()!.textContent).toContain('all.sqlite3')
    made.unmount()
  })

  it('offers no copy that cannot be read, and gives deleted rigs to be brought back', async () => {
    const made = await open()
    const restores = [...dialog().querySelectorAll('li button')].filter(
      (b) => b.textContent!.trim() === 'Restore',
    ) as HTMLButtonElement[]
    expect(restores.map((b) => b.disabled)).toEqual([false, true, false])
    restores.at(-1)!.click()
    await settle()
    expect(made.emitted('bringBack')).toEqual([[3]])
    expect(dialog().querySelector('[data-deleted]')!.textContent).toContain('None.')
    made.unmount()
  })
})
