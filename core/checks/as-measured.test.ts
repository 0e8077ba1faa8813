import { describe, expect } from 'vitest'
import { practice } from '../../tests/support/figures'
import { judge, type OneRun, type Seen } from '../../tests/support/one-run'
import { sentence } from './sentences'

/** What instruments read on a run as it lies, and what Match makes of it. Each line is common practice of the trade. */

const onRun = { subject: { run: 'r1', leads: ['c1'] } }
const read = (measure: string, more: Seen): Seen => ({ kind: 'reading', measure, ...onRun, ...more })
const base: Pick<OneRun, 'from' | 'leads'> = {
  from: { connector: 'type-c', role: 'host', usb: 'gen2x1', gives: 15 },
  leads: [{ grade: 'gen2', length: 1, amps: 3 }],
}
const headset: Partial<OneRun> = {
  to: { kind: 'headset', connector: 'type-c', role: 'device', usb: 'gen1x1', takes: 10 },
  far: { battery: { wattHours: 16, draw: 8 } },
}
const plain: OneRun['to'] = { kind: 'other', connector: 'type-c', role: 'device', usb: 'gen2x1' }

type Case = {
  name: string
  run: Partial<OneRun>
  good: Seen
  bad: Seen
  /** How bad it is where it was never enough. */
  worst: 'blocked' | 'tight'
  words: string
}

/** Every instrument there is of a need, with a reading that is enough exactly and one a hair below. */
const instruments: Case[] = [
  {
    name: "the headset's own link test",
    run: { ...headset, need: { kind: 'headset', rate: 2e9 } },
    good: read('headset link', { rate: 2e9 }),
    bad: read('headset link', { rate: 1_999_000_000 }),
    worst: 'blocked',
    words: 'that are asked',
  },
  {
    name: 'a battery, worn for hours that are asked',
    run: { ...headset, need: { kind: 'headset', rate: 1e9, hours: 4 } },
    good: read('battery', { slope: -25, hours: 3 }),
    bad: read('battery', { slope: -25.1, hours: 3 }),
    worst: 'blocked',
    words: 'drains 25.1 % an hour, followed for 3 h; it is to last 4 h',
  },
  {
    name: 'a battery of which nobody says how long it is worn',
    run: { ...headset, need: { kind: 'headset', rate: 1e9 } },
    good: read('battery', { slope: -1, hours: 2 }),
    bad: read('battery', { slope: -1.1, hours: 2 }),
    worst: 'tight',
    words: 'drains 1.1 % an hour',
  },
  {
    name: 'frames',
    run: { to: { ...plain, kind: 'camera' }, need: { kind: 'camera', rate: 1e9 } },
    good: read('frames', { asked: 1800, came: 1800 }),
    bad: read('frames', { asked: 1800, came: 1240 }),
    worst: 'blocked',
    words: '1240 of 1800 frames came',
  },
  {
    name: 'added delay',
    run: { to: plain, need: { kind: 'audio', rate: 1e7, delay: 5 } },
    good: read('added delay', { ms: 5 }),
    bad: read('added delay', { ms: 5.1 }),
    worst: 'blocked',
    words: '5.1 ms were added of the 5 ms',
  },
  {
    name: 'a look at the picture',
    run: {
      from: { connector: 'hdmi', hdmi: { direction: 'out', level: 'tmds-18' } },
      to: { kind: 'display', connector: 'hdmi', hdmi: { direction: 'in', level: 'tmds-18' } },
      leads: [{ grade: 'hdmi-18', length: 2, ends: ['hdmi', 'hdmi'] }],
      need: { kind: 'picture', mode: { width: 1920, height: 1080, refresh: 60, bits: 8, chroma: '444' } },
    },
    good: read('sight', { good: true }),
    bad: read('sight', { good: false }),
    worst: 'blocked',
    words: 'The picture looked wrong',
  },
  {
    name: 'a real job over a disk',
    run: { to: { ...plain, kind: 'storage' }, need: { kind: 'storage', rate: 1e9 } },
    good: read('job', { what: 'copy the rushes', figures: [301], unit: 's' }),
    bad: read('job', { what: 'copy the rushes', figures: [], unit: 's', brokeOff: 1 }),
    worst: 'blocked',
    words: 'The job "copy the rushes" broke off',
  },
  {
    name: 'a real job over anything else that carries data',
    run: { to: plain, need: { kind: 'data', rate: 1e9 } },
    good: read('job', { what: 'flash the board', figures: [12], unit: 's' }),
    bad: read('job', { what: 'flash the board', figures: [], unit: 's', brokeOff: 1 }),
    worst: 'blocked',
    words: 'The job "flash the board" broke off',
  },
]

describe.each(instruments)('$name', ({ run, good, bad, worst, words }) => {
  const graded = (...seen: Seen[]) => judge({ ...base, to: plain, ...run, seen } as OneRun)
  practice('enough of it is clear, exactly at its limit too', () => {
    expect(graded(good).run.grade).toBe('clear')
  })
  practice('too little of it is told by the run and by its need, with the figure that was read', () => {
    const { run: verdict, need, plan } = graded(bad)
    expect(plan.needs).toHaveLength(1)
    expect(verdict.grade).toBe(worst)
    expect(need?.grade).toBe(worst)
    expect(verdict.findings.map((finding) => sentence(finding)).join(' ')).toContain(words)
  })
  practice('once too little and once enough comes and goes; three times enough clear it', () => {
    expect(graded(bad, good).run.grade).toBe('tight')
    expect(graded(bad, good).words).toContain('failed in 1 of 2 tries')
    expect(graded(bad, good, good).run.grade).toBe('tight')
    expect(graded(bad, good, good, good).run.grade).toBe('clear')
    expect(graded(good, good, good, bad).run.grade).toBe('tight')
  })
  practice('where something else was the limit it says nothing against the run', () => {
    expect(graded({ ...bad, limit: 'device' }).run.grade).toBe('clear')
  })
})
