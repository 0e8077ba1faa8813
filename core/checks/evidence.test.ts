import { describe, expect } from 'vitest'
import { practice, remembered } from '../../tests/support/figures'
import { judge, type LeadInput, type NeedInput, type OneRun, type Seen, seenAs } from '../../tests/support/one-run'
import { assess } from './assess'
import { sentence } from './sentences'

/** What was seen, and what it teaches of a run that lies at `near/p`. Each line is common practice of the trade unless it says otherwise. */

const host: OneRun['from'] = { connector: 'type-c', role: 'host', usb: 'gen2x1', gives: 15, controller: 'board' }
const disk: OneRun['to'] = { kind: 'storage', connector: 'type-c', role: 'device', usb: 'gen2x1' }
const files = (rate: string): OneRun['need'] => ({ kind: 'storage', rate }) as never
const MB = 8e6
const end = { connector: 'type-c', gender: 'plug' } as const

type Given = { lead?: LeadInput; rate?: string; seen: Seen[]; policy?: OneRun['policy']; more?: Partial<OneRun> }
const given = ({ lead = { grade: 'gen2', length: 1 }, rate = '600 MB/s', seen, policy, more }: Given) =>
  judge({ from: host, to: disk, leads: [lead], need: files(rate), seen, ...(policy ? { policy } : {}), ...more })
const grade = (input: Given) => given(input).run.grade

const unmarked: LeadInput = { length: 1 }
const held = (mode: string, more: Seen = {}): Seen => ({
  kind: 'trial',
  basis: 'soaked',
  tried: mode,
  cameUp: mode,
  seconds: 60,
  on: 'near/p',
  ...more,
})
const fell = (tried: string, cameUp: string | null, more: Seen = {}): Seen => ({
  kind: 'trial',
  basis: 'measured',
  tried,
  cameUp,
  on: 'near/p',
  ...more,
})
const dropped = (mode: string, more: Seen = {}): Seen => ({
  kind: 'trial',
  basis: 'soaked',
  tried: mode,
  cameUp: null,
  seconds: 70,
  on: 'near/p',
  ...more,
})
const copy = (measure: 'write' | 'read', rate: number, more: Seen = {}): Seen => ({
  kind: 'reading',
  measure,
  rate: rate * MB,
  on: 'near/p',
  to: 'far/p',
  ...more,
})
const taking = (id: string): Seen => ({ kind: 'retraction', retracts: id, reason: 'the wrong lead' })

describe('a mode that held for 60 s or more', () => {
  practice('is relied on in that socket, and in another one only if something else promises it', () => {
    expect(grade({ lead: unmarked, seen: [] })).toBe('blocked')
    expect(grade({ lead: unmarked, seen: [held('gen2x1')] })).toBe('clear')
    expect(grade({ lead: unmarked, seen: [held('gen2x1', { on: 'near/q' })] })).toBe('tight')
    expect(grade({ seen: [held('gen2x1', { on: 'near/q' })] })).toBe('clear')
  })
  practice('is relied on in the other sockets of a controller once two of them have held', () => {
    const on = (port: string, controller = 'board') => held('gen2x1', { on: port, where: { controller } })
    expect(grade({ lead: unmarked, seen: [on('near/q')] })).toBe('tight')
    expect(grade({ lead: unmarked, seen: [on('near/q'), on('near/s')] })).toBe('clear')
    expect(grade({ lead: unmarked, seen: [on('near/q', 'card'), on('near/s', 'card')] })).toBe('tight')
  })
  practice('teaches all that asks less of the same pairs', () => {
    expect(grade({ lead: unmarked, seen: [held('usb4-40')] })).toBe('clear')
    expect(grade({ lead: { length: 1.1 }, seen: [held('usb4-40')] })).toBe('blocked')
    expect(grade({ lead: { length: 0.8 }, seen: [held('usb4-40')], rate: '400 MB/s' })).toBe('clear')
    expect(grade({ lead: { length: 0.8 }, seen: [held('gen1x1')], rate: '600 MB/s' })).toBe('blocked')
  })
  practice('counts within the length of the book by either school, and beyond it by the bench', () => {
    const long: LeadInput = { grade: 'gen2', length: 2 }
    for (const lead of [long, { length: 2 }]) {
      expect(grade({ lead, seen: [held('gen2x1')] })).toBe('blocked')
      expect(grade({ lead, seen: [held('gen2x1')], policy: { length: 'bench' } })).toBe('clear')
    }
  })
  practice('makes nothing worse', () => {
    for (const mode of ['usb2', 'gen1x1', 'gen2x1'])
      for (const on of ['near/p', 'near/q']) expect(grade({ seen: [held(mode, { on })] })).toBe('clear')
  })
})

describe('a mode that came up and was watched for less', () => {
  const look = (seconds: number) => fell('gen2x1', 'gen2x1', { seconds })
  practice('comes up, is not relied on, and never counts beyond the book', () => {
    expect(grade({ lead: unmarked, seen: [look(59)] })).toBe('tight')
    expect(grade({ lead: unmarked, seen: [look(60)] })).toBe('clear')
    expect(grade({ lead: { length: 2 }, seen: [look(59)], policy: { length: 'bench' } })).toBe('blocked')
    expect(grade({ seen: [look(45)] })).toBe('clear')
  })
})

describe('a mode that came up lower', () => {
  practice('than this lead should at this length fails here', () => {
    expect(grade({ seen: [fell('gen2x1', 'gen1x1')] })).toBe('blocked')
    expect(grade({ seen: [fell('gen2x1', 'gen1x1')], rate: '300 MB/s' })).toBe('clear')
    expect(grade({ seen: [fell('gen2x1', 'usb2')], rate: '300 MB/s' })).toBe('blocked')
  })
  practice('as it should is no failure of what nobody asked of the lead', () => {
    const tunnel = { usb4: 40 } as const
    const docked = { from: { ...host, ...tunnel }, to: { ...disk, ...tunnel } }
    // two ports of 40 Gb/s and a 10 Gb/s lead: it does what is printed on it
    expect(grade({ seen: [fell('usb4-40', 'gen2x1')], more: docked })).toBe('clear')
    // a passive 40 Gb/s lead of 2 m comes up as 20, as it should
    const lead: LeadInput = { grade: 'usb4-40', length: 2 }
    expect(grade({ lead, seen: [fell('usb4-40', 'usb4-20', { seconds: 60 })], more: docked })).toBe('clear')
  })
  practice('teaches no failure of an unmarked lead', () => {
    const seen = [held('gen2x1', { on: 'near/q' }), fell('gen2x1', 'gen1x1', { on: 'near/s' })]
    expect(given({ lead: unmarked, seen, rate: '300 MB/s' }).run.grade).toBe('tight')
  })
  practice(
    'is cleared by three later tries in that socket that come up as they should; until then it comes and goes',
    () => {
      const once = fell('gen2x1', 'usb2')
      expect(grade({ seen: [once, held('gen2x1')] })).toBe('tight')
      expect(grade({ seen: [once, held('gen2x1'), held('gen2x1')] })).toBe('tight')
      expect(grade({ seen: [once, held('gen2x1'), held('gen2x1'), held('gen2x1')] })).toBe('clear')
      expect(grade({ seen: [held('gen2x1'), once] })).toBe('tight')
      // a look that was too short shows that it comes up, and no more
      expect(grade({ seen: [once, fell('gen2x1', 'gen2x1', { seconds: 59 })] })).toBe('blocked')
    },
  )
  practice('nine times of ten is not cleared by the tenth, and says how often it was', () => {
    const { run } = given({ seen: [...Array.from({ length: 9 }, () => fell('gen2x1', 'usb2')), held('gen2x1')] })
    expect(run.grade).toBe('tight')
    expect(run.findings.map((finding) => sentence(finding)).join(' ')).toContain('failed in 9 of 10 tries')
  })
  practice('begins anew once somebody has set it right, and three tries and the soak decide', () => {
    const before = [fell('gen2x1', 'usb2'), fell('gen2x1', 'usb2'), { kind: 'set right', what: 'reseated' }]
    expect(grade({ seen: before.slice(0, 2) })).toBe('blocked')
    expect(grade({ seen: before })).toBe('tight')
    expect(grade({ seen: [...before, held('gen2x1'), held('gen2x1')] })).toBe('tight')
    expect(grade({ seen: [...before, held('gen2x1'), held('gen2x1'), held('gen2x1')] })).toBe('clear')
    expect(grade({ seen: [...before, fell('gen2x1', 'usb2')] })).toBe('blocked')
  })
})

describe('others of its kind and length', () => {
  const kind = { id: 'plain', name: 'Plain', ends: [end, end], grade: 'gen2' }
  /** A run of an untried lead of a kind, of which so many others held 10 Gb/s and so many fell, each tried once. */
  const among = (good: number, bad: number, length: 'book' | 'bench', otherLength = 3) => {
    const { plan } = given({ lead: { length: 3 }, seen: [], policy: { length } })
    const [alone] = plan.cables
    if (!alone) throw new Error('there is a lead')
    const first = { ...alone, kind: 'plain' }
    const others = Array.from({ length: good + bad }, (_, at) => ({
      ...first,
      id: `other-${at}`,
      tag: `O-${at}`,
      length: otherLength,
    }))
    const seen = others.map(({ id }, at) => ({
      ...(at < good ? held('gen2x1') : fell('gen2x1', 'usb2')),
      subject: { cable: id },
    }))
    const site = { ...plan, kinds: [kind], cables: [first, ...others], observations: seenAs(seen) } as never
    const { runs } = assess(site)
    return { grade: runs[0]?.grade, words: runs[0]?.findings.map((finding) => sentence(finding)).join(' ') }
  }
  practice(
    'by the bench are offered beyond the book where more than half of them are sure to hold, tight, with the interval',
    () => {
      expect(among(4, 0, 'bench')).toMatchObject({ grade: 'tight' })
      expect(among(4, 0, 'bench').words).toContain('4 of 4 like C-1 held USB 10 Gb/s (Gen 2)')
      expect(among(4, 0, 'bench').words).toContain('40 % to 100 %')
      expect(among(3, 0, 'bench').grade).toBe('blocked')
      expect(among(4, 2, 'bench').grade).toBe('blocked')
    },
  )
  practice('never by the book, and never of another length', () => {
    expect(among(9, 0, 'book').grade).toBe('blocked')
    expect(among(9, 0, 'bench', 2).grade).toBe('blocked')
  })
})

describe('a link that dropped', () => {
  practice('fails in that mode, and what asks less is tight until it was seen to hold lower', () => {
    expect(grade({ seen: [dropped('gen2x1')] })).toBe('blocked')
    expect(grade({ seen: [dropped('gen2x1')], rate: '300 MB/s' })).toBe('tight')
    expect(grade({ seen: [dropped('gen2x1'), held('gen1x1')], rate: '300 MB/s' })).toBe('clear')
    expect(grade({ seen: [held('gen1x1'), dropped('gen2x1')], rate: '300 MB/s' })).toBe('tight')
  })
  practice('in another socket makes it tight here, however it is marked', () => {
    const found = given({ seen: [dropped('gen2x1', { on: 'near/q' })] })
    expect(found.run.grade).toBe('tight')
    expect(found.words).toContain('failed in the one other socket it was tried in')
    expect(grade({ seen: [dropped('gen2x1', { on: 'near/q' }), held('gen2x1')] })).toBe('clear')
  })
})

describe('a mode that failed in some sockets', () => {
  practice('is blocked there, and tight where it was not tried, with how often it held and failed', () => {
    const seen = [
      held('gen2x1', { on: 'near/q' }),
      held('gen2x1', { on: 'near/s' }),
      fell('gen2x1', 'usb2', { on: 'near/t' }),
    ]
    const found = given({ seen })
    expect(found.run.grade).toBe('tight')
    expect(found.words).toContain('held in 2 of the 3 other sockets')
    expect(grade({ seen: [...seen, fell('gen2x1', 'usb2')] })).toBe('blocked')
  })
})

describe('USB 2.0', () => {
  practice('that does not come up says nothing of the fast pairs, and the reverse', () => {
    expect(grade({ seen: [fell('usb2', null)] })).toBe('clear')
    expect(grade({ seen: [fell('gen2x1', null)], rate: '30 MB/s' })).toBe('clear')
    expect(grade({ seen: [fell('gen2x1', null)] })).toBe('blocked')
  })
})

describe('a copy', () => {
  practice('came up as the slowest mode that could carry it at least: above 53 MB/s over fast pairs', () => {
    expect(grade({ lead: unmarked, rate: '300 MB/s', seen: [copy('write', 370)] })).toBe('clear')
    expect(grade({ lead: unmarked, rate: '600 MB/s', seen: [copy('write', 370)] })).toBe('blocked')
    expect(grade({ lead: unmarked, rate: '30 MB/s', seen: [copy('write', 40)] })).toBe('clear')
    // exactly what 5 Gb/s carries is carried by 5 Gb/s
    expect(given({ lead: unmarked, seen: [copy('write', 500)] }).run.mode).toBe('gen1x1')
  })
  practice('that the lead was the limit of is the most it does, each way by itself', () => {
    const limited = [copy('write', 190, { limit: 'lead' }), copy('read', 370)]
    expect(given({ seen: limited, rate: '300 MB/s' }).finding('copied')).toMatchObject({
      grade: 'blocked',
      have: 190 * MB,
    })
    expect(grade({ seen: limited, rate: '190 MB/s' })).toBe('clear')
    expect(grade({ seen: [copy('write', 34, { limit: 'disk' })] })).toBe('clear')
    // once it went faster: both are true of it, until it did so three times
    const slow = copy('write', 190, { limit: 'lead' })
    expect(grade({ seen: [slow, copy('write', 700)] })).toBe('tight')
    expect(grade({ seen: [slow, copy('write', 700), copy('write', 690), copy('write', 710)] })).toBe('clear')
  })
  practice('is held back by the lead where other leads did better between these very ports', () => {
    const more: Partial<OneRun> = {
      leads: [
        { grade: 'gen2', length: 1 },
        { grade: 'gen2', length: 1 },
      ],
    }
    const plan = judge({ from: host, to: disk, ...more, leads: more.leads ?? [], need: files('300 MB/s') }).plan
    const alone = { ...plan, runs: plan.runs.map((run) => ({ ...run, leads: run.leads.slice(0, 1) })) }
    const seen = (other: number, to = 'far/p') =>
      judgeSeen(alone, [copy('write', 34), copy('write', other, { subject: { cable: 'c2' }, to })])
    expect(seen(700)).toBe('blocked')
    expect(seen(36)).toBe('clear')
    expect(seen(700, 'far/other')).toBe('clear')
  })
  practice('as slow as USB 2.0 to a disk that does far more is tight until somebody explains it', () => {
    const far = { disk: { write: 900 * MB, read: 900 * MB } }
    const slow = (rate: number, more: Seen = {}) =>
      grade({ seen: [copy('write', rate, more)], rate: '300 MB/s', more: { far } })
    expect(slow(34)).toBe('tight')
    expect(slow(53.248)).toBe('tight')
    expect(slow(53.3)).toBe('clear')
    expect(slow(34, { limit: 'disk' })).toBe('clear')
    expect(grade({ seen: [copy('write', 34)], rate: '300 MB/s' })).toBe('clear')
  })
  practice('measured on this run is what it does, whatever the limit', () => {
    const run = { run: 'r1', leads: ['c1'] }
    expect(grade({ seen: [copy('write', 34, { subject: run, limit: 'disk' })], rate: '300 MB/s' })).toBe('blocked')
    expect(grade({ lead: unmarked, seen: [copy('write', 420, { subject: run })], rate: '300 MB/s' })).toBe('clear')
  })
})

function judgeSeen(plan: Parameters<typeof assess>[0], seen: Seen[]) {
  const observations = [...plan.observations, ...judge({ from: host, to: disk, leads: [], seen }).plan.observations]
  return assess({ ...plan, observations }).runs[0]?.grade
}

describe('watts', () => {
  const charger: OneRun['from'] = { kind: 'charger', connector: 'type-c', role: 'host', gives: 140 }
  const laptop: OneRun['to'] = { kind: 'computer', connector: 'type-c', role: 'either', takes: 140 }
  const power = (watts: number, seen: Seen[], lead: LeadInput = { grade: 'usb2', length: 1 }) =>
    judge({ from: charger, to: laptop, leads: [lead], need: { kind: 'power', watts } as never, seen })
  const read = (watts: number, more: Seen = {}): Seen => ({
    kind: 'reading',
    measure: 'watts',
    watts,
    on: 'near/p',
    ...more,
  })
  remembered('USB PD')('above 63 W prove 5 A, and above 105 W more than 20 V: 20 V may be 5 % high', () => {
    const amps = (watts: number) => {
      const found = power(100, [read(watts, { on: 'other/p' })]).finding('current')
      return found?.reason.code === 'power' ? [found.reason.volts, found.reason.amps] : null
    }
    expect(amps(63)).toEqual([20, 3])
    expect(amps(63.1)).toEqual([20, 5])
    expect(amps(105)).toEqual([20, 5])
    expect(amps(105.1)).toEqual([28, 5])
  })
  practice('that the lead was the limit of are the most with that charger, and told with another', () => {
    const marked: LeadInput = { grade: 'usb2', amps: 5, length: 1 }
    expect(power(90, [read(30, { limit: 'lead' })], marked).run.grade).toBe('blocked')
    expect(power(90, [read(30, { limit: 'charger' })], marked).run.grade).toBe('clear')
    expect(power(90, [read(30, { limit: 'lead', on: 'other/p' })], marked).run.grade).toBe('tight')
    expect(power(90, [read(30, { limit: 'lead', on: 'other/p' }), read(86.5)], marked).finding('current')?.grade).toBe(
      'tight',
    )
    expect(power(86, [read(30, { limit: 'lead', on: 'other/p' }), read(90)], marked).run.grade).toBe('clear')
  })
  practice('read on this run are what arrives, unless the battery was nearly full', () => {
    const run = { subject: { run: 'r1', leads: ['c1'] } }
    const marked: LeadInput = { grade: 'usb2', amps: 5, length: 1 }
    expect(power(90, [read(44, run)], marked).finding('current')).toMatchObject({ grade: 'blocked', have: 44 })
    expect(power(90, [read(94, run)]).run.grade).toBe('clear')
    const full = (charge: number) => power(90, [read(44, { ...run, circumstances: { charge } })], marked).run.grade
    expect(full(79)).toBe('blocked')
    expect(full(80)).toBe('clear')
  })
  practice('that really arrived outrank a chip that is not there, and the contradiction is told', () => {
    const none: Seen = { kind: 'statement', basis: 'chip', grade: null, amps: null, volts: null }
    const marked: LeadInput = { grade: 'usb2', amps: 5, volts: 50, length: 1 }
    expect(power(90, [none], marked).finding('current')).toMatchObject({ grade: 'tight', have: 60 })
    const found = power(90, [none, read(94, { on: 'other/p' })], marked)
    expect(found.finding('current')?.grade).toBe('clear')
    expect(found.words).toContain('disagrees about its current: its chip says 3 A, a measurement says 5 A')
  })
  practice('of the extended range are believed of a lead with a chip only where the chip says so as well', () => {
    const marked: LeadInput = { grade: 'usb2', amps: 5, volts: 50, length: 1 }
    const chip = (more: Seen): Seen => ({ kind: 'statement', basis: 'chip', grade: 'usb2', amps: 5, ...more })
    expect(power(130, [], marked).run.grade).toBe('clear')
    expect(power(130, [chip({})], marked).finding('current')?.have).toBe(100)
    expect(power(130, [chip({ volts: 50 })], marked).run.grade).toBe('clear')
  })
  practice('and volts lost give a lead its resistance, for every current, in place of its gauge', () => {
    const lost = (volts: number, amps: number): Seen => ({ kind: 'reading', measure: 'volts lost', volts, amps })
    const thin: LeadInput = { grade: 'usb2', amps: 5, length: 1, more: { awg: 30 } }
    expect(power(90, [], thin).finding('volts lost')?.grade).toBe('tight')
    // 0.75 V there and back at 5 A is what a cable may lose (USB Type-C, from memory); at 4.5 A it loses less
    expect(power(90, [lost(0.75, 5)], thin).finding('volts lost')?.grade).toBe('clear')
    expect(power(90, [lost(0.4, 2)], thin).finding('volts lost')?.grade).toBe('tight')
  })
})

describe('a picture', () => {
  const source: OneRun['from'] = { connector: 'displayport', displayport: { direction: 'out', link: 'hbr3' } }
  const display: OneRun['to'] = {
    kind: 'display',
    connector: 'displayport',
    displayport: { direction: 'in', link: 'hbr3' },
  }
  const mode = (width: number, height: number, refresh: number) => ({ width, height, refresh })
  const show = (seen: Seen[], asked = mode(3840, 2160, 60), lead: LeadInput = { grade: 'dp-hbr3', length: 2 }) =>
    judge({
      from: source,
      to: display,
      leads: [{ ...lead, ends: ['displayport', 'displayport'] }],
      need: { kind: 'picture', mode: { bits: 8, chroma: '444', ...asked } } as never,
      seen,
    }).run.grade
  const tried = (held: boolean, asked = mode(3840, 2160, 60), on = 'near/p'): Seen => ({
    kind: 'reading',
    measure: 'picture',
    mode: asked,
    held,
    on,
  })
  practice('that held shows the lanes and the rate of it and below', () => {
    const nothing: LeadInput = { length: 2 }
    expect(show([], undefined, nothing)).toBe('blocked')
    expect(show([tried(true)], undefined, nothing)).toBe('clear')
    expect(show([tried(true)], mode(1920, 1080, 60), nothing)).toBe('clear')
    expect(show([tried(true)], mode(3840, 2160, 120), nothing)).toBe('blocked')
    expect(show([tried(true, undefined, 'near/q')], undefined, nothing)).toBe('tight')
  })
  practice('that did not hold does not, nor a larger one; smaller ones stay', () => {
    expect(show([tried(false)])).toBe('blocked')
    expect(show([tried(false)], mode(2560, 1440, 60))).toBe('clear')
    expect(show([tried(false, mode(2560, 1440, 60))])).toBe('blocked')
    expect(show([tried(false, undefined, 'near/q')])).toBe('tight')
    const long = { ...tried(true), seconds: 60 }
    expect(show([tried(false), tried(true)])).toBe('blocked')
    expect(show([tried(false), long])).toBe('tight')
    expect(show([tried(false), tried(true), tried(true), tried(true)])).toBe('clear')
  })
})

describe('a lead that got hot', () => {
  const hot = (more: Seen = {}): Seen => ({ kind: 'reading', measure: 'warmth', felt: 'hot', ...more })
  practice('is blocked until that is taken back, and a cool one after it changes nothing', () => {
    const found = given({ seen: [hot()] })
    expect(found.finding('hot')).toMatchObject({ grade: 'blocked', caution: 'hot' })
    expect(grade({ seen: [hot(), hot({ felt: 'cool' })] })).toBe('blocked')
    expect(grade({ seen: [hot(), taking('seen-0')] })).toBe('clear')
  })
  practice('in this run is blocked as well', () => {
    expect(grade({ seen: [hot({ subject: { run: 'r1', leads: ['c1'] } })] })).toBe('blocked')
  })
})

describe("a run's own proof with these leads", () => {
  const run = { subject: { run: 'r1', leads: ['c1'] } }
  practice('outweighs what is predicted for it', () => {
    expect(grade({ seen: [dropped('gen2x1', { ...run, on: undefined })] })).toBe('blocked')
    expect(grade({ seen: [fell('gen2x1', 'usb2', { ...run, on: undefined })] })).toBe('blocked')
    expect(grade({ lead: unmarked, seen: [held('gen2x1', { ...run, on: undefined })] })).toBe('clear')
    // the lead failed in another socket, and this run has held
    const seen = [dropped('gen2x1', { on: 'near/q' }), held('gen2x1', { ...run, on: undefined })]
    expect(grade({ seen })).toBe('clear')
  })
  practice('says nothing once other leads lie in it', () => {
    expect(grade({ seen: [dropped('gen2x1', { subject: { run: 'r1', leads: ['c9'] }, on: undefined })] })).toBe('clear')
  })
})

describe('what was seen before the computer changed', () => {
  const now = { installed: [{ what: 'driver', version: '2', on: '2026-05-01' }] }
  const with2 = (seen: Seen[], lead?: LeadInput) => {
    const { plan } = given({ seen, ...(lead ? { lead } : {}) })
    const devices = plan.devices.map((device) => (device.id === 'near' ? { ...device, ...now } : device))
    return assess({ ...plan, devices } as typeof plan).runs[0]
  }
  const before = { where: { installed: [{ what: 'driver', version: '1' }] } }
  practice('is to be proved again, and a failure is worth trying again', () => {
    expect(with2([held('gen2x1', before)], unmarked)?.grade).toBe('tight')
    expect(with2([held('gen2x1', { where: { installed: [{ what: 'driver', version: '2' }] } })], unmarked)?.grade).toBe(
      'clear',
    )
    const failed = with2([fell('gen2x1', 'usb2', before)])
    expect(failed?.grade).toBe('tight')
    expect(failed?.findings.some(({ remedies }) => remedies.some(({ code }) => code === 'test-it'))).toBe(true)
  })
})

describe('what somebody said, and how it looks', () => {
  practice('is weaker than what is printed', () => {
    const says = (basis: string, more: Seen): Seen => ({ kind: 'statement', basis, ...more })
    expect(given({ lead: unmarked, seen: [says('told', { grade: 'gen2', from: 'the seller' })] }).run.mode).toBe(
      'gen2x1',
    )
    expect(given({ seen: [says('told', { grade: 'usb2' }), says('looks', { grade: 'usb2' })] }).run.mode).toBe('gen2x1')
    expect(
      given({ lead: unmarked, seen: [says('looks', { grade: 'usb2' }), says('told', { grade: 'gen2' })] }).run.mode,
    ).toBe('gen2x1')
  })
})

describe('a lead of which nothing is known', () => {
  const mode = { width: 3840, height: 2160, refresh: 60, bits: 8, chroma: '444' }
  const where = { on: 'near/p', to: 'far/p' }
  const picture = { kind: 'reading', measure: 'picture', mode, held: true, seconds: 300, ...where }
  const watts = (figure: number) => ({ kind: 'reading', measure: 'watts', watts: figure, ...where })
  const graded = (seen: object[], more: NeedInput[] = []) =>
    judge({
      from: {
        connector: 'type-c',
        role: 'host',
        usb: 'gen2x1',
        takes: 96,
        displayport: { direction: 'out', link: 'hbr2' },
      } as never,
      to: {
        kind: 'display',
        connector: 'type-c',
        role: 'device',
        usb: 'gen1x1',
        gives: 65,
        displayport: { direction: 'in', link: 'hbr2' },
      } as never,
      leads: [unmarked],
      need: { kind: 'picture', mode } as never,
      alsoNeed: [{ kind: 'power', watts: 60, upstream: true } as never, ...more],
      seen: seen as never,
    }).run.grade
  practice('is not asked for data where it has a picture and power to carry and was seen to carry both', () => {
    expect(graded([])).toBe('blocked')
    expect(graded([picture])).toBe('blocked')
    expect(graded([watts(60)])).toBe('blocked')
    expect(graded([picture, watts(60)])).toBe('clear')
    // a device draws a little less than was agreed on
    expect(graded([picture, watts(54)])).not.toBe('blocked')
    expect(graded([picture, watts(40)])).toBe('blocked')
    expect(graded([{ ...picture, held: false }, watts(60)])).toBe('blocked')
    expect(graded([picture, watts(60)], [{ kind: 'storage', rate: 1e8 } as never])).toBe('blocked')
  })
})
