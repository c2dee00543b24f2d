/// <reference types="vite/client" />
import { parse as parseTemplate } from '@vue/compiler-dom'
import { parse as parseComponent } from '@vue/compiler-sfc'
import { describe, expect, it } from 'vitest'
import { phrase } from '@/phrases/shared'

const sources = new Map(
  Object.entries(
    import.meta.glob<string>('../src/**/*.{vue,ts}', {
      query: '?raw',
      import: 'default',
      eager: true,
    }),
  ).flatMap(([path, code]) => {
    const file = path.replace('../src/', '')
    return file.startsWith('phrases/') ? [] : [[file, code] as const]
  }),
)
const texts = new Map<string, string>(
  Object.entries(
    import.meta.glob<string>('../src/phrases/en/*.json', {
      query: '?raw',
      import: 'default',
      eager: true,
    }),
  ).flatMap(([path, code]) => {
    const area = path.split('/').pop()!.replace('.json', '')
    if (area === 'glossary') return [] // each term is shown, whatever its key
    const groups = JSON.parse(code) as Record<string, Record<string, string>>
    return Object.entries(groups).flatMap(([group, keys]) =>
      Object.entries(keys).map(([key, text]) => [`${area}.${group}.${key}`, text] as const),
    )
  }),
)

/** What stands between a bracket and the one that closes it. */
function inBrackets(code: string, from: number): string {
  let depth = 1
  let at = from
  while (depth && at < code.length) depth += { '(': 1, ')': -1 }[code[at++]!] ?? 0
  return code.slice(from, at)
}

const calls = [...sources].flatMap(([file, code]) =>
  [...code.matchAll(/\bphrase\(\s*'([\w.]+)'/g)].map((call) => ({
    file,
    key: call[1]!,
    given: inBrackets(code, call.index + call[0].length),
  })),
)

/** Words of a template that no phrase gives: text between tags and in the attributes that are read. */
function wordsLeft(code: string): string[] {
  const template = parseComponent(code).descriptor.template
  if (!template) return []
  const left: string[] = []
  const READ = /^(title|aria-label|label|placeholder|hint|caption|alt|called)$/
  const WORD = /[A-Za-z]{3,}/
  const visit = (node: {
    type: number
    content?: unknown
    props?: unknown[]
    children?: unknown[]
  }) => {
    if (node.type === 2 && WORD.test(node.content as string))
      left.push((node.content as string).trim())
    for (const prop of (node.props ?? []) as {
      type: number
      name: string
      value?: { content: string }
    }[])
      if (prop.type === 6 && READ.test(prop.name) && WORD.test(prop.value?.content ?? ''))
        left.push(prop.value!.content)
    ;((node.children ?? []) as (typeof node)[]).forEach(visit)
  }
  visit(parseTemplate(template.content) as never)
  return left
}

// The name of the product, and units.
const NOT_TRANSLATED = ['Vast Harbor', 'AWG', 'kWh', 'vast-harbor serve --lan']

describe('the texts of the interface', () => {
  it('are all used, and all that are used exist', () => {
    expect(calls.length).toBeGreaterThan(1000)
    expect([...new Set(calls.map((call) => call.key))].sort()).toEqual([...texts.keys()].sort())
  })

  it('come with the area that shows them', () => {
    const strangers = [...sources].flatMap(([file, code]) => {
      const area = /from '@\/phrases\/(\w+)'/.exec(code)?.[1]
      return calls.filter((call) => call.file === file && !call.key.startsWith(`${area}.`))
    })
    expect(strangers).toEqual([])
  })

  it('get a value for each place', () => {
    const empty = calls.filter(({ key, given }) => {
      const places = [...texts.get(key)!.matchAll(/\{(\w+)\}/g)].map((place) => place[1]!)
      return places.some((place) => !new RegExp(`\\b${place}\\b`).test(given))
    })
    expect(empty).toEqual([])
  })

  it('are not written into a component', () => {
    const left = [...sources].flatMap(([file, code]) =>
      file.endsWith('.vue')
        ? wordsLeft(code)
            .filter((words) => !NOT_TRANSLATED.includes(words))
            .map((words) => `${file}: ${words}`)
        : [],
    )
    expect(left).toEqual([])
  })

  it('are not written into the options and fields that a script lists', () => {
    // A unit, a key on the keyboard, the name of a route, an assumption or a series are no texts; numbers and
    // signs neither.
    const NO_TEXT =
      /^(|[\d.,:/ %]+.*|V|A|Ah|Wh|W|h|min|s|mV|kg|°|%|mΩ|BMS|IP65|M8|LFP|AC|DC|kWh|n|t|\?|Ctrl( Shift)? Z|rig|harbor|start|new-plan|glossary|about|nights|reserve|ageing_allowance|cut-off)$/
    const left = [...sources].flatMap(([file, code]) =>
      file.endsWith('.d.ts')
        ? []
        : [...code.matchAll(/\b(name|empty|hint|label|title|placeholder|says): ['"]([^'"]*)['"]/g)]
            .filter((found) => !NO_TEXT.test(found[2]!))
            .map((found) => `${file}: ${found[0]}`),
    )
    expect(left).toEqual([])
  })

  it('choose the form of a count', () => {
    expect(phrase('shared.unsent_bar.not_saved', { count: 1 })).toBe('1 change is not saved yet.')
    expect(phrase('shared.unsent_bar.not_saved', { count: 3 })).toBe('3 changes are not saved yet.')
  })
})
