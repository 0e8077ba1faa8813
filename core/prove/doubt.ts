import type { Observation, Reading } from '../observe/observation'
import type { SiteIndex } from '../plan/site-index'
import { formatBytesPerSecond } from '../quantity/rate'
import { formatWatts } from '../quantity/watts'
import { keptWith } from '../work/kept'

/** Why an instrument is not to be trusted as it is: people are to read the same with another one. */
export type Doubt = { instrument: string; words: string }

/** One figure that an instrument read of one cable. */
type Read = { cable: string; value: number; kind: string | undefined; length: number }

const FIGURES = {
  write: {
    of: (seen: Reading) => (seen.measure === 'write' ? seen.rate : null),
    text: formatBytesPerSecond,
    more: true,
  },
  read: { of: (seen: Reading) => (seen.measure === 'read' ? seen.rate : null), text: formatBytesPerSecond },
  watts: { of: (seen: Reading) => (seen.measure === 'watts' ? seen.watts : null), text: formatWatts },
} as const

/** On so many cables that differ a figure that does not move is no chance (common practice). */
const FEWEST_ALIKE = 4
const ALIKE = 0.002
/** A longer lead of the same kind may read so much better by chance. */
const BY_CHANCE = 0.1

/**
 * Instruments that are to be doubted, by what they read: a figure that no change moves, though nothing else was noted as the limit; or one against all order, where
 * of one kind the longer lead reads better than the shorter.
 */
export const doubtsOf = keptWith((index: SiteIndex): readonly Doubt[] => {
  const groups = new Map<string, { instrument: string; figure: keyof typeof FIGURES; reads: Read[] }>()
  for (const seen of index.plan.observations) {
    const cable = cableOf(seen)
    if (
      seen.kind !== 'reading' ||
      cable === null ||
      (seen.limit !== undefined && seen.limit !== 'lead' && seen.limit !== 'unknown')
    )
      continue
    const known = index.cables.get(cable)
    const instrument = seen.instrument?.name
    if (!known || instrument === undefined || !(seen.measure in FIGURES)) continue
    const figure = seen.measure as keyof typeof FIGURES
    const value = FIGURES[figure].of(seen)
    if (value === null) continue
    const key = JSON.stringify([instrument, figure])
    const group = groups.get(key) ?? { instrument, figure, reads: [] }
    group.reads.push({ cable, value, kind: known.kind, length: known.length })
    groups.set(key, group)
  }
  return [...groups.values()].flatMap(({ instrument, figure, reads }) => {
    const { text } = FIGURES[figure]
    const found = unmoved(reads) ?? againstOrder(reads)
    if (!found) return []
    const words =
      'alike' in found
        ? `${instrument} read ${text(found.alike)} on ${found.cables} different cables. A reading that no change moves says nothing.`
        : `${instrument} read ${text(found.long)} on the longer cable of a kind and ${text(found.short)} on the shorter one.`
    return [{ instrument, words: `${words} Read the same with another instrument.` }]
  })
})

const cableOf = ({ subject }: Observation): string | null =>
  'cable' in subject
    ? subject.cable
    : 'run' in subject && subject.leads.length === 1
      ? (subject.leads[0] ?? null)
      : null

function unmoved(reads: readonly Read[]): { alike: number; cables: number } | null {
  const cables = new Set(reads.map(({ cable }) => cable))
  const lengths = new Set(reads.map(({ length }) => length))
  const values = reads.map(({ value }) => value)
  const [least, most] = [Math.min(...values), Math.max(...values)]
  return cables.size >= FEWEST_ALIKE && lengths.size > 1 && most - least <= ALIKE * most
    ? { alike: most, cables: cables.size }
    : null
}

function againstOrder(reads: readonly Read[]): { long: number; short: number } | null {
  for (const kind of new Set(reads.map((read) => read.kind))) {
    if (kind === undefined) continue
    const alike = reads.filter((read) => read.kind === kind)
    const lengths = alike.map(({ length }) => length)
    const valuesAt = (length: number) => alike.flatMap((read) => (read.length === length ? read.value : []))
    const [shortest, longest] = [Math.min(...lengths), Math.max(...lengths)]
    if (shortest === longest) continue
    // the worst of the long ones against the best of the short ones: no scatter explains that
    const long = Math.min(...valuesAt(longest))
    const short = Math.max(...valuesAt(shortest))
    if (long > short * (1 + BY_CHANCE)) return { long, short }
  }
  return null
}
