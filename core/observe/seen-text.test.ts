import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cases } from '../../tests/support/laws'
import { LINK_MODES, linkModeFacts } from '../standards/link-modes'
import { type Observation, observationText } from './observation'
import { parseSaid, parseSeen, SAID_EXAMPLES, SEEN_EXAMPLES, type SeenContext } from './seen-text'

const nowhere: SeenContext = { spoken: [], expected: 'gen2x1', ought: 'gen2x1' }
const dock: SeenContext = {
  spoken: ['usb2', 'gen1x1', 'gen2x1', 'tbt3-20', 'tbt3-40'],
  expected: 'tbt3-40',
  ought: 'tbt3-20',
}
const read = (line: string, context = nowhere) => {
  const answer = parseSeen(line, context)
  return answer.ok ? answer.value : answer.problem
}

describe('a line of what somebody saw', () => {
  it.each<[string, object[]]>([
    ['held 10 Gb/s for 60 s', [{ kind: 'trial', basis: 'soaked', tried: 'gen2x1', cameUp: 'gen2x1', seconds: 60 }]],
    ['10 Gb/s 45 s', [{ kind: 'trial', basis: 'measured', tried: 'gen2x1', cameUp: 'gen2x1', seconds: 45 }]],
    ['came up as USB 2.0', [{ kind: 'trial', basis: 'measured', tried: 'usb2', cameUp: 'usb2' }]],
    ['held 5 Gb/s for 2 h', [{ kind: 'trial', basis: 'soaked', tried: 'gen1x1', cameUp: 'gen1x1', seconds: 7200 }]],
    ['dropped after 70 s', [{ kind: 'trial', basis: 'soaked', tried: 'gen2x1', cameUp: null, seconds: 70 }]],
    ['dropped at 40 Gb/s', [{ kind: 'trial', basis: 'soaked', tried: 'usb4-40', cameUp: null }]],
    ['nothing came up', [{ kind: 'trial', basis: 'measured', tried: 'gen2x1', cameUp: null }]],
    ['no chip', [{ kind: 'statement', basis: 'chip', grade: null, amps: null, volts: null }]],
    [
      'the seller says 40 Gb/s and 240 W',
      [{ kind: 'statement', basis: 'told', from: 'the seller', grade: 'usb4-40', amps: 5, volts: 50 }],
    ],
    ['the maker says it carries 100 W', [{ kind: 'statement', basis: 'told', from: 'the maker', amps: 5, volts: 20 }]],
    ['it looks like a charge only lead', [{ kind: 'statement', basis: 'looks', grade: 'charge-only' }]],
    ['the plug got hot', [{ kind: 'reading', measure: 'warmth', felt: 'hot' }]],
    ['58 °C', [{ kind: 'reading', measure: 'warmth', felt: 'hot', celsius: 58 }]],
    [
      'wrote 190 MB/s, read 370, the lead was the limit',
      [
        { kind: 'reading', measure: 'write', rate: 190 * 8e6, limit: 'lead' },
        { kind: 'reading', measure: 'read', rate: 370 * 8e6, limit: 'lead' },
      ],
    ],
    ['94.5 W', [{ kind: 'reading', measure: 'watts', watts: 94.5 }]],
    ['0.4 V at 3 A', [{ kind: 'reading', measure: 'volts lost', volts: 0.4, amps: 3 }]],
    ['black at 4K@60', [{ kind: 'reading', measure: 'picture', held: false }]],
    ['picture 4K@60 held', [{ kind: 'reading', measure: 'picture', held: true }]],
  ])('%s', (line, seen) => expect(read(line)).toMatchObject(seen))
  it('means what these ports speak, and was tried at the best of it', () => {
    expect(read('40 Gb/s for 60 s', dock)).toMatchObject([{ tried: 'tbt3-40', cameUp: 'tbt3-40' }])
    expect(read('dropped after 70 s', dock)).toMatchObject([{ tried: 'tbt3-20', cameUp: null, seconds: 70 }])
    expect(read('nothing came up', dock)).toMatchObject([{ tried: 'tbt3-40', cameUp: null }])
    expect(read('came up as 5 Gb/s', dock)).toMatchObject([{ tried: 'tbt3-40', cameUp: 'gen1x1' }])
  })
  it('that says nothing is answered with what can be written', () => {
    for (const line of ['', 'fine', 'wrote a lot', '999 W', 'held 7 Gb/s', 'black at noon', 'he says it works']) {
      const answer = parseSeen(line, nowhere)
      expect(answer.ok).toBe(false)
      expect(!answer.ok && answer.problem.length).toBeGreaterThan(10)
    }
  })
  it('reads every example it gives, and every mode by its name', () => {
    for (const line of SEEN_EXAMPLES) expect(parseSeen(line, nowhere).ok).toBe(true)
    for (const mode of LINK_MODES)
      expect(read(`held ${linkModeFacts[mode].name} for 60 s`)).toMatchObject([{ cameUp: mode }])
  })
  it('never throws, and what it reads is an observation with words of its own', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 60 }), (line) => {
        const answer = parseSeen(line, nowhere)
        if (answer.ok)
          for (const seen of answer.value) expect(observationText(seen as Observation).length).toBeGreaterThan(2)
      }),
      { numRuns: cases(500) },
    )
  })
})

describe('a line of what is said of a kind', () => {
  it.each(SAID_EXAMPLES)('reads "%s"', (line) => {
    const read = parseSaid(line)
    expect(read.ok && read.value.every(({ kind }) => kind === 'statement')).toBe(true)
  })
  it('takes no test of one cable for one of its kind, and nothing for something', () => {
    for (const line of SEEN_EXAMPLES.filter((each) => !/says|looks|chip/.test(each)))
      expect(parseSaid(line), line).toMatchObject({
        ok: false,
        problem: expect.stringContaining('A test is of one cable'),
      })
    for (const line of ['', 'it was fine']) expect(parseSaid(line).ok).toBe(false)
  })
})
