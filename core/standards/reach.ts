import type { Metres } from '../quantity/length'
import { atMost } from '../quantity/limit'
import { type Connector, carriesUsb, isLegacyUsb } from './connectors'
import { CABLE_GRADES, type CableGrade, type Construction } from './grades'
import type { LinkMode } from './link-modes'
import type { DisplayPortLink, HdmiLevel } from './picture-links'
import { commonPractice, fromMemory, published, type Source } from './source'

/** How far one thing is carried, by the book. */
export type Reach<T> = { mode: T; reach: Metres; source: Source }

/** What a lead of one grade and construction carries and how far: a row for each thing, none for what it lacks. */
export type LeadReach = {
  data: readonly Reach<LinkMode>[]
  displayport: readonly Reach<DisplayPortLink>[]
  hdmi: readonly Reach<HdmiLevel>[]
}

/** Whether a lead has a supply of its own at its far end. */
export type Feeding = 'fed' | 'unfed'

/** What the ends make of a lead: type-C at both, an older USB plug at one or both, a socket to plug extension, or another family. */
export type LeadShape = 'c-c' | 'legacy' | 'extension' | 'c-extension' | 'other'

/** A socket at one end and a plug of the same sort at the other. */
export const isExtension = (shape: LeadShape): boolean => shape === 'extension' || shape === 'c-extension'

export function leadShape(
  ends: readonly [{ connector: Connector; gender: string }, { connector: Connector; gender: string }],
): LeadShape {
  const [one, other] = ends
  const usb = carriesUsb(one.connector) && carriesUsb(other.connector)
  if (!usb) return 'other'
  const extends_ = one.connector === other.connector && one.gender !== other.gender
  if (extends_) return one.connector === 'type-c' ? 'c-extension' : 'extension'
  return isLegacyUsb(one.connector) || isLegacyUsb(other.connector) ? 'legacy' : 'c-c'
}

/** Lengths are sold rounded: 3.3 ft as 1 m, 6.6 as 2, 10 as 3, 16 as 5 (common practice). */
const SOLD_LENGTHS: readonly Metres[] = [1, 2, 3, 5]
const ROUNDED_BY = 0.03

/** A lead's length as its reach is held against: what is a little longer than a length that is sold was sold as that length. */
export const printedLength = (length: Metres): Metres =>
  SOLD_LENGTHS.find((sold) => length > sold && atMost(length, sold * (1 + ROUNDED_BY))) ?? length

const rows = <T>(source: Source, ...pairs: [T, Metres][]): Reach<T>[] =>
  pairs.map(([mode, reach]) => ({ mode, reach, source }))

const cAssembly = fromMemory('USB Type-C, cable assembly lengths')
const usb2Delay = published('USB 2.0 §7.1.16, 26 ns of cable delay')
const legacy5 = commonPractice('older-plug 5 Gb/s leads to 3 m')
const legacy10 = fromMemory('USB 3.2, older-plug 10 Gb/s leads')
const passiveExtension = commonPractice('passive 5 Gb/s extensions hold to 1 m')
const tbt3Passive = commonPractice('Thunderbolt 3 passive: 40 Gb/s to 0.5 m, 20 Gb/s to 2 m')
const tbt4Passive = fromMemory('Thunderbolt 4 cable requirements, passive: 40 Gb/s to 0.8 m, 20 Gb/s to 2 m')
const tbt3Active = commonPractice('Thunderbolt 3 active: 40 Gb/s to 2 m, plain USB devices fall to USB 2.0')
const usb4Active = fromMemory(
  'USB Type-C, active cables, and Thunderbolt 4 cable requirements: 40 Gb/s to 2 m, all modes',
)
const activeUsb = commonPractice('active USB leads: 5 and 10 Gb/s to 5 m a lead')
const fedUsb = commonPractice(
  'active USB leads reach further with power at the far end; 10 m, two sections, are planned with',
)
const FED_REACH: Metres = 10
const opticalUsb = commonPractice('optical leads: 10 to 50 m')
const categoryExtenders = commonPractice('USB over category cable')
const fibreExtenders = commonPractice('USB over a fibre pair, 10 Gb/s to 1 km')
const dpClasses = fromMemory('DisplayPort certified cable classes')
const rbrReach = fromMemory('DisplayPort 1.1a, reduced bit rate to 15 m')
const hdmiPractice = commonPractice('HDMI passive: 10.2 Gb/s 7 m, 18 Gb/s 5 m, 48 Gb/s 3 m')
const hdmiEveryday = commonPractice('HDMI at 165 MHz and less, 1920x1080 at 60 Hz, over 15 m of plain passive lead')
const activePicture = commonPractice('active picture leads: 10 m in copper, to 50 m in glass')

/** Rows every full-featured type-C lead shares: what its pairs carry by the plain USB rules. */
const passiveFullFeatured = (upTo: 'gen1' | 'gen2'): Reach<LinkMode>[] => [
  ...rows<LinkMode>(cAssembly, ['usb2', 4], ['gen1x1', 2], ['gen1x2', 2]),
  ...(upTo === 'gen2' ? rows<LinkMode>(cAssembly, ['gen2x1', 1], ['gen2x2', 1]) : []),
]

const passiveCToC: Partial<Record<CableGrade, readonly Reach<LinkMode>[]>> = {
  usb2: rows(cAssembly, ['usb2', 4]),
  gen1: passiveFullFeatured('gen1'),
  gen2: [...passiveFullFeatured('gen2'), ...rows<LinkMode>(cAssembly, ['tbt3-20', 1], ['usb4-20', 1])],
  'usb4-20': [...passiveFullFeatured('gen2'), ...rows<LinkMode>(cAssembly, ['tbt3-20', 2], ['usb4-20', 2])],
  'usb4-40': [
    ...passiveFullFeatured('gen2'),
    ...rows<LinkMode>(cAssembly, ['tbt3-20', 2], ['usb4-20', 2], ['tbt3-40', 0.8], ['usb4-40', 0.8]),
  ],
  'usb4-80': [
    ...passiveFullFeatured('gen2'),
    ...rows<LinkMode>(cAssembly, ['tbt3-20', 2], ['usb4-20', 2], ['tbt3-40', 1], ['usb4-40', 1], ['usb4-80', 1]),
  ],
  thunderbolt2: rows(tbt3Passive, ['tbt3-20', 2]),
  thunderbolt3: [
    ...passiveFullFeatured('gen2'),
    ...rows<LinkMode>(tbt3Passive, ['tbt3-20', 2], ['usb4-20', 2], ['tbt3-40', 0.5], ['usb4-40', 0.5]),
  ],
  thunderbolt4: [
    ...passiveFullFeatured('gen2'),
    ...rows<LinkMode>(tbt4Passive, ['tbt3-20', 2], ['usb4-20', 2], ['tbt3-40', 0.8], ['usb4-40', 0.8]),
  ],
}
passiveCToC.thunderbolt5 = passiveCToC['usb4-80']

/** Active leads repeat the signal; one length for all they carry. */
const evenly = (source: Source, reach: Metres, ...modes: LinkMode[]): Reach<LinkMode>[] =>
  modes.map((mode) => ({ mode, reach, source }))
const everyMode40 = [
  'usb2',
  'gen1x1',
  'gen1x2',
  'gen2x1',
  'gen2x2',
  'tbt3-20',
  'usb4-20',
  'tbt3-40',
  'usb4-40',
] as const

const activeCToC: Partial<Record<CableGrade, readonly Reach<LinkMode>[]>> = {
  usb2: evenly(activeUsb, 5, 'usb2'),
  gen1: evenly(activeUsb, 5, 'usb2', 'gen1x1'),
  gen2: evenly(activeUsb, 5, 'usb2', 'gen1x1', 'gen2x1'),
  'usb4-20': evenly(usb4Active, 2, 'usb2', 'gen1x1', 'gen1x2', 'gen2x1', 'gen2x2', 'tbt3-20', 'usb4-20'),
  'usb4-40': evenly(usb4Active, 2, ...everyMode40),
  'usb4-80': evenly(usb4Active, 2, ...everyMode40, 'usb4-80'),
  thunderbolt2: evenly(tbt3Active, 2, 'tbt3-20'),
  thunderbolt3: evenly(tbt3Active, 2, 'usb2', 'tbt3-20', 'tbt3-40'),
  thunderbolt4: evenly(usb4Active, 2, ...everyMode40),
  thunderbolt5: evenly(usb4Active, 2, ...everyMode40, 'usb4-80'),
}

/** Optical leads carry the fast pairs only; a USB 2.0 pair beside them is for the chip or a test to say. */
const opticalCToC: Partial<Record<CableGrade, readonly Reach<LinkMode>[]>> = {
  gen1: evenly(opticalUsb, 50, 'gen1x1'),
  gen2: evenly(opticalUsb, 50, 'gen1x1', 'gen2x1'),
  'usb4-20': evenly(opticalUsb, 50, 'tbt3-20', 'usb4-20'),
  'usb4-40': evenly(opticalUsb, 50, 'tbt3-20', 'usb4-20', 'tbt3-40', 'usb4-40'),
  'usb4-80': evenly(opticalUsb, 50, 'tbt3-20', 'usb4-20', 'tbt3-40', 'usb4-40', 'usb4-80'),
  thunderbolt3: evenly(opticalUsb, 50, 'tbt3-20', 'tbt3-40'),
  thunderbolt4: evenly(opticalUsb, 50, 'tbt3-20', 'usb4-20', 'tbt3-40', 'usb4-40'),
}
opticalCToC.thunderbolt5 = opticalCToC['usb4-80']

const legacyLead = (grade: CableGrade, construction: Construction): readonly Reach<LinkMode>[] => {
  const fast = grade !== 'usb2'
  const faster = fast && grade !== 'gen1'
  if (grade === 'charge-only') return []
  if (construction === 'passive') {
    return [
      ...rows<LinkMode>(usb2Delay, ['usb2', 5]),
      ...(fast ? rows<LinkMode>(legacy5, ['gen1x1', 3]) : []),
      ...(faster ? rows<LinkMode>(legacy10, ['gen2x1', 1]) : []),
    ]
  }
  const modes: LinkMode[] = ['usb2', ...(fast ? (['gen1x1'] as const) : []), ...(faster ? (['gen2x1'] as const) : [])]
  return construction === 'active'
    ? evenly(activeUsb, 5, ...modes)
    : evenly(opticalUsb, 50, ...modes.filter((mode) => mode !== 'usb2'))
}

const extensionLead = (grade: CableGrade, construction: Construction): readonly Reach<LinkMode>[] => {
  if (construction !== 'passive') return legacyLead(grade, construction)
  if (grade === 'charge-only') return []
  return [
    ...rows<LinkMode>(usb2Delay, ['usb2', 5]),
    ...(grade === 'usb2' ? [] : rows<LinkMode>(passiveExtension, ['gen1x1', 1])),
  ]
}

const overCategory: Partial<Record<CableGrade, readonly Reach<LinkMode>[]>> = {
  cat5: evenly(categoryExtenders, 25, 'usb2'),
  cat6: evenly(categoryExtenders, 50, 'usb2'),
  cat6a: evenly(categoryExtenders, 100, 'usb2', 'gen1x1', 'gen2x1'),
  fibre: evenly(fibreExtenders, 1000, 'usb2', 'gen1x1', 'gen2x1'),
}

const dpLadder = (...pairs: [DisplayPortLink, Metres][]): Reach<DisplayPortLink>[] => [
  ...rows<DisplayPortLink>(rbrReach, ['rbr', 15]),
  ...rows<DisplayPortLink>(dpClasses, ['hbr', 3], ...pairs),
]
const passiveDisplayPort: Partial<Record<CableGrade, readonly Reach<DisplayPortLink>[]>> = {
  'dp-hbr2': dpLadder(['hbr2', 3]),
  'dp-hbr3': dpLadder(['hbr2', 3], ['hbr3', 2]),
  dp40: dpLadder(['hbr2', 3], ['hbr3', 2], ['uhbr10', 2]),
  dp54: dpLadder(['hbr2', 3], ['hbr3', 2], ['uhbr10', 2], ['uhbr13.5', 2]),
  dp80: dpLadder(['hbr2', 3], ['hbr3', 2], ['uhbr10', 2], ['uhbr13.5', 2], ['uhbr20', 1]),
}
const hdmiLadder = (...pairs: [HdmiLevel, Metres][]): Reach<HdmiLevel>[] => [
  ...rows<HdmiLevel>(hdmiEveryday, ['tmds-4.95', 15]),
  ...rows<HdmiLevel>(hdmiPractice, ['tmds-10.2', 7], ...pairs),
]
const passiveHdmi: Partial<Record<CableGrade, readonly Reach<HdmiLevel>[]>> = {
  'hdmi-10': hdmiLadder(),
  'hdmi-18': hdmiLadder(['tmds-18', 5]),
  'hdmi-48': hdmiLadder(
    // up to here a lane carries 6 Gb/s at most, as at 18 Gb/s
    ['tmds-18', 5],
    ['frl-9', 5],
    ['frl-18', 5],
    ['frl-24', 5],
    ['frl-32', 3],
    ['frl-40', 3],
    ['frl-48', 3],
  ),
}

/** An active or optical lead goes at least as far as a passive one of its grade. */
const stretched = <T>(passive: readonly Reach<T>[], reach: Metres): readonly Reach<T>[] =>
  passive.map((row) => (row.reach > reach ? row : { mode: row.mode, reach, source: activePicture }))

/** Pictures over the fast pairs of a type-C lead: each pair's rating bounds the lane. */
const pairBounds = fromMemory('USB Type-C alternate mode: a 5 Gb/s pair carries HBR2, 10 Gb/s UHBR10, 20 Gb/s UHBR20')
function picturesOverPairs(data: readonly Reach<LinkMode>[]): Reach<DisplayPortLink>[] {
  const reachOf = (mode: LinkMode): Metres => data.find((row) => row.mode === mode)?.reach ?? 0
  const lanes: [LinkMode, DisplayPortLink[]][] = [
    ['gen1x1', ['rbr', 'hbr', 'hbr2']],
    ['gen2x1', ['hbr3', 'uhbr10']],
    ['usb4-40', ['uhbr13.5', 'uhbr20']],
  ]
  return lanes.flatMap(([mode, links]) =>
    reachOf(mode) > 0 ? links.map((link) => ({ mode: link, reach: reachOf(mode), source: pairBounds })) : [],
  )
}

const tables = new Map<string, LeadReach>()

/**
 * What a lead carries and how far, from its grade, construction and ends: the published limits and, where the standard gives
 * none, common practice (each row names its source). A charge-only or unknown lead has no rows. An active USB lead reaches
 * further where it is fed at its far end.
 */
export function leadReach(
  grade: CableGrade | null,
  construction: Construction,
  shape: LeadShape,
  feeding: Feeding = 'unfed',
): LeadReach {
  const key = `${grade}|${construction}|${shape}|${feeding}`
  const known = tables.get(key)
  if (known) return known
  const unfed = makeLeadReach(grade, construction, shape)
  const made = feeding === 'fed' ? { ...unfed, data: unfed.data.map(fedRow) } : unfed
  tables.set(key, made)
  return made
}

const furthest = new Map<string, Metres>()

/** The furthest that any lead of a build carries a mode by the book: how long one may be that is not marked, and was only tried. */
export function bookReach(
  construction: Construction,
  shape: LeadShape,
  feeding: Feeding,
  mode: LinkMode | DisplayPortLink | HdmiLevel,
): Metres {
  const key = `${construction}|${shape}|${feeding}|${mode}`
  const known = furthest.get(key)
  if (known !== undefined) return known
  let reach = 0
  for (const grade of CABLE_GRADES) {
    const { data, displayport, hdmi } = leadReach(grade, construction, shape, feeding)
    for (const row of [...data, ...displayport, ...hdmi]) if (row.mode === mode) reach = Math.max(reach, row.reach)
  }
  furthest.set(key, reach)
  return reach
}

const fedRow = (row: Reach<LinkMode>): Reach<LinkMode> =>
  row.source === activeUsb ? { ...row, reach: FED_REACH, source: fedUsb } : row

function makeLeadReach(grade: CableGrade | null, construction: Construction, shape: LeadShape): LeadReach {
  if (grade === null) return { data: [], displayport: [], hdmi: [] }
  const data = dataReach(grade, construction, shape)
  const dp = passiveDisplayPort[grade] ?? []
  const hdmi = passiveHdmi[grade] ?? []
  const overPairs = shape === 'c-c' || shape === 'c-extension' ? picturesOverPairs(data) : []
  const reach = construction === 'optical' ? 50 : 10
  return {
    data,
    displayport: construction === 'passive' ? [...dp, ...overPairs] : [...stretched(dp, reach), ...overPairs],
    hdmi: construction === 'passive' ? hdmi : stretched(hdmi, reach),
  }
}

function dataReach(grade: CableGrade, construction: Construction, shape: LeadShape): readonly Reach<LinkMode>[] {
  if (shape === 'legacy') return legacyLead(grade, construction)
  if (shape === 'extension') return extensionLead(grade, construction)
  if (shape === 'other') return overCategory[grade] ?? []
  const table = construction === 'passive' ? passiveCToC : construction === 'active' ? activeCToC : opticalCToC
  return table[grade] ?? []
}
