import { exactLower, exactShare } from '../quantity/intervals'
import type { Metres } from '../quantity/length'
import type { SuccessRate } from '../quantity/statistics'
import type { Construction } from '../standards/grades'
import type { LinkMode } from '../standards/link-modes'

/** How many of some leads held a mode where they were tried, as closely as it was told. */
export type Outcome = {
  mode: LinkMode
  construction: Construction
  /** The kind by its name in small letters; null for a lead of no kind. */
  kind: string | null
  /** Null where it was told of the kind as a whole. */
  length: Metres | null
  controller: string | null
  socket: string | null
  held: number
  tried: number
}

/** What is asked how likely it is to hold. What is left out is not asked for. */
export type AskedOf = Pick<Outcome, 'mode' | 'construction'> &
  Partial<{ kind: string; length: Metres; controller: string; socket: string }>

/** How many were tried, and how many of them held. */
export type Sum = { held: number; tried: number }

/** How likely it is to hold, and what that rests on. */
export type Estimate = {
  odds: number
  /** How much of that rests on what is thought where nothing at all is known: 1 where nothing was tried, near 0 where much was. */
  open: number
  /** Of this kind and length on this site alone, with the exact interval of 95 %; null where none was tried. */
  own: SuccessRate | null
  /** How many of this kind were tried at any length, those of others among them as much as they count, and how many held. */
  ofKind: Sum
}

/** What is thought of a lead of which nothing at all is known (common practice: of leads that are laid some 15 of 100 turn out worn or broken). */
export const TOP_ODDS = 0.85
/** What is thought at one level counts as so many tries at the next. */
const WORTH_TRIES = 2

/**
 * Names of what an outcome counts in, from the broadest to the closest: leads of one build in one mode, of one kind, of one length, on one controller, in one
 * socket. What is not known of it ends there.
 */
export function levelsOf({
  mode,
  construction,
  kind,
  length,
  controller,
  socket,
}: AskedOf | Omit<Outcome, 'held' | 'tried'>): string[] {
  let name = `${mode} ${construction}`
  const names = [name]
  for (const part of [kind, length, controller, socket]) {
    if (part === null || part === undefined) break
    name = `${name}|${part}`
    names.push(name)
  }
  return names
}
const BY_KIND = 1
const BY_LENGTH = 2

/** What was counted, by the names of levels. The broadest is a build in a mode, and every other lies within a kind. */
export type Sums = { broad: ReadonlyMap<string, Sum>; within(kind: string | null): Iterable<ReadonlyMap<string, Sum>> }

/** What was counted at some levels, by build and mode, and closer. */
export function countedAt(
  all: Iterable<Sum & { levels: readonly string[] }>,
): Record<'broad' | 'close', Map<string, Sum>> {
  const [broad, close] = [new Map<string, Sum>(), new Map<string, Sum>()]
  for (const each of all)
    for (const [level, name] of each.levels.entries()) addTo(level < BY_KIND ? broad : close, name, each)
  return { broad, close }
}

export function addTo(sums: Map<string, Sum>, name: string, { held, tried }: Sum): void {
  const sum = sums.get(name)
  if (sum) {
    sum.held += held
    sum.tried += tried
  } else sums.set(name, { held, tried })
}

export function sumsOf(outcomes: readonly Outcome[]): Sums {
  const { broad, close } = countedAt(outcomes.map((outcome) => ({ ...outcome, levels: levelsOf(outcome) })))
  return { broad, within: () => [close] }
}
export const NO_SUMS = sumsOf([])

/**
 * How likely a lead is to hold a mode: at each level what was tried there, beside what is thought one level up, which counts as two tries. So a few tries pull it a
 * little, many decide it, and none leave it where it was. `others` are what other sites and sellers counted, by the weight that is given to them; they
 * never enter a verdict.
 */
export function estimate(
  own: Sums,
  asked: AskedOf,
  { others = NO_SUMS, weight = 0 }: { others?: Sums; weight?: number } = {},
): Estimate {
  const kind = asked.kind ?? null
  let odds = TOP_ODDS
  let open = 1
  let share: SuccessRate | null = null
  let ofKind: Sum = { held: 0, tried: 0 }
  for (const [level, name] of levelsOf(asked).entries()) {
    const { held, tried } = sumAt(own, level, name, kind)
    if (level === BY_LENGTH) share = exactShare(held, tried)
    const theirs = sumAt(others, level, name, kind)
    const all: Sum = { held: held + weight * theirs.held, tried: tried + weight * theirs.tried }
    if (level === BY_KIND) ofKind = all
    odds = (all.held + WORTH_TRIES * odds) / (all.tried + WORTH_TRIES)
    open *= WORTH_TRIES / (all.tried + WORTH_TRIES)
  }
  return { odds, open, own: share, ofKind }
}

function sumAt({ broad, within }: Sums, level: number, name: string, kind: string | null): Sum {
  const sum = { held: 0, tried: 0 }
  for (const sums of level < BY_KIND ? [broad] : within(kind)) {
    const found = sums.get(name)
    sum.held += found?.held ?? 0
    sum.tried += found?.tried ?? 0
  }
  return sum
}

/** The same for somebody who thinks otherwise of what nobody tried. */
export const oddsWith = ({ odds, open }: Pick<Estimate, 'odds' | 'open'>, top: number): number =>
  odds + open * (top - TOP_ODDS)

/** So sure it has to be that more than half of a kind and length hold, before it is offered beyond the book. */
const SURE = 0.9

/** By the bench a kind and length is offered beyond the book where more than half of them hold, 90 % sure by what was tried on this site. */
export const holdsMostly = ({ own }: Estimate): boolean =>
  own !== null && exactLower(own.passed, own.tried, 1 - SURE) > 0.5
