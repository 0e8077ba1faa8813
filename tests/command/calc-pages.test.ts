import fc from 'fast-check'
import { expect, it } from 'vitest'
import { assess } from '../../core/checks/assess'
import { parsePictureMode } from '../../core/picture/mode-text'
import { mstCalc } from '../../server/command/calc-pictures'
import { must } from '../../server/command/calc-words'
import { cases, inProportion } from '../support/laws'
import { onePlan } from '../support/one-run'

it('several displays on one link get through on the page exactly where `calc mst` lets them', () => {
  const sizes = fc.constantFrom('1920x1080@60', '2560x1440@60', '2560x1440@144', '3840x2160@60', '3840x2160@144')
  let refused = 0
  fc.assert(
    fc.property(
      fc.array(sizes, { minLength: 2, maxLength: 6 }),
      fc.constantFrom('hbr', 'hbr2', 'hbr3'),
      (texts, link) => {
        const { json } = mstCalc({ positionals: texts, values: { link: `dp:${link}x4` } })
        const { pictures } = json as { pictures: { fits: boolean }[] }
        const port = (direction: 'in' | 'out') => ({
          connector: 'displayport' as const,
          displayport: { direction, link, lanes: 4 } as never,
        })
        const plan = onePlan({
          from: { ...port('out'), kind: 'computer' },
          to: { ...port('in'), kind: 'hub' },
          leads: [{ grade: 'dp-hbr3', length: 1, ends: ['displayport', 'displayport'] }],
          alsoNeed: texts.map((text) => ({ kind: 'picture' as const, mode: must(parsePictureMode(text)) })),
        })
        const [run] = assess(plan).runs
        expect(run?.flows.map(({ passes }) => passes)).toEqual(pictures.map(({ fits }) => fits))
        refused += pictures.filter(({ fits }, at) => !fits && pictures.slice(at).some((later) => later.fits)).length
      },
    ),
    { numRuns: cases(150) },
  )
  // a small picture behind a large one that was refused
  expect(refused).toBeGreaterThan(inProportion(5))
})
