import type { Crossing, Situation } from '../checks/situation'
import { bandOf, lanesOf } from '../checks/storage-target'
import { type PowerLimit, powerLink } from '../link/power-link'
import type { Reading } from '../observe/observation'
import { type BitsPerSecond, formatBytesPerSecond, formatRate, MEGABYTE_PER_SECOND } from '../quantity/rate'
import { formatWatts, type Watts } from '../quantity/watts'
import { linkModeFacts } from '../standards/link-modes'
import { type Limit, pcieCeiling, pcieRate } from '../storage/storage'

/** One step from what the box says down to what arrives. */
export type LadderStep = { label: string; figure: string; why: string }

/** Whether what was measured is what it should be, with the steps that lead there. */
export type Ladder = {
  /** `as it should`: nothing is wrong. `less`: a little below it. `far less`: something is wrong. `more`: more than there can be, which is for the instrument to explain. */
  verdict: 'as it should' | 'less' | 'far less' | 'more'
  measured: string
  expected: string
  steps: readonly LadderStep[]
  /** What would raise it. */
  raise: string
}

/** Readings down to this share of what is expected are merely less; copies and meters vary (common practice). */
const MERELY_LESS = 0.8

/** So much above what there can be is no scatter: a cache was read, or the unit is another. */
const TOO_GOOD = 1.2

function verdictOf(measured: number, least: number, most: number): Ladder['verdict'] {
  if (measured > most * TOO_GOOD) return 'more'
  if (measured >= least) return 'as it should'
  return measured >= least * MERELY_LESS ? 'less' : 'far less'
}

const RAISES: Record<Limit, string> = {
  link: 'A faster mode: a port, a lead and a disk that all have it.',
  share: 'Put the disk on its own lead, or take a picture off this one.',
  pcie: 'An enclosure with more lanes inside, in a port that gives it all of them.',
  drive: 'A faster drive. The link has more to give.',
}

/**
 * The steps from the rate on the box to the MB/s that a copy comes to over a run, and where what was measured lies: 40 Gb/s is 5,000 MB/s, less its coding, less
 * what pictures hold, less the lanes inside, less the protocol, and no faster than the drive (common practice). Null where nothing says what to expect.
 */
export function ladderOfCopy(
  situation: Situation,
  crossing: Crossing,
  way: 'write' | 'read',
  measured: BitsPerSecond,
): Ladder | null {
  const bands = bandOf(situation, crossing)
  const { mode } = situation.uplink
  if (!bands || mode === null) return null
  const here = crossing.usb2 ? 'usb2' : mode
  const { line, payload, name, tunnel } = linkModeFacts[here]
  const band = bands[way]
  const found = situation.uplink.admissions.find(({ need, carrier }) => need.id === crossing.need.id && carrier)?.found
  const share = found ? (way === 'write' ? found.down : found.up) : payload
  const steps: LadderStep[] = [
    {
      label: `${name} on the box`,
      figure: inBytes(line),
      why: `${formatRate(line)} are bits; eight of them are a byte`,
    },
    { label: 'less the coding of the link', figure: inBytes(payload), why: 'some bits keep the two ends in step' },
  ]
  if (share < payload)
    steps.push({
      label: 'less what else is on the same lead',
      figure: inBytes(share),
      why: 'pictures and others are served first',
    })
  const ceiling = pcieCeiling(here, situation.laid.from.port)
  if (ceiling !== undefined)
    steps.push({
      label: 'less what this controller lets through',
      figure: inBytes(ceiling),
      why: 'early controllers stop there',
    })
  const lanes = tunnel ? lanesOf(crossing.disk) : undefined
  if (lanes)
    steps.push({
      label: 'less what the lanes inside the enclosure carry',
      figure: inBytes(pcieRate(lanes)),
      why: `${lanes.lanes} of generation ${lanes.generation}`,
    })
  if (tunnel) {
    const { low, high } = situation.policy.storageOverhead
    steps.push({
      label: 'less the protocol',
      figure: `${Math.round(low * 100)} to ${Math.round(high * 100)} %`,
      why: 'commands and answers travel too',
    })
  }
  const drive = crossing.disk?.[way]
  if (drive !== undefined)
    steps.push({ label: 'and no faster than the drive', figure: inBytes(drive), why: 'as its data sheet says' })
  const expected = `${inBytes(band.low)} to ${inBytes(band.high)}`
  steps.push({ label: 'is what to expect', figure: expected, why: RAISES[band.limitedBy] })
  return {
    verdict: verdictOf(measured + MEGABYTE_PER_SECOND / 2, band.low, band.high),
    measured: inBytes(measured),
    expected,
    steps,
    raise: RAISES[band.limitedBy],
  }
}

const inBytes = (rate: BitsPerSecond): string => formatBytesPerSecond(rate)

/** A device draws a little less than was agreed on. */
const DRAWN_SHARE = 0.9

const POWER_RAISES: Record<PowerLimit, string> = {
  supply: 'A stronger supply.',
  lead: 'A lead marked for 5 A, or 240 W.',
  device: 'Nothing: the device takes no more.',
  plug: 'A type-C lead at both ends: an older plug gives 5 V and no more.',
  pool: 'The supply alone on this port.',
  fed: 'A stronger supply for the hub.',
  mains: 'Mains where the supply stands.',
  seen: 'It was measured here before. Another supply or lead, both marked for it.',
}

/** The same of power: from the plate of the supply to what arrives. */
export function ladderOfWatts({ index, laid, crossings }: Situation, measured: Watts): Ladder {
  const way = crossings.find(({ need }) => need.kind === 'power')?.way ?? 'down'
  const link = powerLink(index, laid, way)
  const { takes } = link.taker.port
  const expected = Math.min(link.watts, takes ?? link.watts)
  const raise = takes !== undefined && takes <= link.watts ? POWER_RAISES.device : POWER_RAISES[link.limit]
  const steps: LadderStep[] = [
    {
      label: `on the plate of ${link.giver.device.name}`,
      figure: formatWatts(link.giver.port.gives ?? link.offered),
      why: 'what its port gives at most',
    },
  ]
  if (link.sharers.length > 0)
    steps.push({
      label: 'less what its other ports take',
      figure: formatWatts(link.watts),
      why: `in use: ${link.sharers.join(', ')}`,
    })
  steps.push({
    label: 'is what supply, lead and device agree on',
    figure: link.level ? `${link.level.volts} V, ${link.level.amps} A` : formatWatts(link.watts),
    why: 'the highest level that all three can do',
  })
  if (takes !== undefined)
    steps.push({
      label: 'and no more than the device takes',
      figure: formatWatts(takes),
      why: `as ${link.taker.device.name} is described`,
    })
  steps.push({ label: 'is what to expect', figure: formatWatts(expected), why: raise })
  return {
    verdict: verdictOf(measured, expected * DRAWN_SHARE, expected),
    measured: formatWatts(measured),
    expected: formatWatts(expected),
    steps,
    raise,
  }
}

/** The ladder of a reading of a run; null where it has none. */
export function ladderOf(situation: Situation, reading: Reading): Ladder | null {
  if (reading.measure === 'watts') return ladderOfWatts(situation, reading.watts)
  if (reading.measure !== 'write' && reading.measure !== 'read') return null
  const crossing = situation.crossings.find(({ need }) => need.kind === 'storage')
  return crossing ? ladderOfCopy(situation, crossing, reading.measure, reading.rate) : null
}
