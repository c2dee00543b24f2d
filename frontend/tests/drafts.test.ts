import { useDrafts, type Draft } from '@/stores/drafts'
import { describe, expect, it } from 'vitest'
import { nextTick, watchEffect } from 'vue'

const draft = (text: string): Draft => ({ text, message: '' })

describe('drafts', () => {
  it('outlive a reload, each rig for itself', () => {
    const mine = useDrafts(() => 'drafts-1')
    mine.put('/rig/name', { text: 'W', message: 'Too short.' })
    const reloaded = useDrafts(() => 'drafts-1')
    reloaded.load()
    expect(reloaded.drafts).toEqual({ '/rig/name': { text: 'W', message: 'Too short.' } })
    const other = useDrafts(() => 'drafts-2')
    other.load()
    expect(other.drafts).toEqual({})
  })

  it('are gone for good when given up', () => {
    const { drafts, put, forget, clear } = useDrafts(() => 'k')
    put('/a', draft('1'))
    put('/b', draft('2'))
    forget('/a')
    expect(JSON.parse(sessionStorage.getItem('k')!)).toEqual({ '/b': draft('2') })
    clear()
    expect(drafts).toEqual({})
    expect(sessionStorage.getItem('k')).toBe('{}')
  })

  it('go along with their rows, and those of a row that is gone are handed back', () => {
    const { drafts, put, rebase } = useDrafts(() => 'k')
    put('/rows/0/a', draft('1'))
    put('/rows/1/a', draft('2'))
    put('/name', draft('3'))
    const moves: Record<string, string | null> = { '/rows/0/a': null, '/rows/1/a': '/rows/0/a' }
    expect(rebase((path) => (path in moves ? moves[path]! : path))).toEqual([draft('1')])
    expect(drafts).toEqual({ '/rows/0/a': draft('2'), '/name': draft('3') })
    expect(JSON.parse(sessionStorage.getItem('k')!)).toEqual(drafts)
  })

  it('stir only who follows their own field', async () => {
    const { drafts, put } = useDrafts(() => 'k')
    let seen = 0
    watchEffect(() => {
      void drafts['/a']
      seen++
    })
    put('/b', draft('2'))
    await nextTick()
    expect(seen).toBe(1)
    put('/a', draft('1'))
    await nextTick()
    expect(seen).toBe(2)
  })
})
