/** A sheet to hand out: the same on paper, in a mail and as a table. */
export type Sheet = {
  title: string
  to: readonly string[]
  heads: readonly string[]
  rows: readonly (readonly string[])[]
  foot: readonly string[]
}
