import { renumbered, useDrafts, type Draft } from '@/stores/drafts'
import { describe, expect, it } from 'vitest'
import { nextTick, watchEffect } from 'vue'

const draft = (text: string): Draft => ({ text, message: '' })

describe('renumbering', () => {
  const drafts = {
    '/day/loads/0/hours': draft('first'),
    '/day/loads/1/hours': draft('second'),
    '/day/loads/2/draw': draft('third'),
    '/day/loads/10/draw': draft('eleventh'),
    '/candidates/2/unit_price': draft('a price'),
    '/rig/name': draft('a name'),
  }

  it('moves the drafts of later rows up by one and drops those of the row that is gone', () => {
    expect(renumbered(drafts, '/day/loads/1')).toEqual({
      '/day/loads/0/hours': draft('first'),
      '/day/loads/1/draw': draft('third'),
      '/day/loads/9/draw': draft('eleventh'),
      '/candidates/2/unit_price': draft('a price'),
      '/rig/name': draft('a name'),
    })
  })

  it('leaves all as they are where no row of a list is removed', () => {
    expect(renumbered(drafts, '/plan/overrides/nights')).toEqual(drafts)
    expect(renumbered(drafts, '/candidates/7')).toEqual(drafts)
  })

  it('does not take a longer name for the same list', () => {
    expect(renumbered({ '/day/loads_old/3': draft('x') }, '/day/loads/1')).toEqual({
      '/day/loads_old/3': draft('x'),
    })
  })

  it('moves nested rows with their own row only', () => {
    const nested = {
      '/candidates/1/extras/2/price': draft('p'),
      '/candidates/1/extras/0/name': draft('n'),
    }
    expect(renumbered(nested, '/candidates/1/extras/1')).toEqual({
      '/candidates/1/extras/1/price': draft('p'),
      '/candidates/1/extras/0/name': draft('n'),
    })
    expect(renumbered(nested, '/candidates/0')).toEqual({
      '/candidates/0/extras/2/price': draft('p'),
      '/candidates/0/extras/0/name': draft('n'),
    })
  })
})

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
