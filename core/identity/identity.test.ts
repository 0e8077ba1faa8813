import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { filesFromText, readClassFolder } from './class-folder'
import { type Claim, contradictionSentence, contradictionsOf } from './contradictions'
import { decodeIdentity, type IdentityWords } from './e-marker'
import { parseHexWords } from './hex-words'

/** An encoder of its own: a list of [value, bits] from bit 31 down, as the field comments of the kernel header have them. */
function encode(...fields: [value: number, bits: number][]): number {
  let text = ''
  for (const [value, bits] of fields) text += value.toString(2).padStart(bits, '0')
  if (text.length !== 32) throw new Error(`a word of ${text.length} bits`)
  return Number.parseInt(text, 2)
}
type Header = { type?: number; modal?: number; vendor?: number }
const idHeader = ({ type = 3, modal = 0, vendor = 0x1234 }: Header = {}) =>
  encode([0, 1], [0, 1], [type, 3], [modal, 1], [0, 3], [0, 2], [0, 5], [vendor, 16])
type Passive = { version?: number; epr?: number; latency?: number; volts?: number; amps?: number; speed?: number }
const passive = ({ version = 0, epr = 0, latency = 1, volts = 0, amps = 2, speed = 3 }: Passive = {}) =>
  encode(
    [1, 4],
    [2, 4],
    [version, 3],
    [0, 1],
    [2, 2],
    [epr, 1],
    [latency, 4],
    [0, 2],
    [volts, 2],
    [0, 2],
    [amps, 2],
    [0, 2],
    [speed, 3],
  )
type Active = { latency?: number; amps?: number; through?: number; speed?: number }
const active = ({ latency = 2, amps = 2, through = 1, speed = 3 }: Active = {}) =>
  encode(
    [1, 4],
    [2, 4],
    [3, 3],
    [0, 1],
    [2, 2],
    [0, 1],
    [latency, 4],
    [3, 2],
    [0, 2],
    [0, 1],
    [1, 1],
    [amps, 2],
    [through, 1],
    [0, 1],
    [speed, 3],
  )
type Second = { optical?: number; noUsb4?: number; hops?: number; noUsb2?: number }
const second = ({ optical = 0, noUsb4 = 0, hops = 0, noUsb2 = 0 }: Second = {}) =>
  encode(
    [70, 8],
    [85, 8],
    [0, 1],
    [2, 3],
    [1, 1],
    [optical, 1],
    [1, 1],
    [noUsb4, 1],
    [hops, 2],
    [noUsb2, 1],
    [0, 1],
    [1, 1],
    [0, 1],
    [0, 1],
    [1, 1],
  )
const revision2 = ({ latency = 1, amps = 1, through = 1, speed = 1 }: Active = {}) =>
  encode(
    [0, 4],
    [0, 4],
    [0, 4],
    [2, 2],
    [0, 1],
    [latency, 4],
    [0, 2],
    [0, 1],
    [0, 1],
    [0, 1],
    [0, 1],
    [amps, 2],
    [through, 1],
    [0, 1],
    [speed, 3],
  )
const words = (more: Partial<IdentityWords>): IdentityWords => ({
  idHeader: idHeader(),
  certStat: 0,
  product: 0,
  vdo1: passive(),
  vdo2: null,
  revision: 3,
  ...more,
})
const facts = (more: Partial<IdentityWords>) => decodeIdentity(words(more)).facts
const meaning = (more: Partial<IdentityWords>, name: string) =>
  decodeIdentity(words(more))
    .words.flatMap((word) => word.fields)
    .find((field) => field.name === name)?.meaning

describe('words written down', () => {
  it('a passive 5 A lead of up to 1 m for USB4 Gen 3', () => {
    // 0x1c00abcd: product type 3, passive cable, and modal operation; vendor abcd
    // 0x11082643: hardware 1, firmware 1, type-C plug, latency 1, 50 V, 5 A, speed 3
    const read = parseHexWords('0x1c00abcd 00000000 12340105 0x11082643', 3)
    expect(read.ok && decodeIdentity(read.value).facts).toMatchObject({
      product: 'passive',
      construction: 'passive',
      grade: 'usb4-40',
      amps: 5,
      volts: 50,
      length: { above: 0, upTo: 1 },
      missing: [],
      reservedSet: [],
    })
    expect(read.ok && decodeIdentity(read.value).words[0]?.fields.map((field) => field.meaning)).toEqual([
      'no',
      'no',
      'passive cable',
      'yes',
      'zero, as it must be',
      'not stated',
      'zero, as it must be',
      '0xabcd',
    ])
  })
  it('a header before the words is passed over', () => {
    const bare = parseHexWords('1c00abcd 00000000 12340105 11082643', 3)
    expect(parseHexWords('ff00a041, 1C00ABCD, 00000000, 12340105, 11082643', 3)).toEqual(bare)
  })
})

describe('every field from the layout', () => {
  it.each([
    [0, 'usb2'],
    [1, 'gen1'],
    [2, 'usb4-20'],
    [3, 'usb4-40'],
    [4, 'usb4-80'],
    [5, null],
  ])('speed %d of a passive cable is %s', (speed, grade) =>
    expect(facts({ vdo1: passive({ speed }) }).grade).toBe(grade),
  )
  it.each([
    [0, null],
    [1, 3],
    [2, 5],
    [3, null],
  ])('current %d is %s A', (amps, value) => expect(facts({ vdo1: passive({ amps }) }).amps).toBe(value))
  it.each([1, 2, 3, 4, 5, 6, 7])('latency %d covers one metre more', (latency) =>
    expect(facts({ vdo1: passive({ latency }) }).length).toEqual({ above: latency - 1, upTo: latency }),
  )
  it('the longest latencies differ between copper and active cables', () => {
    expect(facts({ vdo1: passive({ latency: 8 }) }).length).toEqual({ above: 7, upTo: null })
    const far = { idHeader: idHeader({ type: 4 }), vdo2: second() }
    expect(facts({ ...far, vdo1: active({ latency: 10 }) }).length).toEqual({ above: 200, upTo: 300 })
    expect(facts({ vdo1: passive({ latency: 0 }) }).length).toBeNull()
  })
  it('an active cable: what its second word says it is and lacks', () => {
    const type = { idHeader: idHeader({ type: 4 }), vdo1: active() }
    expect(facts({ ...type, vdo2: second() })).toMatchObject({ construction: 'active', grade: 'usb4-40', amps: 5 })
    expect(facts({ ...type, vdo2: second({ optical: 1 }) }).construction).toBe('optical')
    expect(facts({ ...type, vdo2: second({ noUsb4: 1 }) }).grade).toBe('gen2')
    expect(meaning({ ...type, vdo2: second({ noUsb2: 1 }) }, 'USB 2.0')).toBe('no')
    expect(meaning({ ...type, vdo2: second({ hops: 2 }) }, 'USB 2.0 hubs it counts as')).toBe('2')
    expect(meaning({ ...type, vdo2: second() }, 'shuts down at')).toBe('85 °C')
    expect(facts({ ...type, vdo1: active({ through: 0 }), vdo2: second() }).amps).toBe(0)
    expect(facts({ ...type, vdo2: null }).missing).toEqual(['second word of an active cable'])
  })
  it('revision 2.0 reads the same word its own way', () => {
    expect(facts({ revision: 2, vdo1: revision2() })).toMatchObject({ grade: 'gen1', amps: 3, reservedSet: [] })
    expect(facts({ revision: 2, vdo1: revision2({ speed: 2, amps: 2 }) })).toMatchObject({ grade: 'gen2', amps: 5 })
    expect(facts({ revision: 2, vdo1: revision2({ through: 0 }) }).amps).toBe(0)
    expect(facts({ revision: 2, vdo1: revision2({ speed: 0 }) }).grade).toBe('usb2')
  })
  it('bit 17 is the extended range flag in later words (from memory), and reserved in earlier ones', () => {
    expect(meaning({ vdo1: passive({ version: 3, epr: 1 }) }, 'extended power range')).toBe('yes')
    expect(facts({ vdo1: passive({ version: 0, epr: 1 }) }).reservedSet).toEqual(['passive cable 17'])
  })
  it('any word at all decodes, and the fields give the word back', () => {
    const word = fc.integer({ min: 0, max: 0xffffffff })
    const type = fc.constantFrom(0, 3, 4, 6)
    fc.assert(
      fc.property(word, word, type, fc.constantFrom(2 as const, 3 as const), (vdo1, vdo2, product, revision) => {
        const decoded = decodeIdentity(words({ idHeader: idHeader({ type: product }), vdo1, vdo2, revision }))
        for (const { hex, fields } of decoded.words) {
          let sum = 0
          for (const { bits, value } of fields) sum += value * 2 ** Number(bits.split(':').at(-1))
          expect(sum).toBe(Number(hex))
          for (const { meaning: said } of fields) expect(said).not.toBe('')
        }
      }),
    )
  })
})

describe('contradictions', () => {
  const against = (more: Partial<IdentityWords>, claim: Claim) =>
    contradictionsOf(facts(more), claim).map(({ code }) => code)
  it('latency against the stated length, either way', () => {
    expect(against({ vdo1: passive({ latency: 1 }) }, { length: 2 })).toEqual(['latency'])
    expect(against({ vdo1: passive({ latency: 4 }) }, { length: 2 })).toEqual(['latency'])
    expect(against({ vdo1: passive({ latency: 2 }) }, { length: 2 })).toEqual([])
    expect(against({ vdo1: passive({ latency: 1 }) }, { length: 1.1 })).toEqual([])
  })
  it('5 A claimed and 3 A given, 40 printed and Gen 2 given, 240 W claimed without 50 V', () => {
    expect(against({ vdo1: passive({ amps: 1 }) }, { amps: 5 })).toEqual(['current'])
    expect(against({ vdo1: passive({ speed: 2 }) }, { grade: 'usb4-40' })).toEqual(['rate'])
    expect(against({ vdo1: passive() }, { volts: 50 })).toEqual(['voltage'])
    expect(against({ vdo1: passive({ speed: 3 }) }, { grade: 'gen2' })).toEqual([])
  })
  it('active without its second word, bits that must be zero, a chip that is no cable', () => {
    const type = idHeader({ type: 4 })
    expect(against({ idHeader: type, vdo1: active() }, { construction: 'passive' })).toEqual([
      'construction',
      'missing-word',
    ])
    expect(against({ vdo1: passive() + 2 ** 20 }, {})).toEqual(['reserved-bits'])
    expect(against({ idHeader: idHeader({ type: 0 }), vdo1: null }, {})).toEqual(['not-a-cable'])
    expect(against({ vdo1: null }, {})).toEqual(['missing-word'])
  })
  it('each is said in a sentence with its figures', () => {
    const said = (more: Partial<IdentityWords>, claim: Claim) =>
      contradictionsOf(facts(more), claim)
        .map((each) => contradictionSentence(each, 'm'))
        .join(' ')
    expect(said({ vdo1: passive({ latency: 1, amps: 1, speed: 2 }) }, { length: 2, amps: 5, grade: 'usb4-40' })).toBe(
      'The lead is stated to be 2 m long; the latency its chip gives belongs to a lead of up to 1 m. It claims USB4 40 Gb/s; its chip says USB4 20 Gb/s. It claims 5 A; its chip says 3 A.',
    )
    expect(said({ vdo1: passive({ latency: 8 }) }, { length: 2 })).toContain('more than 7 m')
    expect(said({ vdo1: passive() + 2 ** 7 }, { volts: 50, construction: 'optical' })).toContain('passive cable 8:7')
    expect(said({ idHeader: idHeader({ type: 4 }), vdo1: active() }, {})).toContain(
      'second word of an active cable is missing',
    )
    expect(said({ idHeader: idHeader({ type: 0 }) }, {})).toContain('not a cable')
  })
})

describe('hex words', () => {
  it.each([
    ['', 'Paste the words'],
    ['1c00abcd 00000000', '2 words without the header'],
    ['1c00abcd 0 12340105', 'Word 2, "0", has 1 hex digits'],
    ['1c00abcd 00000000 123401050', 'has 9 hex digits'],
    ['hello 00000000 12340105', 'is not hex'],
    ['1c00abcd '.repeat(9), '9 words without the header'],
    ['f'.repeat(3000), 'more text than six words'],
  ])('%j is refused', (text, reason) => {
    const read = parseHexWords(text, 3)
    expect(read.ok ? '' : read.problem).toContain(reason)
  })
})

describe('the type-C class folder of a Linux computer', () => {
  const printed = `/sys/class/typec/port0-cable/identity/id_header:0x1c00abcd
/sys/class/typec/port0-cable/identity/cert_stat:0x0
/sys/class/typec/port0-cable/identity/product:0x12340105
/sys/class/typec/port0-cable/identity/product_type_vdo1:0x11082643
/sys/class/typec/port0-cable/identity/product_type_vdo2:0x0
/sys/class/typec/port0-cable/type:passive
/sys/class/typec/port0-cable/plug_type:type-c
/sys/class/typec/port0/power_role:[source] sink`
  it('as grep prints it', () => {
    const read = readClassFolder(filesFromText(printed))
    expect(read.ok && read.value).toEqual([
      {
        port: 'port0',
        plug: 'type-c',
        type: 'passive',
        words: { idHeader: 0x1c00abcd, certStat: 0, product: 0x12340105, vdo1: 0x11082643, vdo2: null, revision: 3 },
      },
    ])
  })
  it('as one folder alone, and as an archive holds it, padded with zeros', () => {
    const alone = readClassFolder(filesFromText('id_header: 0x1c00abcd\nproduct_type_vdo1 = 0x11082643\ntype: passive'))
    expect(alone.ok && alone.value[0]?.words.vdo1).toBe(0x11082643)
    const padded = readClassFolder([
      { path: 'typec/port1-cable/identity/id_header', text: `0x1c00abcd\n${'\u0000'.repeat(4085)}` },
      { path: 'typec/port1-cable/usb_power_delivery_revision', text: '2.0\n' },
    ])
    expect(padded.ok && padded.value[0]).toMatchObject({ port: 'port1', words: { idHeader: 0x1c00abcd, revision: 2 } })
  })
  it.each([
    ['nothing of it', 'no portN-cable/identity in this'],
    ['/sys/class/typec/port0-cable/type:passive', 'no identity: the cable has no chip'],
    ['id_header: 0x1c00abcd99', 'not a hex word'],
  ])('%j is refused', (text, reason) => {
    const read = readClassFolder(filesFromText(text))
    expect(read.ok ? '' : read.problem).toContain(reason)
  })
})
