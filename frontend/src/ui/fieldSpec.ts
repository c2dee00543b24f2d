/** One field of a form whose fields depend on what is described, such as a battery or a source. */
export interface FieldSpec<Row> {
  key: keyof Row & string
  name: string
  hint?: string
  empty?: string
  yes?: boolean
  text?: boolean
  choices?: { value: string; name: string }[]
  /** Over the whole width. */
  wide?: boolean
  /** Shown only while this holds of the row. */
  when?: (row: Row) => boolean
}
