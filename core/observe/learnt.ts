import type { Amps, Volts } from '../quantity/watts'
import type { CableGrade } from '../standards/grades'
import type { LinkMode } from '../standards/link-modes'
import type { Instant } from '../vocabulary/fields'
import { type Rests, restsText } from '../vocabulary/rests'
import type { Basis } from './basis'
import type { HeldBackBy } from './every'
import { type FigureSeries, Figures, type Measure, type Own, type Read, worthOf } from './figures'
import { Ledger, type Placed } from './ledger'
import { type LinkSeries, type LinkTried, linkSort } from './links'
import { type PictureSeries, type PictureTried, pictureSort } from './pictures'
import { placeKey, type Spot, spotOf } from './spot'

export type Said<T> = { value: T; at: Instant }
/** What each basis says of one thing, the latest it said; a basis that was asked and had nothing is left out. */
export type SaidBy<T> = { [B in Basis]?: Said<T> }

/** What its chip answered when it was asked: it has none, or what it says of the extended range. */
export type ChipAsked = { at: Instant; none: boolean }

/** A plug that got hot, and whether the supply came from elsewhere: then it says nothing of the kind. */
export type RanHot = { at: Instant; strangeSupply: boolean }

/** When a run was laid as it lies, and by whom. */
export type LaidAt = { at: Instant; by: string | null }

/** When somebody did something about it, and what. */
export type SetRightAt = { at: Instant; what: string }

/**
 * When a run was accepted as it lies, by whom, why with less than its tests ask for, and under which conditions; the tests that were waived, and what it rests
 * on. Null: it is from before that was noted.
 */
export type AcceptedAt = {
  at: Instant
  by: string | null
  less: string | null
  conditions: string | null
  waived: readonly string[] | null
  rests: Rests | null
}

/** What somebody else counted of a kind: a seller, a maker, another client. */
export type CountedElsewhere = { mode: LinkMode; held: number; tried: number; from: string | null; at: Instant }

/** The last thing somebody tried, in a few words. */
export type LastTried = { at: Instant; words: string }

/** What was learnt of one cable or one run as it lay, from all that was observed of it: as much as every computation needs, whatever the number of observations. */
export type Learnt = {
  grade: SaidBy<CableGrade>
  amps: SaidBy<Amps>
  volts: SaidBy<Volts>
  /** Its mark was looked for, and there is none. */
  unmarked: boolean
  chip: ChipAsked | null
  links: readonly LinkSeries[]
  pictures: readonly PictureSeries[]
  figures: readonly FigureSeries[]
  /** Ohms there and back, by the volts it lost. */
  ohms: Said<number> | null
  hot: RanHot | null
  /** A run lies as it was laid then; null where it does not lie, or nobody said. */
  laid: LaidAt | null
  accepted: AcceptedAt | null
  /** The facts that what was proved of a run rests on, each set of them once; a spot says which it is, from 1 on. */
  rests: readonly Rests[]
  /** When somebody did something about it last, after which it begins anew. */
  setRight: SetRightAt | null
  counted: readonly CountedElsewhere[]
  last: LastTried | null
  /** The instant of the last of all that was taken in: what is later is added to it, and anything else is gone through anew. */
  latest: Instant
}

export const NOTHING_LEARNT: Learnt = {
  grade: {},
  amps: {},
  volts: {},
  unmarked: false,
  chip: null,
  links: [],
  pictures: [],
  figures: [],
  ohms: null,
  hot: null,
  laid: null,
  accepted: null,
  rests: [],
  setRight: null,
  counted: [],
  last: null,
  latest: '',
}

/** The lists of what was tried, each series with the spot it was tried in. */
export const SERIES_LISTS = ['links', 'pictures', 'figures'] as const

/** The same with the series that `change` makes of each; one of which it makes null is left out. */
export function withSeries(learnt: Learnt, change: <S extends { spot: Spot }>(series: S) => S | null): Learnt {
  const lists = SERIES_LISTS.map((list) => [
    list,
    (learnt[list] as readonly { spot: Spot }[]).flatMap((series) => change(series) ?? []),
  ])
  return { ...learnt, ...Object.fromEntries(lists) }
}

/** What is being learnt while observations are gone through, oldest first. */
export type Learning = {
  -readonly [Name in Exclude<keyof Learnt, (typeof SERIES_LISTS)[number]>]: Learnt[Name] extends readonly (infer Each)[]
    ? Each[]
    : Learnt[Name]
} & {
  links: Ledger<LinkTried>
  pictures: Ledger<PictureTried>
  figures: Figures
  /** When it was set right, and in which socket where it was in one: what was seen before then is kept apart. */
  rights: readonly { at: Instant; port: string | undefined }[]
  /** The observation that is being gone through, and where it was made. */
  placed: { seen: object; at: Placed } | null
}

/** Learning that goes on from what was learnt so far. */
export const goOnLearning = (learnt: Learnt, rights: Learning['rights']): Learning => ({
  ...learnt,
  grade: { ...learnt.grade },
  amps: { ...learnt.amps },
  volts: { ...learnt.volts },
  counted: [...learnt.counted],
  rests: [...learnt.rests],
  links: new Ledger(linkSort, learnt.links),
  pictures: new Ledger(pictureSort, learnt.pictures),
  figures: new Figures(learnt.figures),
  rights,
  placed: null,
})

/** What was learnt, as it is kept. Written out: it is made for each cable and run of a site. */
export const learntFrom = (learning: Learning): Learnt => ({
  grade: learning.grade,
  amps: learning.amps,
  volts: learning.volts,
  unmarked: learning.unmarked,
  chip: learning.chip,
  links: learning.links.series(),
  pictures: learning.pictures.series(),
  figures: learning.figures.series(),
  ohms: learning.ohms,
  hot: learning.hot,
  laid: learning.laid,
  accepted: learning.accepted,
  rests: learning.rests,
  setRight: learning.setRight,
  counted: learning.counted,
  last: learning.last,
  latest: learning.latest,
})

/** An observation as a series takes it: where and when, and whether somebody has set it right since. */
type Seen = Parameters<typeof spotOf>[0] & { at: Instant; id: string; rests?: Rests | undefined }

/** What one observation teaches in several series it teaches in one place, which is told once. */
function placed(learning: Learning, seen: Seen): Placed {
  if (learning.placed?.seen === seen) return learning.placed.at
  const spot = spotOf(seen)
  if (seen.rests) spot.rests = numberOf(learning, seen.rests)
  const before = learning.rights.some(({ at, port }) => seen.at < at && (port === undefined || spot.port === port))
  const at = { at: seen.at, spot, place: placeKey({ spot, before }), before }
  learning.placed = { seen, at }
  return at
}

/** Which of the sets of facts that were noted it is; another one is added to them. */
function numberOf({ rests: known }: Learning, rests: Rests): number {
  const text = restsText(rests)
  const found = known.findIndex((each) => restsText(each) === text)
  return found >= 0 ? found + 1 : known.push(rests)
}

export const noteLink = (learning: Learning, seen: Seen, what: LinkTried, watched: number | undefined): void =>
  learning.links.add(what, placed(learning, seen), watched)

export const notePicture = (learning: Learning, seen: Seen, what: PictureTried, watched: number | undefined): void =>
  learning.pictures.add(what, placed(learning, seen), watched)

/** Notes a figure that was read; `bound`: something else than what is spoken of kept it from being more. */
export function noteFigure<M extends Measure>(
  learning: Learning,
  seen: Seen & { limit?: HeldBackBy | undefined },
  measure: M,
  own: Own[M],
  bound = false,
): void {
  const worth = worthOf(measure, own)
  if (worth === null) return
  const at = placed(learning, seen)
  const read: Record<string, unknown> = { at: seen.at, id: seen.id }
  if (seen.limit !== undefined) read.limit = seen.limit
  // what was left out is left out here as well: it goes to browsers as text
  for (const name of Object.keys(own) as (keyof Own[M])[]) if (own[name] !== undefined) read[name as string] = own[name]
  learning.figures.add({ measure, read: read as Read, worth, bound }, at)
}
