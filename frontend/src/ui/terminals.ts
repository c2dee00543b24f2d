/** Kinds of terminals, as batteries have them and lugs are made for them. */
const KINDS = [
  'tapered posts',
  'M6 threads',
  'M8 threads',
  'M10 threads',
  'M8 studs',
  'flags',
  'sockets',
]

export const TERMINALS = [
  { value: '', name: 'Not known' },
  ...KINDS.map((t) => ({ value: t, name: t[0]!.toUpperCase() + t.slice(1) })),
]
