import { describe, expect, it } from 'vitest'
import { CHANGE_NAMES, changeWords } from '../change/words'
import { DOUBTS } from '../link/chain'
import { CAME } from '../observe/came'
import type { MoveWords } from '../remedy/move'
import { moveSentence } from '../remedy/words'
import { commonPractice } from '../standards/source'
import { NEED_KINDS } from '../vocabulary/need'
import { SURROUNDINGS } from '../vocabulary/surroundings'
import type { Finding, Reason } from './checks'
import { type LackFigures, marginOf, narrowestOf } from './finding'
import { sentence } from './sentences'

/** The forms of one code; several codes may share a form. */
type Of<Form extends { code: string }, Code> = Form extends unknown
  ? Code extends Form['code']
    ? Omit<Form, 'code'> & { code: Code }
    : never
  : never

const lack = (why: LackFigures['why'], rest: Partial<LackFigures> = {}): LackFigures => ({
  why,
  mode: 'usb4-40',
  grade: 'USB 5 Gb/s',
  reach: 2,
  length: 3,
  passive: true,
  unfed: false,
  failed: null,
  ...rest,
})
const AT = '2026-03-11T12:00:00.000Z'
const known = <T>(value: T) => ({ value, basis: 'claimed' as const, at: null })
const picture = { width: 3840, height: 2160, refresh: 60, bits: 8 as const, chroma: '444' as const }
const rate = (rest: Partial<Extract<Reason, { code: 'rate' }>> = {}): Reason => ({
  code: 'rate',
  kind: 'storage',
  carrier: 'USB4 40 Gb/s',
  before: 0,
  lack: null,
  picture: null,
  compressedBits: null,
  held: null,
  cause: null,
  overUsb: false,
  ...rest,
})
const hows = CAME.map((came) => ({ came, held: 7, failed: 3, at: AT }))
const power = (limit: Extract<Reason, { code: 'power' }>['limit'], rest = {}): Reason => ({
  code: 'power',
  limit,
  amps: 3,
  volts: 20,
  unmarked: false,
  charging: true,
  offered: 100,
  sharers: [],
  lost: null,
  ...rest,
})
const budget = (leads: number, count: number, ownSupply = false): Reason => ({
  code: 'bus-budget',
  soaked: count > 1,
  ownSupply,
  leads,
  count,
})
const battery = (course: object): Reason => ({ code: 'battery', course: course as never, hours: null })

/** Every reason there is, in its forms: one, several, none. A new reason does not compile without its own. */
const reasons: { [Code in Reason['code']]: Of<Reason, Code>[] } = {
  'no-lead': [{ code: 'no-lead' }],
  mates: [0, 1, 2, 5].map((leads) => ({ code: 'mates', leads })),
  'ends-do-not-mate': [
    {
      code: 'ends-do-not-mate',
      one: { connector: 'type-c', gender: 'plug' },
      oneLabel: 'C-0001',
      other: { connector: 'hdmi', gender: 'socket' },
      otherLabel: 'Projector',
    },
    {
      code: 'ends-do-not-mate',
      one: { connector: '8p8c', gender: 'plug' },
      oneLabel: 'C-0001',
      other: { connector: 'lc', gender: 'socket' },
      otherLabel: 'Rack',
    },
  ],
  'port-taken': [{ code: 'port-taken', by: 'R-02' }],
  retired: [{ code: 'retired' }],
  lent: [{ code: 'lent' }],
  'to-buy': [
    { code: 'to-buy', length: 2, price: 12.5, currency: 'EUR', test: true, wants: [] },
    { code: 'to-buy', length: 2, price: 0, currency: 'EUR', test: false, wants: ['a supply', 'an adapter'] },
    { code: 'to-buy', length: 2, price: null, currency: 'EUR', test: true, wants: [] },
  ],
  'two-hosts': [
    { code: 'two-hosts', typeA: true },
    { code: 'two-hosts', typeA: false },
  ],
  'two-devices': [{ code: 'two-devices' }],
  'wrong-way-round': [{ code: 'wrong-way-round' }],
  'one-way-lead': [
    {
      code: 'one-way-lead',
      from: { connector: 'type-c', gender: 'plug' },
      to: { connector: 'displayport', gender: 'plug' },
    },
  ],
  'right-way-round': [{ code: 'right-way-round' }],
  'too-short': [{ code: 'too-short', route: 4 }],
  'little-slack': [{ code: 'little-slack', route: 4 }],
  'long-enough': [{ code: 'long-enough', route: 4 }],
  'charge-only': [{ code: 'charge-only' }],
  'unknown-lead': [{ code: 'unknown-lead' }],
  mode: [{ code: 'mode', mode: 'usb2' }],
  'needs-tunnel': [
    { code: 'needs-tunnel', mode: null },
    { code: 'needs-tunnel', mode: 'gen2x1' },
  ],
  'comes-back': [{ code: 'comes-back', rate: 4.4e9, ceiling: 22e9 }],
  falls: [
    { code: 'falls', mode: 'usb2', shared: 'usb4-40', lack: lack('grade') },
    { code: 'falls', mode: null, shared: 'usb4-40', lack: lack('reach', { passive: false, unfed: true }) },
    { code: 'falls', mode: 'usb2', shared: 'usb4-40', lack: lack('chain') },
    { code: 'falls', mode: null, shared: 'gen1x1', lack: lack('unfed') },
    { code: 'falls', mode: 'usb2', shared: 'gen1x1', lack: lack('failed') },
  ],
  rate: [
    ...NEED_KINDS.map((kind) => rate({ kind })),
    rate({ before: 5e9 }),
    rate({ kind: 'picture', picture, compressedBits: 12 }),
    rate({ kind: 'picture', picture, held: 25.92e9 }),
    rate({ cause: 'ports' }),
    rate({ kind: 'picture', picture, overUsb: true }),
    rate({ cause: 'picture beside' }),
    rate({ cause: 'controller', carrier: 'the controller rear', before: 8e9 }),
    rate({ kind: 'picture', picture, lack: lack('reach') }),
  ] as Extract<Reason, { code: 'rate' }>[],
  'no-carrier': (
    ['charge-only', 'unknown-lead', 'nothing-common', 'no-usb2-pair', 'one-picture', 'no-link'] as const
  ).flatMap((cause) => NEED_KINDS.map((kind) => ({ code: 'no-carrier', kind, cause }) as const)),
  power: [
    power('supply'),
    power('lead', { unmarked: true }),
    power('lead', { lost: 2.5 }),
    power('plug'),
    power('pool', { sharers: ['C 2'] }),
    power('pool', { sharers: ['C 2', 'A 1'] }),
    power('fed'),
    power('device', { charging: false }),
  ] as Extract<Reason, { code: 'power' }>[],
  'lead-without-power': [
    { code: 'lead-without-power', optical: true },
    { code: 'lead-without-power', optical: false },
  ],
  'no-supply': [{ code: 'no-supply' }],
  'type-c-extension': [
    { code: 'type-c-extension', soaked: true, allowed: true },
    { code: 'type-c-extension', soaked: false, allowed: true },
    { code: 'type-c-extension', soaked: false, allowed: false },
  ],
  'not-supplied': [
    { code: 'not-supplied', with: 'Headset' },
    { code: 'not-supplied', with: '' },
  ],
  'bench-pass': [
    { code: 'bench-pass', mode: 'usb4-40', counts: true, at: '2026-01-01T00:00:00.000Z' },
    { code: 'bench-pass', mode: 'usb4-40', counts: false, at: '2026-01-01T00:00:00.000Z' },
  ],
  conflict: [
    { code: 'conflict', conflict: { about: 'grade', believed: known('usb2'), overruled: known('usb4-40') } },
    { code: 'conflict', conflict: { about: 'amps', believed: known(3), overruled: known(5) } },
    { code: 'conflict', conflict: { about: 'volts', believed: known(20), overruled: known(50) } },
  ],
  'hdmi-to-display': [{ code: 'hdmi-to-display' }],
  'on-add-in-card': [
    { code: 'on-add-in-card', avoided: true },
    { code: 'on-add-in-card', avoided: false },
  ],
  'storage-band': [
    {
      code: 'storage-band',
      low: 2e10,
      high: 3e10,
      way: 'write',
      limitedBy: 'pcie',
      overhead: { low: 0.2, high: 0.25 },
    },
    { code: 'storage-band', low: 2e10, high: 3e10, way: 'read', limitedBy: 'drive', overhead: null },
  ],
  shared: [
    { code: 'shared', link: 'USB4 40 Gb/s', count: 2, down: 0, up: 4e9 },
    { code: 'shared', link: 'USB4 40 Gb/s', count: 3, down: 5e9, up: 0 },
  ],
  battery: [
    battery({ course: 'holds' }),
    battery({ course: 'charges' }),
    battery({ course: 'drains', hours: 3 }),
  ] as Extract<Reason, { code: 'battery' }>[],
  'volts-lost': [null, AT].map((measured) => ({ code: 'volts-lost', total: 0.543, amps: 5, watts: 2.7, measured })),
  'watts-seen': (['run', 'lead'] as const).flatMap((by) =>
    [null, { held: 3, failed: 1 }].map((counted) => ({
      code: 'watts-seen' as const,
      at: AT,
      by,
      charging: true,
      counted,
    })),
  ),
  'watts-elsewhere': [{ code: 'watts-elsewhere', watts: 30, at: AT }],
  'ran-hot': [false, true].map((strangeSupply) => ({ code: 'ran-hot', at: AT, strangeSupply })),
  'kind-ran-hot': [1, 3].map((count) => ({ code: 'kind-ran-hot', count })),
  copied: (['run', 'lead', 'lead elsewhere', 'nothing'] as const).flatMap((by) =>
    (['write', 'read'] as const).flatMap((way) =>
      [null, { held: 3, failed: 1 }].map((counted) => ({ code: 'copied' as const, way, at: AT, by, counted })),
    ),
  ),
  'picture-seen': [
    { code: 'picture-seen', mode: picture, at: AT, held: 0, failed: 1 },
    { code: 'picture-seen', mode: null, at: null, held: 0, failed: 1 },
    { code: 'picture-seen', mode: null, at: null, held: 1, failed: 2 },
  ],
  'link-test-read': hows.map((how) => ({ code: 'link-test-read', ...how, rate: 1.2e9, asked: 2e9 })),
  'battery-read': hows.flatMap((how) =>
    [null, 3].map((hours) => ({ code: 'battery-read' as const, ...how, slope: -11.3, over: 3, hours })),
  ),
  'frames-read': hows.map((how) => ({ code: 'frames-read', ...how, arrived: 1240, asked: 1800 })),
  'delay-read': hows.map((how) => ({ code: 'delay-read', ...how, ms: 7.9, asked: 5 })),
  'sight-read': hows.map((how) => ({ code: 'sight-read', ...how })),
  'job-read': hows.map((how) => ({ code: 'job-read', ...how, what: 'copy the rushes' })),
  'picture-goes': (['comes and goes', 'begun anew'] as const).flatMap((came) =>
    [false, true].map((stale) => ({
      code: 'picture-goes' as const,
      came,
      mode: picture,
      at: AT,
      held: 7,
      failed: 3,
      stale,
    })),
  ),
  doubted: DOUBTS.flatMap((why) =>
    [
      [0, 0],
      [1, 0],
      [1, 2],
    ].map(([held, failed]) => ({
      code: 'doubted' as const,
      why,
      held: held ?? 0,
      failed: failed ?? 0,
      mode: 'gen2x1' as const,
    })),
  ),
  'bus-budget': [budget(0, 0), budget(1, 0), budget(2, 1), budget(0, 3), budget(1, 1, true)] as Extract<
    Reason,
    { code: 'bus-budget' }
  >[],
  'lanes-left': ([1, 2, 4] as const).map((lanes) => ({ code: 'lanes-left', lanes, beside: 'usb2' })),
  'converts-other-way': [{ code: 'converts-other-way' }],
  delay: [0, 1, 3].map((hubs) => ({ code: 'delay', allowed: 2.5, hubs })),
  hubs: [{ code: 'hubs', hubs: 6, most: 5 }],
  'far-end-power': [
    { code: 'far-end-power', required: true, mains: 'none', place: 'Ceiling point' },
    { code: 'far-end-power', required: false, mains: 'there', place: 'Rack' },
  ],
  'cord-too-short': [{ code: 'cord-too-short', cord: 1.8, outlet: 2.5, place: 'Rack' }],
  'device-mains': [
    { code: 'device-mains', mains: 'none', place: 'Ceiling point' },
    { code: 'device-mains', mains: 'not known', place: 'Rack' },
  ],
  'supply-without-mains': [{ code: 'supply-without-mains' }],
  'stronger-beside': [{ code: 'stronger-beside', watts: 96 }],
  'volts-arrive': [0, 0.4].map((before) => ({ code: 'volts-arrive', amps: 0.9, before, fails: 4.4 })),
  passes: SURROUNDINGS.flatMap((what) => [
    { code: 'passes', what, copper: false } as const,
    ...(what === 'other-earth' ? [{ code: 'passes', what, copper: true } as const] : []),
  ]),
  optical: [{ code: 'optical' }],
  bend: [{ code: 'bend', bend: 10, allowed: 20 }],
  'plug-in-conduit': [{ code: 'plug-in-conduit', inner: 12, way: 'C1' }],
  'conduit-fill': [1, 2, 4].map((cables) => ({
    code: 'conduit-fill',
    share: 0.5,
    limit: 0.4,
    cables,
    way: cables === 2 ? 'C1' : null,
  })),
  'free-section': [1, 3].map((cables) => ({ code: 'free-section', taken: 90, free: 60, cables, way: 'tray T1' })),
  'no-way': [{ code: 'no-way', route: 4.2 }],
  'play-area': [
    { code: 'play-area', corners: 0, short: 0 },
    { code: 'play-area', corners: 1, short: 0.4 },
    { code: 'play-area', corners: 2, short: 1.2 },
  ],
  'own-voltage': ([null, 'there', 'missing'] as const).map((feed) => ({ code: 'own-voltage', volts: 12, feed })),
  'asked-link': [null, 'usb2' as const].map((mode) => ({ code: 'asked-link', asked: 'gen1x1', mode })),
  'no-drivers': [{ code: 'no-drivers' }],
  'lacks-resistors': [{ code: 'lacks-resistors' }],
  'fewer-bits': [{ code: 'fewer-bits', most: 8, asked: 10, read: '2026-03-02' }],
  'rgb-only': [{ code: 'rgb-only' }],
  'no-hdr': [{ code: 'no-hdr', read: '2026-03-02' }],
  hdr: [null, '2026-03-02'].map((read) => ({ code: 'hdr', read })),
  'hdr-version': [{ code: 'hdr-version', level: 'HBR2', since: 'DisplayPort 1.4' }],
  'not-listed': [
    {
      code: 'not-listed',
      mode: { width: 3840, height: 2160, refresh: 75, bits: 8, chroma: '444' },
      read: '2026-06-02',
      instead: [{ width: 3840, height: 2160, refresh: 60 }],
    },
  ],
  history: [
    { code: 'history', passed: 9, tried: 10, mode: 'usb4-40', controller: 'board' },
    { code: 'history', passed: 0, tried: 3, mode: 'usb4-40', controller: null },
  ],
  'more-than-needed': [{ code: 'more-than-needed', mode: 'USB 5 Gb/s' }],
  'no-path': [{ code: 'no-path', from: 'Laptop', to: 'Screen' }],
}

const moves: { [Code in MoveWords['code']]: Of<MoveWords, Code>[] } = {
  'drawer lead': [{ code: 'drawer lead', run: 'R-01', cable: 'C-0001', length: 2 }],
  'bought lead': [
    { code: 'bought lead', run: 'R-01', kind: 'type-C lead', length: 2, listed: true, optical: false },
    { code: 'bought lead', run: 'R-01', kind: 'optical lead', length: 20, listed: false, optical: true },
  ],
  'other port': [
    { code: 'other port', run: 'R-01', device: 'Laptop', port: 'right', lead: null, bought: false },
    { code: 'other port', run: 'R-01', device: 'Laptop', port: 'right', lead: 'C-0001', bought: false },
    { code: 'other port', run: 'R-01', device: 'Laptop', port: 'right', lead: 'type-C lead', bought: true },
  ],
  'exchange ports': [{ code: 'exchange ports', run: 'R-01', other: 'R-02', device: 'Dock' }],
  'lesser picture': (['standard range', 'fewer bits', 'lower refresh', 'less colour', 'smaller picture'] as const).map(
    (concession) => ({
      code: 'lesser picture',
      need: 'chart picture',
      concession,
      mode: picture,
    }),
  ),
  'allow compression': [{ code: 'allow compression', need: 'chart picture' }],
  'served first': [{ code: 'served first', need: 'chart picture' }],
  'dock to far side': [{ code: 'dock to far side', dock: 'Dock', uplink: 4 }],
  'dock to host side': [{ code: 'dock to host side', dock: 'Dock', uplink: 0.5 }],
  'second dock': [{ code: 'second dock', dock: 'Dock', port: 'Laptop, right' }],
  'hub instead': [{ code: 'hub instead', dock: 'Dock' }],
  'power lead': [{ code: 'power lead', sink: 'Laptop', watts: 100, length: 1.5 }],
  'larger charger': [{ code: 'larger charger', charger: 'Charger', watts: 140 }],
  'mains at': [{ code: 'mains at', place: 'Ceiling point' }],
  extension: [
    { code: 'extension', run: 'R-01', lead: 'C-0002', length: 1, before: 'C-0001', bought: false, listed: true },
    { code: 'extension', run: 'R-01', lead: 'extension', length: 3, before: 'C-0001', bought: true, listed: false },
  ],
  'feed adapter': [
    { code: 'feed adapter', run: 'R-01', lead: 'C-0002', watts: 15, before: 'C-0001', bought: false, listed: true },
    { code: 'feed adapter', run: 'R-01', lead: 'adapter', watts: 15, before: 'C-0001', bought: true, listed: false },
  ],
  'swap own lead': [{ code: 'swap own lead', device: 'Helm panel', length: 3 }],
  'powered hub': [{ code: 'powered hub', hub: 'Hub' }],
  'other charger': [
    { code: 'other charger', charger: 'Charger', port: 'C 1', sink: 'Laptop', watts: 65, lead: null, bought: false },
    { code: 'other charger', charger: 'Charger', port: 'C 1', sink: 'Laptop', watts: 65, lead: 'lead', bought: true },
  ],
  'host by stream': [{ code: 'host by stream', device: 'Laptop' }],
  'extender pair': [{ code: 'extender pair', run: 'R-01', length: 40 }],
}

/** What is wrong with a sentence, by rules that hold for every one of them. */
function faultsOf(words: string): string[] {
  const rules: [string, RegExp][] = [
    ['two spaces', / {2}/],
    ['a space before a stop', / [.,;:]/],
    ['two stops', /[.,;:]{2}/],
    ['nothing where a figure should be', /undefined|NaN|null|\[object|Infinity/],
    ['a singular with a plural', /(?<![\d.,])1 (leads|runs|hubs|cables|needs|lanes|changes|verdicts)\b/],
    ['several with a singular', /(?<![\d.,])([2-9]|\d\d) (lead|run|hub|cable(?! kind)|need|lane|change)\b/],
    ['nothing, in the plural', /\bnothing (are|have|were)\b/i],
    ['a before a vowel', /(?:\ba|^A|\. A) (?=[aeio])(?!one\b)/],
    ['an before a consonant', /\b[Aa]n (?![aeiouhAEIOU8FHLMNRSX])/],
    ['no words where there are none', /\bno (nothing|none)\b/],
  ]
  const found = rules.filter(([, rule]) => rule.test(words)).map(([name]) => name)
  if (!/^[A-Z0-9]/.test(words)) found.push('no capital')
  if (!/\.$/.test(words)) found.push('no full stop')
  return found
}

const finding = (reason: Reason, have: number | null, need: number | null, unit: Finding['unit']): Finding => ({
  check: 'rate',
  grade: 'blocked',
  part: { kind: 'lead', id: 'c', label: 'C-0001' },
  have,
  need,
  unit,
  reason,
  remedies: [],
  source: commonPractice('the trade'),
})

describe('the words', () => {
  it('of every reason are sentences, of one, of several and of nothing, in either unit', () => {
    const wrong: string[] = []
    for (const reason of Object.values(reasons).flat())
      for (const [have, need] of [
        [0, 5e9],
        [5e9, 5e9],
        [1, 60],
      ] as const)
        for (const unit of ['m', 'ft'] as const) {
          const words = sentence(finding(reason as Reason, have, need, 'bit/s'), unit)
          for (const fault of faultsOf(words)) wrong.push(`${reason.code}: ${fault}: ${words}`)
        }
    expect([...new Set(wrong)]).toEqual([])
  })
  it('of every small change that may help are sentences', () => {
    const wrong = Object.values(moves)
      .flat()
      .flatMap((move) => {
        const words = moveSentence(move as MoveWords)
        return faultsOf(words).map((fault) => `${move.code}: ${fault}: ${words}`)
      })
    expect(wrong).toEqual([])
  })
  it('of every change follow a name', () => {
    for (const name of CHANGE_NAMES)
      for (const about of [
        ['One', 'two'],
        ['One', 'two', 'three', 'four', 'five'],
      ]) {
        const words = `Somebody ${changeWords({ name, about })}.`
        expect(faultsOf(words), words).toEqual([])
      }
  })
})

describe('the narrowest of several findings', () => {
  it('is the one with the least to spare as a share of what is asked; what measures nothing does not count', () => {
    const some = [
      finding(reasons['no-lead'][0] as Reason, null, null, null),
      finding(reasons.rate[0] as Reason, 20e9, 10e9, 'bit/s'),
      finding(reasons.rate[0] as Reason, 6e9, 5e9, 'bit/s'),
      finding(reasons.rate[0] as Reason, 1, 0, 'bit/s'),
    ]
    expect(narrowestOf(some)).toEqual({ have: 6e9, need: 5e9, unit: 'bit/s' })
    expect(narrowestOf([])).toBeNull()
    expect(marginOf(some[2] as Finding)).toBe(1e9)
  })
})
