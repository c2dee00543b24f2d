/** Kinds of terminals, as batteries have them and lugs are made for them. */
import { phrase } from '@/phrases/shared'
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
  { value: '', name: phrase('shared.terminals.known') },
  ...KINDS.map((t) => ({ value: t, name: t[0]!.toUpperCase() + t.slice(1) })),
]
