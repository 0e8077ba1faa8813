import type { Assessed } from '../checks/assess'
import type { RunProof } from '../prove/proof'
import type { Metres } from '../quantity/length'
import type { GrowthAnswer } from '../variants/upgrades'
import type { Handover, SectionName } from '../vocabulary/handover'
import type { Block } from './block'
import type { Points } from './drawing'

/** What a book is made from: the site as it was handed over, judged once. */
export type BookOf = {
  site: Assessed
  handover: Handover
  proofs: ReadonlyMap<string, RunProof>
  /** Each upgrade the site has, answered. */
  grown: readonly GrowthAnswer[]
  /** A length as this book writes it. */
  length(metres: Metres): string
  /** How much of a sheet a drawing may take. */
  room: { width: Points; height: Points }
}

/** One part of a book, and adding one is adding a file and a line in the list. */
export type Section = {
  name: SectionName
  title: string
  /** What it is for, in the form that asks which parts are wanted. */
  says: string
  blocks(of: BookOf): Iterable<Block>
}
