import { laidOnce } from '../../core/link/lay'
import { besideWatts, type PowerLink, powerLink } from '../../core/link/power-link'
import { emptyPlan } from '../../core/plan/plan'
import { readPlan } from '../../core/plan/read'
import { indexPlan } from '../../core/plan/site-index'
import { type Level, levelsOf } from '../../core/power/negotiate'
import { type Pool, sharePool, strongerOf } from '../../core/power/pool'
import { decimal } from '../../core/quantity/parsed'
import { formatWatts, type Watts } from '../../core/quantity/watts'
import type { Run } from '../../core/vocabulary/run'
import { Failure } from '../failure'
import { type Answer, boundedNumber, needText, numberOf, oneOf, textOf, type Words } from './calc-words'

export function powerCalc(words: Words): Answer {
  if (textOf(words, 'pool') !== undefined) return poolCalc(words)
  const levelsText = textOf(words, 'levels')
  const kept = numberOf(words, 'kept', 0, 240, 0)
  const { first, passed, beside } = laidPower({
    supply:
      levelsText === undefined ? { gives: numberOf(words, 'supply', 1, 240) } : { levels: levelsFrom(levelsText) },
    amps: Number(oneOf(words, 'amps', ['0', '3', '5'], '3')),
    volts: Number(oneOf(words, 'volts', ['20', '50'], '20')),
    accepts: textOf(words, 'accepts')
      ?.split(',')
      .map((each) => boundedNumber(each, '--accepts', 3, 50)),
    kept,
    second: numberOf(words, 'second', 0, 240, 0),
  })
  const watts = strongerOf([passed, beside])
  const wants = textOf(words, 'wants') === undefined ? null : numberOf(words, 'wants', 0.1, 240)
  const levels = levelsOf(first.giver.port)
  const shown = (level: Level): string => `${level.volts} V x ${decimal(level.amps, 2)} A`
  return {
    json: {
      levels,
      watts,
      level: first.level,
      limit: first.limit,
      ...(wants === null ? {} : { wants, enough: watts >= wants }),
    },
    text: [
      `offered: ${levels.map(shown).join(', ')}`,
      `arrives: ${formatWatts(first.watts)}${first.level ? ` (${shown(first.level)})` : ''}, limited by the ${first.limit}`,
      ...(kept > 0 ? [`passed on: ${formatWatts(passed)}, after ${formatWatts(kept)} that the hub keeps`] : []),
      ...(watts > passed ? [`the second supply is stronger, and only that one is used: ${formatWatts(watts)}`] : []),
      ...(wants === null
        ? []
        : [watts >= wants ? `enough for ${formatWatts(wants)}` : `less than the ${formatWatts(wants)} wanted`]),
      'Above 60 W only with a lead marked 5 A, above 100 W only with extended power range parts.',
    ],
  }
}

type PowerAsked = {
  supply: { gives: Watts } | { levels: Level[] }
  amps: number
  volts: number
  accepts: number[] | undefined
  kept: Watts
  second: Watts
}

/** The most that any port gives or takes. */
const MOST: Watts = 240
/** A lead that holds nothing back. */
const WIDE = { amps: 5, volts: 50 }

/** The supply, its lead, a hub where one keeps some, and a second supply, laid as a small site and asked as every page asks. */
function laidPower({ supply, amps, volts, accepts, kept, second }: PowerAsked): {
  first: PowerLink
  passed: Watts
  beside: Watts
} {
  const port = (id: string, more: object) => ({ id, name: id, connector: 'type-c', ...more })
  const device = (id: string, kind: string, ports: object[], more: object = {}) => ({
    id,
    name: id,
    kind,
    ports,
    ...more,
  })
  const run = (id: string, from: string, to: string, into = 'in') => ({
    id,
    tag: id,
    from: { device: from, port: 'out' },
    to: { device: to, port: into },
    leads: [{ cable: id }],
    route: { length: 0.5 },
  })
  const marks = { first: { amps, volts }, passed: WIDE, beside: WIDE }
  const end = { connector: 'type-c' }
  const read = readPlan({
    ...emptyPlan({ id: 'calc', name: 'calc' }),
    devices: [
      device('supply', 'charger', [port('out', { role: 'host', ...supply })]),
      device('hub', 'hub', [port('in', { takes: MOST }), port('out', { role: 'host', gives: MOST })], {
        ...(kept > 0 ? { keeps: kept } : {}),
      }),
      device('device', 'computer', [port('in', { takes: MOST, accepts }), port('second', { takes: MOST })]),
      device('other', 'charger', [port('out', { role: 'host', ...(second > 0 ? { gives: second } : {}) })]),
    ],
    cables: Object.keys(marks).map((id) => ({ id, tag: id, ends: [end, end], length: 0.5 })),
    runs: [
      run('first', 'supply', kept > 0 ? 'hub' : 'device'),
      ...(kept > 0 ? [run('passed', 'hub', 'device')] : []),
      ...(second > 0 ? [run('beside', 'other', 'device', 'second')] : []),
    ],
    observations: Object.entries(marks).map(([id, marked]) => ({
      id,
      at: '2026-01-01T00:00:00.000Z',
      subject: { cable: id },
      kind: 'statement',
      basis: 'claimed',
      ...marked,
    })),
  })
  if (!read.ok) throw new Failure(read.faults.map(({ path, reason }) => `${path}: ${reason}`).join('; '))
  const index = indexPlan(read.plan)
  const runOf = (id: string): Run => index.runs.get(id) as Run
  const linkOf = (id: string): PowerLink => powerLink(index, laidOnce(index, runOf(id)), 'down')
  const last = kept > 0 ? 'passed' : 'first'
  return {
    first: linkOf('first'),
    passed: linkOf(last).watts,
    beside: besideWatts(index, runOf(last), 'device'),
  }
}

function levelsFrom(text: string): Level[] {
  return text.split(',').map((each) => {
    const [volts = '', amps = '', ...rest] = each.split('x')
    if (rest.length > 0) throw new Failure(`--levels takes volts x amps, like 5x3,9x3, not "${each}".`)
    return { volts: boundedNumber(volts, '--levels volts', 3, 50), amps: boundedNumber(amps, '--levels amps', 0.1, 5) }
  })
}

function poolCalc(words: Words): Answer {
  const [kind, first = '', second = ''] = needText(words, 'pool').split(':')
  const watts = (text: string): number[] => text.split(',').map((each) => boundedNumber(each, '--pool watts', 1, 240))
  const pool: Pool | null =
    kind === 'shared'
      ? { kind, total: boundedNumber(first, '--pool total', 1, 1000), ports: watts(second) }
      : kind === 'assured'
        ? { kind, ports: watts(first) }
        : kind === 'drops'
          ? { kind, alone: watts(first), together: watts(second) }
          : null
  if (pool === null) throw new Failure(`--pool takes shared:TOTAL:W,W, assured:W,W or drops:W,W:W,W, not "${kind}".`)
  const ports = pool.kind === 'drops' ? pool.alone.length : pool.ports.length
  const used = needText(words, 'used')
    .split(',')
    .map((each) => boundedNumber(each, '--used', 1, ports) - 1)
  const given = sharePool(pool, used)
  return {
    json: { watts: given },
    text: used.map((port) => `port ${port + 1}: ${formatWatts(given[port] ?? 0)}`),
  }
}
