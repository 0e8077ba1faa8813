import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { checkedSchema } from '../../core/checks/checked'
import { LARGEST_PLAN_BYTES } from '../../core/plan/read'
import { onePlan } from '../../tests/support/one-run'
import { check } from './check'

const folder = mkdtempSync(join(tmpdir(), 'hallway-check-'))
afterAll(() => rmSync(folder, { recursive: true }))

function run(content: string | object, ...flags: string[]) {
  const file = join(folder, 'plan.json')
  writeFileSync(file, typeof content === 'string' ? content : JSON.stringify(content))
  const out: string[] = []
  const err: string[] = []
  const code = check(file, {
    json: flags.includes('--json'),
    print: (text) => out.push(text),
    complain: (text) => err.push(text),
  })
  return { code, out: out.join('\n'), err: err.join('\n') }
}

const disk = (length: number) =>
  onePlan({
    from: { connector: 'type-c', role: 'host', usb: 'gen2x1' },
    to: { kind: 'storage', connector: 'type-c', role: 'device', usb: 'gen2x1' },
    leads: [{ grade: 'gen2', length }],
    need: { kind: 'storage', rate: 6.4e9 },
  })

describe('./hallway check', () => {
  it('answers 0 where nothing is blocked', () => {
    const { code, out } = run(disk(1))
    expect(code).toBe(0)
    expect(out).toContain('R-01  CLEAR')
  })
  it('answers 1 where something is, and says what and why', () => {
    const { code, out } = run(disk(2))
    expect(code).toBe(1)
    expect(out).toContain('R-01  BLOCKED')
    expect(out).toContain('to 1 m; C-1 is 2 m')
  })
  it('prints the agreed shape for machines', () => {
    const { out } = run(disk(2), '--json')
    const { runs, needs } = JSON.parse(out)
    expect(runs[0]).toMatchObject({ id: 'r1', grade: 'blocked' })
    expect(needs[0]).toMatchObject({ id: 'n1', grade: 'blocked', path: ['near/p', 'c1', 'far/p'] })
    expect(checkedSchema.parse({ runs, needs })).toEqual({ runs, needs })
    expect(runs[0].findings.find((finding: { check: string }) => finding.check === 'rate')).toMatchObject({
      part: 'c1',
      have: 4e9,
      need: 6.4e9,
      unit: 'bit/s',
    })
  })
  it('answers 2 for what is no plan, with the path and reason of every fault', () => {
    const plan = disk(1)
    const spoilt = {
      ...plan,
      cables: [{ ...plan.cables[0], length: '5 parsecs' }],
      runs: [{ ...plan.runs[0], tag: '' }],
    }
    const { code, err, out } = run(spoilt)
    expect(code).toBe(2)
    expect(out).toBe('')
    expect(err).toContain('cables[0].length: "5 parsecs" is not a length')
    expect(err).toContain('runs[0].tag: ')
  })
  it.each([
    ['nonsense', 'not JSON'],
    ['x'.repeat(LARGEST_PLAN_BYTES + 1), 'MB, and a plan file is at most 16 MB'],
  ])('refuses %.12s', (content, reason) => {
    const { code, err } = run(content)
    expect(code).toBe(2)
    expect(err).toContain(reason)
  })
  it('refuses a file that is not there', () => {
    const err: string[] = []
    expect(check(join(folder, 'none.json'), { json: false, print: () => {}, complain: (text) => err.push(text) })).toBe(
      2,
    )
    expect(err.join()).toContain('ENOENT')
  })
})
