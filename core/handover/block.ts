import type { Drawing } from './drawing'

/** A piece of a book, whatever it is then printed on: paper, a page on a screen. */
export type Block =
  /** The start of a section, on a page of its own, and of what stands within one. `id` is where a link leads. */
  | { sort: 'section'; id: string; text: string }
  | { sort: 'heading'; id: string; text: string }
  | { sort: 'words'; text: string; quiet?: true }
  | { sort: 'caution'; text: string }
  | { sort: 'list'; items: readonly string[] }
  | Table
  | { sort: 'drawing'; drawing: Drawing; alt: string }
  | { sort: 'cards'; cards: readonly Card[] }
  /** What follows begins a page. */
  | { sort: 'page' }

/** Rows under heads; `shares` says how the width is dealt out. */
export type Table = {
  sort: 'table'
  heads: readonly string[]
  shares: readonly number[]
  rows: readonly (readonly string[])[]
}

/** A small card to be cut out: `path` is what its code opens, from the address of this Hallway on. */
export type Card = { title: string; lines: readonly string[]; path: string }

/** What stands on the first page of a book: `about` says who, when, and what it stands for. */
export type Title = { title: string; client: string; about: readonly string[] }
