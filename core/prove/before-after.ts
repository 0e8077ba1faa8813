import { type Comparison, compareRepeats, FEWEST_REPEATS, MOST_REPEATS, repeatsToShow } from '../quantity/compare'
import { decimal, type Parsed, parsed, unreadable } from '../quantity/parsed'
import { spreadOf } from '../quantity/statistics'

/** Two sides of the same job: what they are called, what their figures are in, and whether less of it is better. */
export type Sides = {
  names: readonly [string, string]
  figures: readonly [readonly number[], readonly number[]]
  unit: string
  lessIsBetter: boolean
}

/** What the two sides come to, in words. */
export type BeforeAfter = { comparison: Comparison; verdict: string; could: string; advice: string | null }

/** Repeats as people write them: figures with spaces, commas or new lines between them; a comma within a figure is its decimal point. */
export function parseRepeats(text: string, fewest = FEWEST_REPEATS): Parsed<number[]> {
  const pieces = text.split(/[\s;]+|,(?=\s|$)/).filter((piece) => piece !== '')
  const figures = pieces.map((piece) =>
    /^-?\d{1,9}([.,]\d{1,6})?$/.test(piece) ? Number(piece.replace(',', '.')) : Number.NaN,
  )
  const wrong = figures.findIndex((figure) => !Number.isFinite(figure))
  if (wrong >= 0)
    return unreadable(
      `"${(pieces[wrong] ?? '').slice(0, 24)}" is no figure. Write one figure a repeat, with spaces between them.`,
    )
  if (figures.length === 0) return unreadable('Write at least one figure.')
  if (figures.length < fewest)
    return unreadable('Do it at least twice each way, better three times: one figure proves little.')
  if (figures.length > MOST_REPEATS) return unreadable(`More than ${MOST_REPEATS} repeats a side are not read.`)
  return parsed(figures)
}

/** So sure a difference must be before it is called one. */
const BY_CHANCE = 0.05

/**
 * Holds two sides against each other: the difference with its interval of 95 %, how likely it is by chance, the smallest difference that these repeats could
 * have shown, and how many more would show less. It never says "the same" where the test was blind. Null where a side has too few.
 */
export function beforeAfter({ names, figures, unit, lessIsBetter }: Sides): BeforeAfter | null {
  const comparison = compareRepeats(figures[0], figures[1])
  if (!comparison) return null
  const { means, difference, low, high, byRank, leastByRank, couldShow } = comparison
  const share = means[0] === 0 ? null : Math.abs(difference / means[0])
  const sure = low > 0 || high < 0
  const better = difference < 0 === lessIsBetter
  const amount = `${decimal(Math.abs(difference), 2)} ${unit}${share === null ? '' : ` (${decimal(share * 100, 1)} %)`}`
  const verdict = sure
    ? `${names[1][0]?.toUpperCase() ?? ''}${names[1].slice(1)} is ${better ? 'better' : 'worse'} by ${amount}: ${decimal(low, 2)} to ${decimal(high, 2)} ${unit}, 95 % sure.`
    : `No difference was shown: ${decimal(low, 2)} to ${decimal(high, 2)} ${unit}, 95 % sure.`
  const doubt =
    sure && byRank > BY_CHANCE && leastByRank <= BY_CHANCE
      ? ' By rank alone it could still be chance: repeat it a few times more.'
      : ''
  const scatter = Math.max(...figures.map((side) => spreadOf(side)?.deviation ?? 0))
  const aim = (couldShow === 0 ? Math.abs(difference) : couldShow) / 2
  const more = scatter === 0 ? null : repeatsToShow(aim, scatter)
  return {
    comparison,
    verdict: `${verdict}${doubt}`,
    could:
      couldShow === 0
        ? 'Every repeat read alike: the instrument may not see small differences.'
        : `These repeats could have shown a difference of ${decimal(couldShow, 2)} ${unit}, four times in five. Smaller ones stay hidden.`,
    advice:
      sure || more === null
        ? null
        : `To see half of that, do it ${more} times each way: fresh files, same settings, in turn.`,
  }
}
