import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { cases } from '../../tests/support/laws'
import { madeUpCopy, many } from '../../tests/support/made-up-walk'
import { assessAnew } from '../checks/assess'
import type { Plan } from '../plan/plan'
import { atMost } from '../quantity/limit'
import type { PictureMode } from '../vocabulary/need'
import { dockView, secondDisplayTrap } from './dock'

const mode = (width: number, height: number, refresh = 60): PictureMode => ({
  width,
  height,
  refresh,
  bits: 8,
  chroma: '444',
})
/** The gallery's dock with the lead that carries 40 Gb/s, and pictures of these sizes in this order. */
function gallery(modes: readonly PictureMode[], change: (plan: Plan) => Plan = (plan) => plan) {
  const kept = demo.needs.filter(({ kind, from }) => !(kind === 'picture' && from === 'gallery-laptop'))
  const ends = ['gallery-chart', 'gallery-log']
  const pictures = modes.map((each, at) => ({
    id: `p${at}`,
    kind: 'picture' as const,
    name: `picture ${at}`,
    from: 'gallery-laptop',
    to: ends[at % 2] ?? 'gallery-chart',
    mode: each,
  }))
  return assessAnew(
    change({
      ...demo,
      needs: [...pictures, ...kept],
      runs: demo.runs.map((run) =>
        run.id === 'r-09' ? { ...run, leads: [{ cable: 'c-0021', reversed: false }] } : run,
      ),
    }),
  )
}

/** The steps a tunnel admits pictures at (the table in the Linux thunderbolt driver, Mb/s). */
const STEPS = [25920, 17280, 12960, 8640, 6480, 5184, 4320, 2592, 2160, 1296]

describe('the uplink of a dock', () => {
  it('holds whole steps of the published table, never more than nine tenths of the link, and leaves what is not sent', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(mode(1920, 1080), mode(2560, 1440), mode(3840, 2160), mode(5120, 2880)), {
          minLength: 1,
          maxLength: 4,
        }),
        (modes) => {
          const view = dockView(gallery(modes), 'gallery-dock')
          if (!view) throw new Error('the dock has an uplink')
          const pictures = view.lines.filter(({ need }) => need.kind === 'picture')
          let available = 36e9
          for (const { held, found, sent, step } of pictures) {
            expect(found.down).toBeCloseTo(available, -2)
            if (step === null) expect(held.down).toBe(0)
            else expect(STEPS).toContain(Math.round(held.down / 1e6))
            expect(atMost(sent.down, held.down)).toBe(true)
            available -= held.down
          }
          expect(available).toBeGreaterThanOrEqual(0)
          const flows = pictures.reduce((sum, { sent }) => sum + sent.down, 0)
          expect(view.carries.forStorage.down).toBeCloseTo((40e9 * 128) / 132 - flows, -3)
          expect(view.carries.idle.down).toBeCloseTo((40e9 * 128) / 132, -3)
        },
      ),
    )
  })
  it('agrees with the verdicts of the assessment, whatever the plan', () => {
    fc.assert(
      fc.property(many, (changes) => {
        const site = assessAnew(madeUpCopy(changes).plan)
        const view = dockView(site, 'gallery-dock')
        fc.pre(view != null)
        const verdict = site.assessment.runs.find(({ id }) => id === view.uplink.id)
        for (const { need, grade } of view.lines)
          expect(grade).toBe(verdict?.flows.find(({ needId }) => needId === need.id)?.grade)
      }),
      { numRuns: cases(60) },
    )
  })
  it('says at once what one more display would do', () => {
    const site = gallery([mode(3840, 2160)])
    const small = dockView(site, 'gallery-dock', mode(1920, 1080))?.lines.find(({ need }) => need.id === 'one-more')
    // 36 Gb/s less the 25.92 the first holds
    expect(small).toMatchObject({ grade: 'clear', found: { down: expect.closeTo(10.08e9, -3) } })
    const large = dockView(site, 'gallery-dock', mode(3840, 2160))?.lines.find(({ need }) => need.id === 'one-more')
    expect(large).toMatchObject({ grade: 'blocked' })
    expect(dockView(site, 'gallery-dock')?.lines.some(({ need }) => need.id === 'one-more')).toBe(false)
  })
  it('tells the second-display trap, and the order that solves it where there is one', () => {
    // 12.54 and 5.63 are far below 36, yet the first holds 25.92 of them
    const trapped = gallery([mode(3840, 2160), mode(3840, 2160)])
    expect(secondDisplayTrap(trapped, 'gallery-dock')).toMatchObject({
      unused: expect.closeTo(25.92e9 - 12.54e9, -8),
      order: null,
    })
    expect(secondDisplayTrap(gallery([mode(2560, 1440)]), 'gallery-dock')).toBeNull()
    const streams = gallery([mode(3840, 2160), mode(3840, 2160)], (plan) => ({
      ...plan,
      policy: { ...plan.policy, reservation: 'stream' },
    }))
    expect(secondDisplayTrap(streams, 'gallery-dock')).toBeNull()
  })
  it('adds up what the leads delay (26 ns over 5 m, USB 2.0 7.1.16), and what it gives its host', () => {
    // 2 m to the dock, and 2 m to the farther screen
    const view = dockView(gallery([mode(1920, 1080)]), 'gallery-dock')
    expect(view?.leadDelay).toBeCloseTo(4 * 5.2, 6)
    expect(view?.supply).toEqual({ toHost: 96, pool: undefined })
  })
  it('has nothing to tell of a dock that nothing leads to', () => {
    const bare = assessAnew({ ...demo, runs: [], needs: [], observations: [], sessions: [], soaks: [] })
    expect(dockView(bare, 'gallery-dock')).toBeNull()
    expect(secondDisplayTrap(bare, 'gallery-dock')).toBeNull()
  })
})
