import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { gradeFacts } from '../standards/grades'
import { CLAIM_SORTS, readListing } from './listing'

// every listing here is invented; what is held against it is the book (core/standards/reach.ts, each row with its source)

describe('a listing is read', () => {
  it('each claim with the words it came from', () => {
    const { claims, ends, length, grade, construction, watts, problems } = readListing(
      'Active USB-C to USB-C lead, 2 m (6.6 ft). USB4, 40 Gb/s, 100 W, 8K 60 Hz. Includes a cloth tie. 30 days returns.',
    )
    expect({ ends, length, grade, construction, watts }).toEqual({
      ends: ['type-c', 'type-c'],
      length: 2,
      grade: 'usb4-40',
      construction: 'active',
      watts: 100,
    })
    expect(problems).toEqual([])
    expect(claims.map(({ sort, words }) => `${sort}: ${words}`)).toEqual([
      'length: 2 m',
      'length: 6.6 ft',
      'rate: 40 Gb/s',
      'mark: USB4',
      'watts: 100 W',
      'picture: 8K 60 Hz',
      'ends: USB-C to USB-C',
      'built: Active',
      'comes with: Includes a cloth tie',
      'returns: 30 days returns',
    ])
  })
  it.each([
    [
      'passive 80 Gb/s at 2 m',
      'USB-C to USB-C, Thunderbolt 5, 2 m, passive',
      /By the book a passive lead carries Thunderbolt 5 to/,
    ],
    ['240 W without the mark', 'USB-C to USB-C, 1 m, 240 W fast charging', /names no extended power range/],
    [
      'bytes for bits',
      'USB-C to USB-C, 0.8 m, 40 GB/s',
      /“40 GB\/s” is 320 Gb\/s; as bits it would be a usual rate, 40 Gb\/s/,
    ],
    ['two lengths', 'USB-C to USB-C lead 2 m, 20 Gb/s. Cable length: 6 m', /several lengths: 2 m, 6 m/],
    [
      'more than its mark',
      'USB 3.2 Gen 2 lead, USB-C to USB-C, 1 m, 40 Gb/s',
      /claims 40 Gb\/s, and what it is marked as carries 10 Gb\/s/,
    ],
    ['power over glass', 'optical USB-C to USB-C 10 m, 60 W', /glass carries no power/],
  ])('and %s is told, with a question for the seller', (_, text, problem) => {
    const { problems, questions } = readListing(text)
    expect(
      problems.some((each) => problem.test(each)),
      problems.join(' | '),
    ).toBe(true)
    expect(questions.length).toBeGreaterThanOrEqual(problems.length)
  })
  it('what is within the book is no problem', () => {
    expect(readListing('Passive USB-C to USB-C, 0.8 m, USB4, 40 Gb/s, 60 W').problems).toEqual([])
    expect(readListing('240 W extended power range (EPR), USB-C to USB-C, 2 m, USB 2.0, 480 Mb/s').problems).toEqual([])
    expect(readListing('Copies 480 MB of photos in seconds').problems).toEqual([])
  })
  it('what is missing to decide is asked', () => {
    const { missing, questions } = readListing('Great cable for all your devices!')
    expect(missing).toEqual([
      'its length',
      'which plug is at each end',
      'what it carries',
      'how much power it carries',
      'whether it may go back',
    ])
    expect(questions).toHaveLength(missing.length)
  })
})

it('whatever a page says, every claim stands in it word by word, and nothing is made up', () => {
  const word = fc.constantFrom(
    '2 m',
    '6.6ft',
    '40 Gb/s',
    '40 GB/s',
    '240W',
    'USB4',
    'DP 1.4',
    'HDMI 2.1',
    'USB-C to HDMI',
    'active',
    'optical',
    '8K',
    'one-way',
    'Includes',
    'returns',
    '\n',
    '. ',
    'x',
    '0',
    '999999',
  )
  fc.assert(
    fc.property(fc.array(fc.oneof(word, fc.string({ maxLength: 8 })), { maxLength: 40 }), (parts) => {
      const text = parts.join(' ')
      const read = readListing(text)
      const plain = text.replace(/[ \t]+/g, ' ')
      for (const { sort, words, says } of read.claims) {
        expect(CLAIM_SORTS).toContain(sort)
        expect(plain).toContain(words)
        expect(says).not.toBe('')
      }
      expect(read.questions).toHaveLength(read.problems.length + read.missing.length)
      if (read.grade) expect(gradeFacts[read.grade]).toBeDefined()
    }),
  )
})
