import { expect, it } from 'vitest'
import { currentCheck } from './current'
import type { GRADES } from './finding'

const figures = {
  limit: 'supply',
  amps: 5.75,
  volts: 20,
  unmarked: false,
  charging: true,
  offered: 115,
  lost: null,
} as const
const said = (have: number, need: number, grade: (typeof GRADES)[number]) =>
  currentCheck.reasons.power.say(
    { ...figures, sharers: [] },
    { label: 'the dock', grade, have, need, unit: 'm', metres: String },
  )

it('watts that are enough by a hair of rounding are said to be enough, and a tenth less is not', () => {
  for (const have of [115, 115 - 1e-12]) expect(said(have, 115, 'clear')).toContain('can arrive')
  expect(said(114.9, 115, 'tight')).toContain('charges slowly')
})
