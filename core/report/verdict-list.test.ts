import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { assessAnew } from '../checks/assess'
import { severity } from '../checks/finding'
import { needVerdicts, runVerdicts, toBuy, verdictTable } from './verdict-list'

const site = assessAnew(demo)

describe('the list of verdicts', () => {
  it('has every run and every need once, the worst first, each with the verdict of the assessment', () => {
    for (const [lines, verdicts] of [
      [runVerdicts(site, 'm'), site.assessment.runs],
      [needVerdicts(site, 'm'), site.assessment.needs],
    ] as const) {
      expect(new Map(lines.map(({ id, grade }) => [id, grade]))).toEqual(
        new Map(verdicts.map(({ id, grade }) => [id, grade])),
      )
      const worst = lines.map(({ grade }) => severity[grade])
      expect(worst).toEqual(worst.toSorted((one, other) => other - one))
    }
  })
  it('says why of what is not clear, and nothing of what is', () => {
    for (const { grade, why, todo } of runVerdicts(site, 'ft')) {
      expect(why === '').toBe(grade === 'clear')
      if (grade === 'clear') expect(todo).toEqual([])
    }
  })
  it('adds up what is to be bought by kind and length', () => {
    const [kind] = demo.kinds
    if (!kind) throw new Error('the demo has kinds')
    const stock = [{ length: 2, price: 10.5 }]
    const plan = {
      ...demo,
      kinds: demo.kinds.map((each) => (each === kind ? { ...kind, stock } : each)),
      runs: demo.runs.map((run, at) => ({
        ...run,
        leads: at < 3 ? [{ kind: kind.id, length: at < 2 ? 2 : 3, reversed: false }] : [],
      })),
    }
    const [first, second, third] = demo.runs.map(({ tag }) => tag)
    expect(toBuy(assessAnew(plan))).toEqual([
      { kind: kind.name, length: 2, runs: [first, second], price: 21 },
      { kind: kind.name, length: 3, runs: [third], price: null },
    ])
    expect(verdictTable(assessAnew(plan), 'm').at(-2)?.slice(-2)).toEqual(['Buy 2.', '21 EUR'])
  })
})
