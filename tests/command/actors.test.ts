import { afterAll, beforeAll, expect, it } from 'vitest'
import { letActorsAct } from '../support/actors'
import { type HallwayProcess, startHallway } from '../support/hallway-process'

let hallway: HallwayProcess
beforeAll(async () => {
  hallway = await startHallway(4394)
})
afterAll(() => hallway.stop())

it('three people who press whatever there is to press, and type what no page would send, break nothing', async () => {
  // the same each time here; `npm run endure` goes where nobody has been
  const seed = Number(process.env.SEED ?? 616_011)
  const { sent, saved, wrong } = await letActorsAct(hallway, { actors: 3, rounds: 1, seed })
  expect(wrong, `SEED=${seed}`).toEqual([])
  expect(sent).toBeGreaterThan(100)
  expect(saved).toBeGreaterThan(5)
}, 240_000)
