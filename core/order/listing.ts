import { formatLength, type Metres, parseLength } from '../quantity/length'
import { atMost } from '../quantity/limit'
import { type BitsPerSecond, formatRate, GIGABIT, MEGABIT } from '../quantity/rate'
import { connectorSaid } from '../standards/connector-words'
import type { Connector } from '../standards/connectors'
import { type CableGrade, type Construction, gradeFacts } from '../standards/grades'
import { parseMark } from '../standards/mark-text'
import { leadReach, leadShape } from '../standards/reach'

/** What a listing can claim. */
export const CLAIM_SORTS = [
  'length',
  'rate',
  'mark',
  'watts',
  'picture',
  'ends',
  'built',
  'direction',
  'comes with',
  'returns',
] as const
export type ClaimSort = (typeof CLAIM_SORTS)[number]

/** One claim as Hallway understands it, and the words of the listing that it came with. */
export type Claim = { sort: ClaimSort; says: string; words: string }

/** What a listing says of itself, and what is wrong with it or missing. */
export type Listing = {
  claims: readonly Claim[]
  /** What stands against itself or against the book, as sentences. */
  problems: readonly string[]
  /** What nobody could decide by it. */
  missing: readonly string[]
  /** What to ask the seller. */
  questions: readonly string[]
  /** What it would be entered as: only what it says once, and clearly. */
  length: Metres | null
  grade: CableGrade | null
  ends: readonly [Connector, Connector] | null
  construction: Construction | null
  watts: number | null
}

export const LONGEST_LISTING = 20_000

const FIGURE = '(?<![\\w.,])\\d{1,4}(?:[.,]\\d{1,2})?'
const PLUG =
  '(?:usb[- ]?c|usb type[- ]c|type[- ]c|usb[- ]?a|type[- ]a|usb[- ]?b|type[- ]b|hdmi|displayport|mini displayport|mini dp|dp)'
const found = {
  length: new RegExp(`${FIGURE} ?(?:metres|metre|meters|meter|m|ft|feet|foot|cm)(?![\\w/²])`, 'giu'),
  rate: new RegExp(`${FIGURE} ?(?:Gb/s|Gbps|Gbit/s|GB/s|GBps|Mb/s|Mbps|Mbit/s|MB/s|MBps)(?!\\w)`, 'gu'),
  watts: new RegExp(`${FIGURE} ?(?:watts|watt|W)(?!\\w)`, 'giu'),
  mark: /\b(?:usb ?4(?: v2)?|usb ?3\.[012](?: gen ?[12](?:x[12])?)?|usb ?2\.0|thunderbolt ?[2345]|tb[2345]|displayport ?[12]\.[0-4]|dp ?[12]\.[0-4]|hdmi ?[12]\.[0-4])(?![\w.])/giu,
  picture: /\b[458]k(?: ?@? ?\d{2,3} ?(?:hz|fps)?)?(?!\w)/giu,
  ends: new RegExp(`\\b${PLUG}(?: male| plug)? to ${PLUG}\\b`, 'giu'),
  built: /\b(?:active|passive|optical|fibre|fiber)\b/giu,
  direction: /\b(?:one[- ]way|unidirectional|bidirectional|both ways|either direction)\b/giu,
  'comes with': /\b(?:includes|included|comes with|with supplied) [^.;\n]{1,80}/giu,
  returns: /\b(?:no returns|\d{1,3}[- ]days? (?:returns?|money back))\b/giu,
} satisfies Record<ClaimSort, RegExp>

/**
 * Reads the text of a shop page about a lead: what it claims with the words it came from, what stands against itself or against the book, and what is missing to
 * decide. What a seller says is the weakest that is known of a lead; this only tells which of it can be true.
 */
export function readListing(text: string): Listing {
  const plain = text.slice(0, LONGEST_LISTING).replace(/[ \t]+/g, ' ')
  const wordsOf = (sort: ClaimSort): string[] => [...new Set([...plain.matchAll(found[sort])].map(([words]) => words))]
  const ends = wordsOf('ends').map(endsOf)
  const facts: Facts = {
    plain,
    lengths: wordsOf('length').flatMap((words) => lengthOf(words)),
    rates: wordsOf('rate').map(rateOf),
    watts: wordsOf('watts').map((words) => ({ words, watts: Number.parseFloat(words.replace(',', '.')) })),
    ends,
    marks: wordsOf('mark').flatMap((words) => {
      const read = parseMark(words, ends[0]?.ends ?? [])
      return read.ok ? [{ words, grade: read.value }] : []
    }),
    built: [...new Set(wordsOf('built').map(builtOf))],
  }
  const claims = CLAIM_SORTS.flatMap((sort) =>
    wordsOf(sort).map((words): Claim => ({ sort, says: saysOf(sort, words, facts), words })),
  )
  const problems = problemsOf(facts)
  const missing = missingOf(facts, claims)
  const only = <T>(all: readonly T[]): T | null => (all.length === 1 ? (all[0] as T) : null)
  return {
    claims,
    problems: problems.map(({ says }) => says),
    missing: missing.map(({ says }) => says),
    questions: [...problems, ...missing].map(({ ask }) => ask),
    length: only(apart(facts.lengths.map(({ metres }) => metres))),
    grade: only([...new Set(facts.marks.map(({ grade }) => grade))]),
    ends: only(ends)?.ends ?? null,
    construction: only(facts.built),
    watts: only([...new Set(facts.watts.map(({ watts }) => watts))]),
  }
}

type Facts = {
  plain: string
  lengths: readonly { words: string; metres: Metres }[]
  rates: readonly { words: string; rate: BitsPerSecond; bytes: boolean }[]
  watts: readonly { words: string; watts: number }[]
  ends: readonly { words: string; ends: readonly [Connector, Connector] }[]
  marks: readonly { words: string; grade: CableGrade }[]
  built: readonly Construction[]
}
type Told = { says: string; ask: string }

function lengthOf(words: string): { words: string; metres: Metres }[] {
  const read = parseLength(words)
  return read.ok ? [{ words, metres: read.value }] : []
}

function rateOf(words: string): Facts['rates'][number] {
  const bytes = /[GM]B/.test(words)
  const unit = words.includes('G') ? GIGABIT : MEGABIT
  return { words, rate: Number.parseFloat(words.replace(',', '.')) * unit * (bytes ? 8 : 1), bytes }
}

function endsOf(words: string): Facts['ends'][number] {
  const [one = '', other = ''] = words.split(/ to /i).map((each) => each.replace(/ (?:male|plug)$/i, '').trim())
  return { words, ends: [connectorSaid(one) ?? 'own', connectorSaid(other) ?? 'own'] }
}

const builtOf = (words: string): Construction =>
  /^(?:optical|fib)/i.test(words) ? 'optical' : words.toLowerCase() === 'active' ? 'active' : 'passive'

/** Lengths that are really apart: 2 m and 6.6 ft are one, as leads are sold. */
function apart(lengths: readonly Metres[]): Metres[] {
  const kept: Metres[] = []
  for (const length of lengths) if (!kept.some((each) => Math.abs(each - length) <= 0.03 * each)) kept.push(length)
  return kept
}

function saysOf(sort: ClaimSort, words: string, { lengths, rates, marks }: Facts): string {
  switch (sort) {
    case 'length':
      return formatLength(lengths.find((each) => each.words === words)?.metres ?? 0)
    case 'rate':
      return formatRate(rates.find((each) => each.words === words)?.rate ?? 0)
    case 'mark': {
      const grade = marks.find((each) => each.words === words)?.grade
      return grade ? gradeFacts[grade].name : words
    }
    default:
      return words
  }
}

/** Figures of rates that leads are sold by, in Gb/s: one that fits in the other unit was likely meant in it. */
const KNOWN_RATES = [0.48, 5, 10, 20, 40, 80, 10.2, 18, 48, 32.4, 21.6]

function problemsOf({ plain, lengths, rates, watts, marks, built, ends }: Facts): Told[] {
  const told: Told[] = []
  const sizes = apart(lengths.map(({ metres }) => metres))
  if (sizes.length > 1)
    told.push({
      says: `It names several lengths: ${sizes.map((each) => formatLength(each)).join(', ')}.`,
      ask: 'How long is the lead, from plug to plug?',
    })
  for (const { words, rate, bytes } of rates) {
    const figure = Number.parseFloat(words.replace(',', '.'))
    const gigabits = words.includes('G') ? figure : figure / 1000
    if (bytes && KNOWN_RATES.includes(gigabits))
      told.push({
        says: `“${words}” is ${formatRate(rate)}; as bits it would be a usual rate, ${formatRate(rate / 8)}.`,
        ask: `Is “${words}” in bits or in bytes a second?`,
      })
  }
  const clear = rates.filter(
    ({ words, bytes }) => !(bytes && KNOWN_RATES.includes(Number.parseFloat(words) / (words.includes('G') ? 1 : 1000))),
  )
  const most = Math.max(0, ...clear.map(({ rate }) => rate))
  const marked = Math.max(0, ...marks.map(({ grade }) => gradeFacts[grade].marked))
  if (most > 0 && marked > 0 && most > marked * 1.001)
    told.push({
      says: `It claims ${formatRate(most)}, and what it is marked as carries ${formatRate(marked)}.`,
      ask: `Which mark stands on the plug, and does the lead carry ${formatRate(most)}?`,
    })
  told.push(...tooFar({ lengths, marks, built, ends }))
  const power = Math.max(0, ...watts.map((each) => each.watts))
  if (power > 100 && !/\b(?:epr|extended power range|240 ?w mark|5 ?a|50 ?v|48 ?v)\b/i.test(plain))
    told.push({
      says: `It claims ${power} W and names no extended power range (5 A, 50 V), which more than 100 W needs.`,
      ask: 'Is the lead marked for 240 W (extended power range)?',
    })
  if (built.includes('optical') && power > 0 && !/\b(?:hybrid|copper)\b/i.test(plain))
    told.push({
      says: `It is optical and claims ${power} W; glass carries no power, so there must be copper in it.`,
      ask: 'Is there copper in the lead for power, and how much does it carry?',
    })
  return told
}

/** What it claims to carry, further than any lead of its build carries it by the book. */
function tooFar({ lengths, marks, built, ends }: Pick<Facts, 'lengths' | 'marks' | 'built' | 'ends'>): Told[] {
  const [length] = apart(lengths.map(({ metres }) => metres))
  const [first] = ends
  if (length === undefined || built.some((each) => each !== 'passive')) return []
  const plug = (connector: Connector) => ({ connector, gender: 'plug' })
  const shape = first ? leadShape([plug(first.ends[0]), plug(first.ends[1])]) : 'c-c'
  return marks.flatMap(({ grade }): Told[] => {
    const { data, displayport, hdmi } = leadReach(grade, 'passive', shape)
    const rows = [data, displayport, hdmi].find((each) => each.length > 0) ?? []
    // what it is marked for is what reaches least far
    const reach = Math.min(...rows.map((row) => row.reach))
    if (rows.length === 0 || atMost(length, reach * 1.03)) return []
    return [
      {
        says: `By the book a passive lead carries ${gradeFacts[grade].name} to ${formatLength(reach)}; it is ${formatLength(length)}, and nothing says that it is active.`,
        ask: 'Is the lead active or passive, and what does it carry at its full length?',
      },
    ]
  })
}

function missingOf({ lengths, rates, watts, marks, ends, built }: Facts, claims: readonly Claim[]): Told[] {
  const typeC = ends.some((each) => each.ends.includes('type-c'))
  const unlike = ends.some(({ ends: [one, other] }) => one !== other)
  const has = (sort: ClaimSort): boolean => claims.some((claim) => claim.sort === sort)
  const absent: (Told | false)[] = [
    lengths.length === 0 && { says: 'its length', ask: 'How long is the lead?' },
    ends.length === 0 && { says: 'which plug is at each end', ask: 'Which plugs are at the two ends?' },
    marks.length === 0 &&
      rates.length === 0 && { says: 'what it carries', ask: 'Which rate does it carry, and by which standard?' },
    watts.length === 0 &&
      (ends.length === 0 || typeC) && { says: 'how much power it carries', ask: 'For how many watts is it marked?' },
    built.length === 0 &&
      lengths.some(({ metres }) => metres > 0.8) && {
        says: 'whether it is active or passive',
        ask: 'Is the lead active or passive?',
      },
    unlike &&
      !has('direction') && {
        says: 'whether it carries both ways',
        ask: 'Does it carry both ways, or from which end to which?',
      },
    !has('returns') && { says: 'whether it may go back', ask: 'Within how many days may it go back?' },
  ]
  return absent.filter((each) => each !== false)
}
