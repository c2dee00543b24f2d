import {
  compile,
  createCoreContext,
  registerMessageCompiler,
  registerMessageResolver,
  resolveValue,
  translate,
  type CoreContext,
} from '@intlify/core-base'

/** The texts of the interface, by area, group and key. `{name}` stands for a value, ` | ` parts the plural forms. */
export type Texts = Record<string, Record<string, string>>

export const LANGUAGE = 'en'

// Texts come compiled, and a key leads through areas and groups to its own.
registerMessageCompiler(compile)
registerMessageResolver(resolveValue)
const messages: Record<string, Record<string, Texts>> = { [LANGUAGE]: {} }
const context = createCoreContext({ locale: LANGUAGE, messages }) as unknown as CoreContext

/** A phrase with its values in it; of a plural the form for `count`. */
export function phrase(key: string, values: Record<string, unknown> = {}): string {
  const count = values.count
  return typeof count === 'number'
    ? (translate(context, key, values, { plural: count }) as string)
    : (translate(context, key, values) as string)
}

/** Add the texts of an area; they come with the screens that show them. */
export function addTexts(area: string, texts: Texts): void {
  messages[LANGUAGE]![area] = texts
}
