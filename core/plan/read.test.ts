import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cases } from '../../tests/support/laws'
import { LARGEST_FILE_BYTES, readPlan, readPlanText } from './read'

const text = readFileSync('demo/saltmarsh.json', 'utf8')
const demo = () => JSON.parse(text)
const faultsOf = (json: unknown) => {
  const read = readPlan(json)
  return read.ok ? [] : read.faults.map(({ path, reason }) => `${path}: ${reason}`)
}
/** The demo with one thing changed. */
const spoilt = (change: (plan: ReturnType<typeof demo>) => void) => {
  const plan = demo()
  change(plan)
  return faultsOf(plan)
}

describe('a plan file', () => {
  it('that is sound becomes a plan, and is the same when read again', () => {
    const read = readPlanText(text)
    expect(read.ok).toBe(true)
    if (read.ok) expect(readPlan(JSON.parse(JSON.stringify(read.plan)))).toEqual(read)
  })

  it('may say quantities as people write them', () => {
    const plan = demo()
    plan.runs[1].route.length = '41 ft'
    const read = readPlan(plan)
    expect(read.ok && read.plan.runs[1]?.route.length).toBeCloseTo(12.4968, 6)
  })

  it.each([
    ['a wrong type', (p) => (p.runs[2].tag = 7), 'runs[2].tag: '],
    ['an unknown connector', (p) => (p.devices[0].ports[0].connector = 'type-q'), 'devices[0].ports[0].connector: '],
    ['no length', (p) => (p.cables[3].length = 0), 'cables[3].length: 0 is outside'],
    ['a negative length', (p) => (p.cables[3].length = -1), 'cables[3].length: -1 is outside'],
    ['an absurd length', (p) => (p.runs[0].route.length = 1e9), 'runs[0].route.length: 1000000000 is outside'],
    [
      'a length in parsecs',
      (p) => (p.runs[0].route.length = '5 parsecs'),
      'runs[0].route.length: "5 parsecs" is not a length',
    ],
    [
      'a cable that is not there',
      (p) => (p.runs[0].leads[0].cable = 'c-9'),
      'runs[0].leads[0].cable: there is no cable "c-9"',
    ],
    ['a device that is not there', (p) => (p.needs[1].to = 'ghost'), 'needs[1].to: there is no device "ghost"'],
    [
      'a port that is not there',
      (p) => (p.runs[1].to.port = 'x'),
      'runs[1].to.port: there is no port on device "view-2" called "x"',
    ],
    ['a place that is not there', (p) => (p.devices[1].place = 'moon'), 'devices[1].place: there is no place "moon"'],
    ['a kind that is not there', (p) => (p.cables[0].kind = 'k'), 'cables[0].kind: there is no cable kind "k"'],
    ['a pin that is not there', (p) => (p.needs[0].through = ['r-99']), 'needs[0].through[0]: there is no run "r-99"'],
    ['a repeated id', (p) => (p.cables[1].id = p.cables[0].id), 'cables[1].id: "c-0001" is used twice'],
    ['a repeated tag', (p) => (p.runs[1].tag = 'r-01'), 'runs[1].tag: "r-01" is used twice'],
    [
      'a cable in two runs',
      (p) => (p.runs[1].leads[0].cable = 'c-0003'),
      'runs[1].leads[0].cable: cable "c-0003" already lies in run "r-01"',
    ],
    [
      'a run onto itself',
      (p) => (p.runs[0].to = p.runs[0].from),
      'runs[0].to: a run cannot end at the port it starts from',
    ],
    ['a need onto itself', (p) => (p.needs[0].to = p.needs[0].from), 'needs[0].to: a need flows between two devices'],
    ['a field nobody knows', (p) => (p.cables[0].colour = 'red'), 'cables[0].colour: not a field of the plan file'],
    [
      'a trial in no mode',
      (p) => (p.observations.find((o: { kind: string }) => o.kind === 'trial').tried = 'warp'),
      'observations[',
    ],
    ['a wrong day', (p) => (p.sessions[0].on = '2026-02-31'), 'sessions[0].on: a day is written 2026-11-25'],
    ['a newer version', (p) => (p.version = 99), 'version: a newer Hallway wrote this (version 99); this one reads'],
    ['a wrong version', (p) => (p.version = 'x'), 'version: this Hallway reads versions 1 to 5, the file says "x"'],
    ['another format', (p) => (p.format = 'drawing'), 'format: must be "hallway-plan"'],
  ] as [string, (plan: ReturnType<typeof demo>) => void, string][])(
    'with %s is refused with its path',
    (_name, change, fault) => {
      expect(spoilt(change).some((line) => line.startsWith(fault))).toBe(true)
    },
  )

  it('is told every fault at once', () => {
    expect(
      spoilt((plan) => {
        plan.cables[3].length = 0
        plan.runs[2].tag = ''
        plan.devices[0].ports[0].connector = 'type-q'
      }),
    ).toHaveLength(3)
  })

  it.each(['', 'nonsense', '[]', 'null', '7', '{', '{"format":"hallway-plan"}', 'a'.repeat(10_000)])(
    '%j is refused',
    (given) => {
      expect(readPlanText(given).ok).toBe(false)
    },
  )

  it('larger than any plan is refused before it is parsed', () => {
    expect(readPlanText(' '.repeat(LARGEST_FILE_BYTES + 1))).toMatchObject({ ok: false, faults: [{ path: '(file)' }] })
  })

  it('of any JSON at all never makes the reader throw', () => {
    fc.assert(
      fc.property(fc.jsonValue(), fc.jsonValue(), (runs, cables) => {
        const read = readPlan({ ...demo(), runs, cables })
        if (!read.ok) expect(read.faults.length).toBeGreaterThan(0)
      }),
      { numRuns: cases(200) },
    )
  })
})
