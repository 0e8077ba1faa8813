import { givenWatts, levelsOf } from '../power/negotiate'
import { ALLOWED_DROP } from '../power/wire'
import { decimal } from '../quantity/parsed'
import { CABLE_GRADES, type CableGrade, CONSTRUCTIONS, type Construction, gradeFacts } from '../standards/grades'
import { LINK_MODES, linkModeFacts } from '../standards/link-modes'
import { DISPLAYPORT_LINKS, displayPortLane, HDMI_LEVELS, hdmiLink } from '../standards/picture-links'
import { type LeadShape, leadReach, printedLength, type Reach } from '../standards/reach'
import { citeSource } from '../standards/source'
import { type Port, portSchema } from '../vocabulary/device'

type Row = readonly string[]

/** A table as Markdown. */
const table = (title: string, head: Row, rows: readonly Row[]): string =>
  [
    `## ${title}`,
    '',
    `| ${head.join(' | ')} |`,
    `| ${head.map(() => '---').join(' | ')} |`,
    ...rows.map((row) => `| ${row.join(' | ')} |`),
    '',
  ].join('\n')

const gigabits = (rate: number): string => `${decimal(rate / 1e9, 3)} Gb/s`

const linkRows = (): Row[] =>
  LINK_MODES.map((mode) => {
    const { name, line, payload, tunnel, source } = linkModeFacts[mode]
    return [name, gigabits(line), gigabits(payload), tunnel ? 'yes' : '', citeSource(source)]
  })

const pictureRows = (): Row[] => [
  ...DISPLAYPORT_LINKS.map((link) => {
    const { name, payload, source } = displayPortLane[link]
    return [`DisplayPort ${name}`, `${gigabits(payload)} a lane, ${gigabits(payload * 4)} of four`, citeSource(source)]
  }),
  ...HDMI_LEVELS.map((level) => {
    const { name, payload, source } = hdmiLink[level]
    return [name, gigabits(payload), citeSource(source)]
  }),
]

const shapeNames: Record<LeadShape, string> = {
  'c-c': 'type-C at both ends',
  legacy: 'an older USB plug at one end or both',
  extension: 'extension with older plugs',
  'c-extension': 'type-C extension',
  other: 'picture, category cable and fibre',
}

/** Whether leads of a mark have such ends at all. */
function belongs(shape: LeadShape, grade: (typeof CABLE_GRADES)[number]): boolean {
  const isOther = /^(dp|hdmi|cat|fibre)/.test(grade)
  if (shape === 'other') return isOther
  return shape === 'c-c' ? !isOther : ['usb2', 'gen1', 'gen2'].includes(grade)
}

/** Gathers what has the same key, in the order it came. */
function gathered<T>(items: readonly T[], keyOf: (item: T) => string): T[][] {
  const groups = new Map<string, T[]>()
  for (const item of items) groups.set(keyOf(item), [...(groups.get(keyOf(item)) ?? []), item])
  return [...groups.values()]
}

type Carried = { ends: string; built: string; mark: string; name: string; far: string; source: string }

/** One thing that a sort of lead carries, and how far. */
function carriedBy(shape: LeadShape, construction: Construction, grade: CableGrade): Carried[] {
  const { data, displayport, hdmi } = leadReach(grade, construction, shape)
  const fed = leadReach(grade, construction, shape, 'fed').data
  const far = ({ mode, reach }: { mode: string; reach: number }): string => {
    const further = fed.find((row) => row.mode === mode)?.reach ?? reach
    return further > reach ? `${reach} m, ${further} m fed` : `${reach} m`
  }
  const told = <Mode extends string>(rows: readonly Reach<Mode>[], nameOf: (mode: Mode) => string): Carried[] =>
    rows.map((row) => ({
      ends: shapeNames[shape],
      built: construction,
      mark: gradeFacts[grade].name,
      name: nameOf(row.mode),
      far: far(row),
      source: citeSource(row.source),
    }))
  return [
    ...told(data, (mode) => linkModeFacts[mode].name),
    ...told(displayport, (mode) => `DisplayPort ${displayPortLane[mode].name}`),
    ...told(hdmi, (mode) => hdmiLink[mode].name),
  ]
}

/** Every reach: each figure once, with all the marks and all the links that it counts for. */
function reachRows(): Row[] {
  const all = (['c-c', 'legacy', 'extension', 'other'] as const).flatMap((shape) =>
    CONSTRUCTIONS.flatMap((construction) =>
      CABLE_GRADES.filter((grade) => belongs(shape, grade)).flatMap((grade) => carriedBy(shape, construction, grade)),
    ),
  )
  const figure = ({ ends, built, far, source }: Carried): string => [ends, built, far, source].join('|')
  const marked = gathered(all, (row) => `${figure(row)}|${row.name}`).map((rows) => ({
    ...(rows[0] as Carried),
    mark: rows.map(({ mark }) => mark).join(', '),
  }))
  return gathered(marked, (row) => `${figure(row)}|${row.mark}`).map((rows) => {
    const { ends, built, mark, far, source } = rows[0] as Carried
    return [ends, built, mark, rows.map(({ name }) => name).join(', '), far, source]
  })
}

const charger = (gives: number): Port =>
  portSchema.parse({ id: 'p', name: 'p', connector: 'type-c', role: 'host', gives })

const powerRows = (): Row[] =>
  [15, 27, 45, 60, 65, 100, 140, 180, 240].map((rating) => [
    `${rating} W`,
    levelsOf(charger(rating))
      .map(({ volts, amps }) => `${volts} V x ${decimal(amps, 2)} A`)
      .join(', '),
    'USB Power Delivery, power rules (from memory)',
  ])

const defaultRows = (): Row[] =>
  (['usb2', 'gen1x1'] as const).map((usb) => [
    `a host port of ${linkModeFacts[usb].name} that says nothing`,
    `${givenWatts(portSchema.parse({ id: 'p', name: 'p', connector: 'type-a', role: 'host', usb }))} W`,
    'USB 2.0, USB 3.2 and USB Type-C default current (published)',
  ])

/** Every reach, rate and power table that verdicts follow from, with its sources, as a page of Markdown. */
export const standardTables = (): string =>
  [
    '# The tables that verdicts follow from',
    '',
    '`npm run schema` prints this page from the code, and a test checks it. "Published" names the standard. "Common practice" has no standard. "From memory" is a standard that nobody here has opened.',
    '',
    table('Links', ['link', 'on the wire', 'after coding', 'tunnels', 'source'], linkRows()),
    table('Picture links', ['link', 'payload', 'source'], pictureRows()),
    table('What a charger offers', ['rating', 'levels', 'source'], powerRows()),
    table('What a port gives', ['port', 'gives', 'source'], defaultRows()),
    `A cable may lose ${ALLOWED_DROP.supply} V on its supply and ${ALLOWED_DROP.ground} V on ground: ${citeSource(ALLOWED_DROP.source)}.`,
    '',
    `A lead counts for its reach as the length it is sold as, within 3 %: ${[3.3, 6.6, 10].map((feet) => `${feet} ft as ${printedLength(feet * 0.3048)} m`).join(', ')} (common practice).`,
    '',
    table('How far leads reach', ['ends', 'built', 'marks', 'carry', 'up to', 'source'], reachRows()),
  ].join('\n')
