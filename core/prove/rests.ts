import { sha256 } from '@noble/hashes/sha2'
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils'
import { devicesBeside, whereAt } from '../bench/where'
import type { Crossing } from '../checks/situation'
import { needsMains } from '../link/mains'
import type { Where } from '../observe/every'
import { learntOf, learntOfCable } from '../observe/learned'
import { addressOf, leadCable, portKey, type SiteIndex, socketAt, socketName } from '../plan/site-index'
import { needLabel } from '../vocabulary/need'
import { LONGEST_FACT, MOST_FACTS, type Rests } from '../vocabulary/rests'
import { leadKey, type PortAddress, type Run } from '../vocabulary/run'
import { type BearingName, figureSaid, figuresChanged, figuresText } from './bearing'

/**
 * The sorts of facts, by the first word or words of their name: the address of a socket; a list to which nothing may come (leads that got hot, what is plugged in
 * beside the run); or figures, compared by the table of what bears on a proof.
 */
const SORTS: readonly (readonly [start: string, sort: 'address' | 'list' | BearingName])[] = [
  ['host port says', 'ports'],
  ['device port says', 'ports'],
  ['host port', 'address'],
  ['device port', 'address'],
  ['host place', 'places'],
  ['device place', 'places'],
  ['hot', 'list'],
  ['beside', 'list'],
  ['lies', 'leads'],
  ['lead', 'cables'],
  ['route', 'runs'],
  ['asks', 'needs'],
  ['host', 'devices'],
  ['device', 'devices'],
]
const NOTHING = 'none'
/** All that is beyond what is named: the last leads, and needs. */
const MORE = 'more'
const ASKS = 'asks '

const sortOf = (fact: string): (typeof SORTS)[number][1] | null =>
  SORTS.find(([start]) => fact === start || fact.startsWith(`${start} `))?.[1] ?? null

/** A short digest of a text, which two texts do not share. */
const digestOf = (text: string): string => bytesToHex(sha256(utf8ToBytes(text))).slice(0, 16)

/**
 * All facts that a proof of a run rests on as it stands, with its host end in a socket. Those of which there are many come last, so that what a digest tells of
 * is leads and needs alone.
 */
function factsOf(index: SiteIndex, run: Run, crossings: readonly Crossing[], socket: PortAddress): [string, string][] {
  const facts: [string, string][] = []
  const add = (fact: string, text: string): void => {
    if (text !== '') facts.push([fact, text.length > LONGEST_FACT ? `#${digestOf(text)}` : text])
  }
  const cables = run.leads.map((lead) => leadCable(index, lead))
  const ends = [
    { end: 'host', fed: 'host', address: socket },
    { end: 'device', fed: 'far', address: run.to },
  ] as const
  for (const { end, fed, address } of ends) {
    const { device, port } = socketAt(index, address)
    add(`${end} port`, portKey(address))
    add(`${end} port says`, figuresText('ports', port))
    add(end, figuresText('devices', device))
    const place = index.places.get(device.place ?? '')
    const isFed = cables.some(({ feed, feedEnd = 'far' }) => feed !== 'bus' && feedEnd === fed)
    if (place && (isFed || needsMains(device))) add(`${end} place`, figuresText('places', place))
  }
  add('route', figuresText('runs', run))
  add('hot', hotOf(index, run).join(', ') || NOTHING)
  const beside = devicesBeside(index, socket, run.id).map(({ id }) => id)
  add('beside', [...new Set(beside)].sort().join(', ') || NOTHING)
  for (const [at, cable] of cables.entries()) {
    add(`lead ${at + 1}`, figuresText('cables', cable))
    if (cable.oneWay) add(`lies ${at + 1}`, figuresText('leads', run.leads[at] ?? { reversed: false }))
  }
  for (const { need } of crossings) add(`${ASKS}${need.id}`, figuresText('needs', need))
  return facts
}

/** Facts of which a run may have many. */
const MANY = /^(lead|lies|asks) /

/** The leads that got hot, by their place in the run, and when; of a run of several also when it did, as nobody can tell which of them it was. */
function hotOf({ learned }: SiteIndex, run: Run): string[] {
  const whole = learntOf(learned, { run: run.id, leads: run.leads.map(leadKey) })?.hot
  return [
    ...(whole ? [`0 ${whole.at}`] : []),
    ...run.leads.flatMap((lead, at) => {
      const hot = 'cable' in lead ? learntOfCable(learned, lead.cable)?.hot : null
      return hot ? [`${at + 1} ${hot.at}`] : []
    }),
  ]
}

/**
 * What a proof of a run rests on as it stands now, as named facts: at most 24 of them, and a digest of the rest. `socket` is the one its host end is in for a
 * test.
 */
export function restsOn(
  index: SiteIndex,
  run: Run,
  crossings: readonly Crossing[],
  socket: PortAddress = run.from,
): Rests {
  const facts = factsOf(index, run, crossings, socket)
  if (facts.length <= MOST_FACTS) return Object.fromEntries(facts)
  return Object.fromEntries([...facts.slice(0, MOST_FACTS - 1), [MORE, digestOfFacts(facts.slice(MOST_FACTS - 1))]])
}

/** Where a test of a run is taken, and what it rests on, as the plan has both now. */
export const takenAt = (
  index: SiteIndex,
  run: Run,
  crossings: readonly Crossing[],
  socket: PortAddress = run.from,
): { where: Where; rests: Rests } => ({
  where: whereAt(index, socket, run.to),
  rests: restsOn(index, run, crossings, socket),
})

const digestOfFacts = (facts: readonly (readonly [string, string])[]): string =>
  `#${digestOf(JSON.stringify(facts.toSorted(([one], [other]) => (one < other ? -1 : 1))))}`

/** What a proof rests on as it is now: all of its facts, however many. */
export type RestsNow = ReadonlyMap<string, string>

/** The same now, with the host end in a socket. */
export const restsNow = (
  index: SiteIndex,
  run: Run,
  crossings: readonly Crossing[],
  socket: PortAddress = run.from,
): RestsNow => new Map(factsOf(index, run, crossings, socket))

/** A fact that is not as a proof needs it; `figure` says which of it, where it has several. */
export type FactChange = { fact: string; figure: string | null; was: string; is: string }

/**
 * What has changed so that what was proved does not stand any more. An easier need, a name, a note, a price and a fact that is noted for the first time change
 * nothing. `counts` says which facts it rests on at all.
 */
export function changesSince(was: Rests, now: RestsNow, counts: (fact: string) => boolean = () => true): FactChange[] {
  const found: FactChange[] = []
  for (const [fact, old] of Object.entries(was)) {
    if (fact === MORE || !counts(fact)) continue
    const is = now.get(fact)
    // a need that is gone asks for nothing
    if (is === undefined || is === old) continue
    const sort = sortOf(fact)
    if (old.startsWith('#') || is.startsWith('#') || sort === 'address')
      found.push({ fact, figure: null, was: old, is })
    else if (sort === 'list') {
      const known = new Set(old.split(', '))
      const fresh = is.split(', ').filter((each) => each !== NOTHING && !known.has(each))
      if (fresh.length > 0) found.push({ fact, figure: null, was: old, is: fresh.join(', ') })
    } else if (sort !== null) found.push(...figuresChanged(sort, old, is).map((change) => ({ fact, ...change })))
  }
  const unnamed = [...now].filter(([fact]) => !(fact in was) && MANY.test(fact))
  const more = was[MORE]
  if (more !== undefined) {
    if (!counts(MORE)) return found
    const is = digestOfFacts(unnamed)
    if (is !== more) found.push({ fact: MORE, figure: null, was: more, is })
  } else
    for (const [fact, is] of unnamed)
      if (isAsksFact(fact) && counts(fact)) found.push({ fact, figure: null, was: '', is })
  return found
}

/**
 * Which facts a test of one need rests on: what its run is and lies between, and no other need than its own; what is told by a digest only where this may be
 * among it.
 */
export function factsOfOne(rests: Rests, run: Run, need: string | null): (fact: string) => boolean {
  const own = need === null ? null : asksFact(need)
  const isHidden = (own !== null && !(own in rests)) || !(`lead ${run.leads.length}` in rests || run.leads.length === 0)
  return (fact) => (fact === MORE ? isHidden : fact !== 'beside' && (!isAsksFact(fact) || fact === own))
}

/** Whether a fact is what a need asks; and of which need. */
const asksFact = (need: string): string => `${ASKS}${need}`
export const isAsksFact = (fact: string): boolean => fact.startsWith(ASKS)

type Names = Pick<SiteIndex, 'devices' | 'cables' | 'kinds' | 'needs'>

/** What has changed, in a few words: "C-0003: length is 14 m, was 12.5 m", "plugged in beside it: bridge camera". */
export function changeWords(index: Names, run: Run, { fact, figure, was, is }: FactChange): string {
  const sort = sortOf(fact)
  if (sort === 'address')
    return `its ${fact} is ${socketName(index.devices, addressOf(is))}, was ${socketName(index.devices, addressOf(was))}`
  if (fact === 'hot')
    return `${is
      .split(', ')
      .map((each) => leadNamed(index, run, each))
      .join(' and ')} got hot`
  if (fact === 'beside') {
    const names = is.split(', ').map((id) => index.devices.get(id)?.name ?? id)
    return `plugged in beside it now: ${names.join(', ')}`
  }
  if (fact === MORE) return 'one of the many things it rests on is another'
  const what = subjectOf(index, run, fact)
  if (figure === null || sort === null || sort === 'list')
    return was === '' ? `${what} is asked of it now` : `${what} is another`
  if (sort === 'leads') return `${what} was turned round`
  return `${what}: ${figure} is ${figureSaid(sort, figure, is)}, was ${figureSaid(sort, figure, was)}`
}

function subjectOf(index: Names, run: Run, fact: string): string {
  if (isAsksFact(fact)) {
    const need = index.needs.get(fact.slice(ASKS.length))
    return need ? needLabel(need, index.devices) : 'what is asked'
  }
  const [first = '', second = ''] = fact.split(' ')
  if (first === 'lead' || first === 'lies') return leadNamed(index, run, second)
  if (first === 'route') return 'the route'
  const address = first === 'host' ? run.from : run.to
  const device = index.devices.get(address.device)
  const port = device?.ports.find(({ id }) => id === address.port)
  if (second === 'port') return `${port?.name ?? address.port} of ${device?.name ?? address.device}`
  return second === 'place' ? `the place of ${device?.name ?? address.device}` : (device?.name ?? address.device)
}

function leadNamed(index: Names, run: Run, place: string): string {
  const lead = run.leads[Number.parseInt(place, 10) - 1]
  return lead ? leadCable(index, lead).tag : run.tag
}
