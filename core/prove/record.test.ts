import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { cases } from '../../tests/support/laws'
import { madeUpCopy, many } from '../../tests/support/made-up-walk'
import { learntOfCable } from '../observe/learned'
import { indexPlan } from '../plan/site-index'
import { formatLength } from '../quantity/length'
import { adviceOf, adviceSentences } from './advice'
import { beforeAfter, parseRepeats } from './before-after'
import { portMatrix, RECORD_GRAINS, recordOf, recordRows, wattsTable } from './record'

describe('the record', () => {
  it('loses no try, however it is pooled and whosever it is, and its range holds what was seen', () => {
    fc.assert(
      fc.property(many, many, (here, there) => {
        const [own, others] = [here, there].map((changes) => recordOf(indexPlan(madeUpCopy(changes).plan)))
        if (!own || !others) throw new Error('two sites')
        const tried = (list: readonly { tried: number }[]) => list.reduce((sum, each) => sum + each.tried, 0)
        for (const grain of RECORD_GRAINS) {
          const rows = recordRows({ own, others }, grain)
          expect(tried(rows)).toBe(tried(own) + tried(others))
          expect(rows.reduce((sum, { elsewhere }) => sum + elsewhere, 0)).toBe(tried(others))
          for (const { rate, held, tried } of rows) {
            expect(held).toBeLessThanOrEqual(tried)
            expect(rate.low).toBeLessThanOrEqual(held / tried)
            expect(rate.high).toBeGreaterThanOrEqual(held / tried)
          }
          const turned = recordRows({ own: own.toReversed(), others: others.toReversed() }, grain)
          const plain = (list: typeof rows) =>
            list.map(({ mode, held, tried, seconds, drops }) => [mode, held, tried, seconds, drops].join()).sort()
          expect(plain(turned)).toEqual(plain(rows))
        }
      }),
      { numRuns: cases(40) },
    )
  })
  it('of fewer than three tries is told with what lies under it', () => {
    const cell = { kind: 'K', mode: 'gen2x1', seconds: 60, inPlace: 0, drops: 0, held: 1 } as const
    const own = [
      { ...cell, length: 1, controller: 'board', tried: 2 },
      { ...cell, length: 1, controller: 'card', tried: 1 },
      { ...cell, length: 2, controller: 'board', tried: 3 },
    ]
    const told = (grain: 'kind' | 'length' | 'controller') =>
      recordRows({ own, others: [] }, grain).map(({ length, controller, tried }) => [length, controller, tried])
    expect(told('kind')).toEqual([[null, null, 6]])
    expect(told('length')).toEqual([
      [1, null, 3],
      [2, null, 3],
    ])
    expect(told('controller')).toEqual([
      [1, null, 3],
      [2, 'board', 3],
    ])
  })
  it('knows what each cable did in each socket, and what each charger gave', () => {
    const index = indexPlan(demo)
    const { ports, rows } = portMatrix(index)
    expect(ports).toContain('gallery-laptop/right')
    const dropped = rows.find(({ cable }) => cable === 'c-0053')?.cells.get('gallery-laptop/right')
    expect(dropped).toMatchObject({ mode: null, dropped: true, seconds: 57 })
    expect(wattsTable(index)).toContainEqual({
      charger: 'desk-charger',
      cable: 'c-0054',
      device: 'gallery-laptop',
      least: 58.2,
      most: 58.2,
      times: 1,
    })
  })
})

describe('what the shop advises', () => {
  it('is never a lead that got hot or did less than the best, whatever was seen; the cheapest comes first', () => {
    fc.assert(
      fc.property(many, (changes) => {
        const index = indexPlan(madeUpCopy(changes).plan)
        for (const { use } of adviceOf(index).devices) {
          const prices = use.map(({ price }) => price ?? 1e9)
          expect(prices).toEqual(prices.toSorted((one, other) => one - other))
          for (const { name } of use) {
            const cable = index.plan.cables.find(({ tag }) => tag === name)
            if (cable) expect(learntOfCable(index.learned, cable.id)?.hot ?? null).toBeNull()
          }
        }
      }),
      { numRuns: cases(40) },
    )
  })
  it('says what to use, what not, and why', () => {
    const { devices } = adviceOf(indexPlan(demo))
    const array = devices.find(({ device }) => device === 'Replay array')
    if (!array) throw new Error('the array was tested')
    expect(adviceSentences(array, 'EUR', (metres) => formatLength(metres))).toEqual([
      'Use C-0051, 0.8 m: it came up as Thunderbolt 40 Gb/s, wrote 2980 MB/s and read 3020 MB/s in Gallery laptop, right type-C.',
      'Not C-0052, 0.8 m: it came up lower.',
      'Not C-0053, 0.8 m: it dropped.',
      'Not C-0054, 1 m: it came up lower.',
      'Not C-0055, 1 m: it got hot.',
    ])
  })
})

describe('before and after', () => {
  const sides = (one: number[], other: number[], lessIsBetter = true) =>
    beforeAfter({ names: ['short', 'long'], figures: [one, other], unit: 's', lessIsBetter })
  it('says by how much where it is sure, and never that two sides are the same', () => {
    expect(sides([61.2, 60.8, 61.5], [71.4, 72, 70.9])?.verdict).toMatch(/^Long is worse by 10\.27 s \(16\.8 %\)/)
    expect(sides([61.2, 60.8, 61.5], [71.4, 72, 70.9], false)?.verdict).toMatch(/^Long is better/)
    const blind = sides([60, 70, 80], [62, 71, 83])
    expect(blind?.verdict).toMatch(/^No difference was shown/)
    expect(blind?.could).toMatch(/could have shown a difference of/)
    expect(blind?.advice).toMatch(/times each way/)
    expect(sides([5], [5, 6])).toBeNull()
  })
  it('reads repeats as people write them, and says what it cannot read', () => {
    expect(parseRepeats('61.2 60,8; 61.5')).toEqual({ ok: true, value: [61.2, 60.8, 61.5] })
    expect(parseRepeats('61, 62, 63')).toEqual({ ok: true, value: [61, 62, 63] })
    for (const text of ['', '61', 'fast slow', '61,62,63', '1 '.repeat(61), '1e9 2'])
      expect(parseRepeats(text)).toMatchObject({ ok: false })
    fc.assert(fc.property(fc.string({ maxLength: 400 }), (text) => typeof parseRepeats(text).ok === 'boolean'))
  })
})
