import { afterAll, beforeAll, expect, it } from 'vitest'
import { letActorsAct } from '../support/actors'
import { type HallwayProcess, startHallway } from '../support/hallway-process'

// Too long for every day: `npm run endure` (ROUNDS=60 for the whole of it).

const ROUNDS = Number(process.env.ROUNDS ?? 12)
let hallway: HallwayProcess
beforeAll(async () => {
  hallway = await startHallway(4395)
})
afterAll(() => hallway.stop())

it(
  `four people who act for ${ROUNDS} rounds of all pages break nothing`,
  async () => {
    const seed = Number(process.env.SEED ?? Date.now() % 1_000_000)
    const { sent, saved, wrong } = await letActorsAct(hallway, { actors: 4, rounds: ROUNDS, seed })
    console.log(`${sent} forms sent, ${saved} saved, seed ${seed}`)
    expect(wrong, `SEED=${seed}`).toEqual([])
  },
  ROUNDS * 120_000,
)
