import { type BatteryCourse, batteryCourse, CHARGE_CEILING, encodedRate, leadForArea } from '../../core/headset/headset'
import { addLevels, distanceFor } from '../../core/placement/sound'
import { ALLOWED_DROP, type Drop, GROUND_WIRES, loopDrop, wireDrop } from '../../core/power/wire'
import { lengthOfLegs } from '../../core/quantity/along'
import { formatLengthBoth, parseLength } from '../../core/quantity/length'
import { plainText } from '../../core/quantity/parsed'
import { formatRate, MEGABYTE_PER_SECOND, parseRate } from '../../core/quantity/rate'
import { conduitFill, plugPasses } from '../../core/route/conduit'
import { parseLegs } from '../../core/route/legs'
import { netOf, shortest } from '../../core/route/net'
import { LINK_MODES } from '../../core/standards/link-modes'
import { type Band, jobSeconds, predictStorage, type StorageChain } from '../../core/storage/storage'
import { Failure } from '../failure'
import {
  type Answer,
  boundedNumber,
  lengthOf,
  listOf,
  must,
  needText,
  numberOf,
  oneOf,
  textOf,
  twoNumbers,
  type Words,
} from './calc-words'

const megabytes = (rate: number): number => Math.round(rate / MEGABYTE_PER_SECOND)
const rounded = (value: number, places: number): number => Number(value.toFixed(places))

export function storageCalc(words: Words): Answer {
  const mode = oneOf(words, 'mode', LINK_MODES, 'usb4-40')
  const drive = (name: string): number => numberOf(words, name, 1, 100_000, 100_000) * MEGABYTE_PER_SECOND
  const pcie = textOf(words, 'pcie')
  const chain: StorageChain = {
    mode,
    drive: { write: drive('drive-write'), read: drive('drive-read') },
    pcie: pcie === undefined ? undefined : pcieOf(pcie),
    bridge: oneOf<'good' | 'poor'>(words, 'bridge', ['good', 'poor'], 'good'),
    users: numberOf(words, 'users', 1, 64, 1),
  }
  const { write, read } = predictStorage(chain)
  const job = textOf(words, 'job')
  const bytes = job === undefined ? null : bytesOf(job)
  const shown = ({ low, high, limitedBy }: Band) => ({ lowMBps: megabytes(low), highMBps: megabytes(high), limitedBy })
  return {
    json: {
      write: shown(write),
      read: shown(read),
      ...(bytes === null ? {} : { jobSeconds: jobSeconds(bytes, write) }),
    },
    text: [
      ...(
        [
          ['write', write],
          ['read', read],
        ] as const
      ).map(
        ([way, band]) =>
          `${way} ${megabytes(band.low)} to ${megabytes(band.high)} MB/s, limited by the ${band.limitedBy}`,
      ),
      ...(bytes === null
        ? []
        : [
            `${job} written in ${duration(jobSeconds(bytes, write).quickest)} to ${duration(jobSeconds(bytes, write).slowest)}`,
          ]),
    ],
  }
}

function pcieOf(text: string): NonNullable<StorageChain['pcie']> {
  const found = /^([345])x([124])$/.exec(text)
  if (!found) throw new Failure(`--pcie takes generation x lanes, 3x1 to 5x4, not "${text}".`)
  return { generation: Number(found[1]) as 3 | 4 | 5, lanes: Number(found[2]) as 1 | 2 | 4 }
}

function bytesOf(text: string): number {
  const found = /^(\d+(?:\.\d+)?)\s*(MB|GB|TB)$/i.exec(text.trim())
  const unit = { mb: 1e6, gb: 1e9, tb: 1e12 }[found?.[2]?.toLowerCase() ?? '']
  if (!found || !unit) throw new Failure(`--job takes an amount like "100 GB" (decimal units), not "${text}".`)
  return Number(found[1]) * unit
}

const duration = (seconds: number | null): string =>
  seconds === null ? 'no time at all' : seconds < 120 ? `${Math.round(seconds)} s` : `${Math.round(seconds / 60)} min`

export function dropCalc(words: Words): Answer {
  const amps = numberOf(words, 'amps', 0, 20)
  const drop: Drop =
    textOf(words, 'loop') === undefined
      ? must(
          wireDrop({
            awg: numberOf(words, 'awg', 0, 40),
            length: lengthOf(words, 'length'),
            amps,
            celsius: numberOf(words, 'celsius', -40, 105, 20),
            groundWires: GROUND_WIRES,
          }),
        )
      : loopDrop(numberOf(words, 'loop', 0.000001, 100), amps)
  const { supply, ground, total, watts, allowed } = drop
  return {
    json: { supplyVolts: supply, groundVolts: ground, totalVolts: total, watts, allowed },
    text: [
      `lost: ${rounded(total, 3)} V (${rounded(supply, 3)} supply, ${rounded(ground, 3)} ground), ${rounded(watts, 2)} W of heat`,
      `${allowed ? 'within' : 'more than'} the ${ALLOWED_DROP.supply} V on the supply and ${ALLOWED_DROP.ground} V on ground a cable may lose`,
    ],
  }
}

export function headsetCalc(words: Words): Answer {
  const course = batteryCourse({
    capacity: numberOf(words, 'capacity', 0.1, 1000),
    draw: numberOf(words, 'draw', 0.1, 240),
    supply: numberOf(words, 'supply', 0, 240, 0),
    start: numberOf(words, 'start', 0, 100, 100) / 100,
  })
  const lines = [courseWords(course)]
  const measured = textOf(words, 'measured')
  const link =
    measured === undefined
      ? null
      : encodedRate({ measured: must(parseRate(measured)), decoder: must(parseRate(needText(words, 'decoder'))) })
  if (link)
    lines.push(
      `${formatRate(link.rate)} reach the eye, limited by the ${link.limit}; a faster cable ${link.fasterCableHelps ? 'would' : 'would not'} show`,
    )
  const area = textOf(words, 'area')
  const lead = area === undefined ? null : areaLead(words, area)
  if (lead !== null)
    lines.push(
      `the lead to the far corner at head height: ${formatLengthBoth(lead)}`,
      'A lead on the floor trips and pulls: guide it overhead or give it a breakaway.',
    )
  return {
    json: { battery: course, ...(link ? { link } : {}), ...(lead === null ? {} : { leadMetres: lead }) },
    text: lines,
  }
}

function courseWords(course: BatteryCourse): string {
  if (course.course === 'holds') return 'the battery holds'
  if (course.course === 'drains') return `the battery lasts ${rounded(course.hours, 2)} h`
  return course.hoursToCeiling === 0
    ? `the battery stays at its ceiling of charging, near ${CHARGE_CEILING * 100} %`
    : `the battery charges, to its ceiling near ${CHARGE_CEILING * 100} % in ${rounded(course.hoursToCeiling, 2)} h`
}

function areaLead(words: Words, area: string): number {
  const [width, depth] = twoNumbers(area, '--area', 0.1, 50)
  return leadForArea({
    width,
    depth,
    portHeight: lengthOf(words, 'port', '0.5 m'),
    headHeight: lengthOf(words, 'head', '1.7 m'),
  })
}

export function soundCalc(words: Words): Answer {
  const levels = listOf(words, 'level').map((text) => boundedNumber(text, '--level', 0, 140))
  if (levels.length === 0) throw new Failure('One --level or more, please, in dB.')
  const together = addLevels(levels)
  const at = lengthOf(words, 'at')
  const wanted = numberOf(words, 'wanted', 0, 140)
  const distance = distanceFor(together, at, wanted)
  return {
    json: { togetherDb: together, distanceMetres: distance },
    text: [
      `together ${rounded(together, 1)} dB at ${formatLengthBoth(at)}; ${wanted} dB from ${formatLengthBoth(distance)} on, in the open`,
    ],
  }
}

export function wayCalc(words: Words): Answer {
  const pathways = listOf(words, 'pathway').map(pathwayOf)
  const from = needText(words, 'from')
  const to = needText(words, 'to')
  const avoid = listOf(words, 'avoid')
  const usable = pathways.filter(({ conditions }) => !conditions.some((condition) => avoid.includes(condition)))
  const places = [...new Set([from, to, ...usable.flatMap((pathway) => [pathway.from, pathway.to])])]
  const nodeOf = (place: string): number => places.indexOf(place)
  const net = netOf(
    places.length,
    usable.map(({ from, to, length }) => ({ from: nodeOf(from), to: nodeOf(to), length })),
  )
  const found = shortest(net, [[nodeOf(from), 0]], new Map([[nodeOf(to), 0]]))
  if (found === null)
    throw new Failure(`No pathway given leads from ${from} to ${to}${avoid.length > 0 ? ' that way' : ''}.`)
  const way = found.edges.flatMap((edge) => usable[net.of[edge] as number] ?? [])
  const conditions = [...new Set(way.flatMap((pathway) => pathway.conditions))].sort()
  const names = way.map(({ id }) => id)
  return {
    json: { lengthMetres: found.cost, pathways: names, conditions },
    text: [
      `${formatLengthBoth(found.cost)}: ${names.join(', ') || 'no way at all to go'}`,
      ...(conditions.length > 0
        ? [`on it: ${conditions.join(', ')}. What that asks for is a matter of the local code: ask a licensed person.`]
        : []),
    ],
  }
}

/** A way between two places as the command line says it: "rack tray 3m outdoors" is two places, a length, and what holds there. */
function pathwayOf(text: string): { id: string; from: string; to: string; length: number; conditions: string[] } {
  const [from, to, length, ...conditions] = text.trim().split(/\s+/)
  if (from === undefined || to === undefined || length === undefined)
    throw new Failure(`A pathway is "rack tray 3m" or "tray desk 14ft outdoors", not "${text}".`)
  return { id: `${from}-${to}`, from, to, length: must(parseLength(length)), conditions }
}

export function routeCalc(words: Words): Answer {
  const said = listOf(words, 'leg')
  const lines: string[] = []
  const slack = textOf(words, 'slack') === undefined ? 0 : lengthOf(words, 'slack')
  const length = said.length === 0 ? null : lengthOfLegs(must(parseLegs(said.join(', ')))) + 2 * slack
  if (length !== null) lines.push(`the lead must be ${formatLengthBoth(length)} or longer`)
  const cables = listOf(words, 'cable').map((text) => millimetres(text, '--cable'))
  const conduit = textOf(words, 'conduit')
  const inner = conduit === undefined ? null : millimetres(conduit, '--conduit')
  const fill = inner === null ? null : { ...conduitFill(inner, cables), plugPasses: plugPasses(inner) }
  if (fill) {
    lines.push(
      `the conduit is ${Math.round(fill.share * 100)} % full, ${fill.allowed ? 'within' : 'above'} the usual ${Math.round(fill.limit * 100)} %; a moulded type-C plug ${fill.plugPasses ? 'passes' : 'does not pass'}`,
      'Jacket rating, fire stopping and separation from mains follow the local code: ask a licensed person.',
    )
  }
  if (length === null && !fill)
    throw new Failure('Give --leg for a length, or --conduit with --cable for how full it is.')
  return {
    json: { ...(length === null ? {} : { lengthMetres: length }), ...(fill ? { conduit: fill } : {}) },
    text: lines,
  }
}

/** Cross-sections are said in millimetres: "20mm" or "20". */
const millimetres = (text: string, name: string): number =>
  boundedNumber(plainText(text).replace(/ ?mm$/i, ''), `${name} (in mm)`, 0.5, 500) / 1000
