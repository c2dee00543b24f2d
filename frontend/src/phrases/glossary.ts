import type { Term } from '@/ui/terms'
import { addTexts, phrase } from '.'
import texts from './en/glossary.json'

addTexts('glossary', texts)

/** Every term, by the first way in which it is written. */
export function glossary(): Term[] {
  return Object.keys(texts)
    .map((key) => ({
      key,
      words: phrase(`glossary.${key}.words`).split('; '),
      means: phrase(`glossary.${key}.means`),
      here: phrase(`glossary.${key}.here`),
    }))
    .sort((a, b) => a.words[0]!.localeCompare(b.words[0]!, 'en'))
}
