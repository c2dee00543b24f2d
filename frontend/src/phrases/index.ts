import { createI18n } from 'vue-i18n'

/** The texts of the interface, by area, group and key. `{name}` stands for a value, ` | ` parts the plural forms. */
export type Texts = Record<string, Record<string, string>>

export const LANGUAGE = 'en'

const i18n = createI18n({ legacy: false, locale: LANGUAGE, messages: { [LANGUAGE]: {} } })

/** A phrase with its values in it; of a plural the form for `count`. */
export function phrase(key: string, values: Record<string, unknown> = {}): string {
  const count = values.count
  return typeof count === 'number' ? i18n.global.t(key, values, count) : i18n.global.t(key, values)
}

/** Add the texts of an area; they come with the screens that show them. */
export function addTexts(area: string, texts: Texts): void {
  i18n.global.mergeLocaleMessage(LANGUAGE, { [area]: texts })
}
