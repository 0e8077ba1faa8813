import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cases } from '../../tests/support/laws'
import { judge, type LeadInput, type OneRun } from '../../tests/support/one-run'
import { CABLE_GRADES, CONSTRUCTIONS } from '../standards/grades'
import type { Finding } from './checks'
import { sentence } from './sentences'

const host: OneRun['from'] = { connector: 'type-c', role: 'host', usb: 'gen2x2', thunderbolt: 4 }
const disk: OneRun['to'] = { connector: 'type-c', role: 'device', usb: 'gen2x2', thunderbolt: 4 }
const asking = (rate: number, lead: LeadInput, more: Partial<OneRun> = {}) =>
  judge({ from: host, to: disk, leads: [lead], need: { kind: 'data', rate }, ...more })

describe('a reason speaks of the least mode that would carry the need', () => {
  it('and not of the best that both ports have', () => {
    // 5 Gb/s are asked: the 3 m lead lacks the 2 m of that mode, whatever it lacks of 40 Gb/s
    const { finding } = asking(5e9, { grade: 'usb4-40', length: 3 })
    expect(finding('rate')).toMatchObject({
      grade: 'blocked',
      part: { kind: 'lead' },
      reason: { lack: { why: 'reach', mode: 'gen1x1', reach: 2 } },
    })
  })
  it('where no mode of both ports would carry it, the ports are to blame and no lead is offered', () => {
    const { finding } = asking(
      10e9,
      { grade: 'gen2', length: 1 },
      { to: { ...disk, usb: 'gen1x1', thunderbolt: undefined } },
    )
    const found = finding('rate') as Finding
    expect(found).toMatchObject({
      grade: 'blocked',
      part: { kind: 'port', id: 'far/p' },
      reason: { lack: null, cause: 'ports' },
    })
    expect(sentence(found)).toContain('whatever lead lies between them')
    expect(found.remedies.map(({ code }) => code)).not.toContain('better-grade')
  })
  it('where a picture takes the pins, the picture is to blame', () => {
    const pictured = { displayport: { direction: 'out', link: 'hbr2', lanes: 2, compression: false } } as const
    const { run } = judge({
      from: { connector: 'type-c', role: 'host', usb: 'gen2x2', ...pictured },
      to: {
        connector: 'type-c',
        role: 'device',
        usb: 'gen2x2',
        displayport: { ...pictured.displayport, direction: 'in' },
      },
      leads: [{ grade: 'usb4-40', length: 0.8 }],
      need: { kind: 'picture', mode: { width: 1920, height: 1080, refresh: 60, bits: 8, chroma: '444' } },
      alsoNeed: [{ kind: 'data', rate: 20e9 }],
    })
    expect(run.findings.find(({ check }) => check === 'rate')?.reason).toMatchObject({
      cause: 'picture beside',
      lack: null,
    })
  })
})

describe('a remedy', () => {
  const rates = fc.constantFrom(480e6, 5e9, 10e9, 20e9, 40e9)
  const grades = fc.constantFrom(...CABLE_GRADES.filter((grade) => /^(usb2|gen|usb4|thunderbolt)/.test(grade)))
  const builds = fc.constantFrom(...CONSTRUCTIONS)
  const metres = fc.integer({ min: 3, max: 120 }).map((each) => each / 10)
  it('about a lead, taken, lets the mode through that it speaks of', () => {
    fc.assert(
      fc.property(rates, grades, builds, metres, metres, (rate, grade, construction, route, spare) => {
        const lead = { grade, construction, length: route * 1.2 + spare / 10 }
        const { finding } = asking(rate, lead, { route })
        const found = finding('rate')
        for (const remedy of found?.remedies ?? []) {
          const modeOf = (next: LeadInput): boolean => {
            const { run } = asking(rate, next, { route })
            return run.findings.every(({ check, grade: now }) => check !== 'rate' || now !== 'blocked')
          }
          const long = route * 1.1
          const everyGrade = (length: number, build: LeadInput['construction']) =>
            CABLE_GRADES.some((each) => modeOf({ grade: each, length, construction: build }))
          if (remedy.code === 'shorter') expect(modeOf({ ...lead, length: remedy.reach }), 'shorter').toBe(true)
          if (remedy.code === 'active') expect(everyGrade(long, remedy.build), 'active').toBe(true)
          if (remedy.code === 'better-grade') expect(everyGrade(lead.length, construction), 'better grade').toBe(true)
        }
      }),
      { numRuns: cases(400) },
    )
  })
  it('that no lead of its build could keep is left out', () => {
    // nothing passive carries 40 Gb/s over 3 m
    expect(
      asking(40e9, { grade: 'usb4-40', length: 3.5 }, { route: 3 })
        .finding('rate')
        ?.remedies.map(({ code }) => code),
    ).not.toContain('shorter')
  })
})
