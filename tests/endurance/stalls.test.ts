import { setTimeout as wait } from 'node:timers/promises'
import { expect, it } from 'vitest'
import { wrongWithin } from '../support/actors'
import { type Answered, newSave, placeOf, save, throughStall, wrongIn } from '../support/stalls'
import { twoWebProcesses } from '../support/two-web-processes'

// Too long for every day: `npm run endure` (ROUNDS=30 for the whole of it).

const ROUNDS = Number(process.env.ROUNDS ?? 8)
const PORT = 4383
let seed = Number(process.env.SEED ?? Date.now() % 1_000_000)
const below = (count: number): number => {
  seed = (seed * 1_103_515_245 + 12_345) % 2_147_483_648
  return Math.floor((seed / 2_147_483_648) * count)
}

const now = twoWebProcesses(PORT)

const saved = new Set<string>()
let number = 0
/** The longest that anybody waited, by what happened. */
const longest: Record<string, { times: number; page: number; save: number }> = {}
const note = (what: string, answers: readonly Pick<Answered, 'what' | 'seconds'>[]): void => {
  const { times = 0, page = 0, save: saves = 0 } = longest[what] ?? {}
  const most = (sort: Answered['what'], before: number) =>
    Math.max(
      before,
      ...answers.filter(({ what: each }) => each === sort).map(({ seconds }) => Number(seconds.toFixed(1))),
    )
  longest[what] = { times: times + 1, page: most('page', page), save: most('save', saves) }
}
const timed = async (work: () => Promise<{ status: number; text: string }>) => {
  const began = performance.now()
  const { status, text } = await work()
  return { what: 'save' as const, status, text, seconds: (performance.now() - began) / 1000, inTime: true }
}

/** The line stands still at some moment after some quiet, while pages and saves are under way. */
async function stall(): Promise<string[]> {
  await placeOf(now.web.address)
  await wait(below(2) * below(9000))
  const answers = await throughStall(now.web.address, now.line, {
    pages: 1 + below(8),
    saves: below(6),
    afterMs: below(400),
    number,
  })
  number += 8
  note('a database that says nothing', answers)
  const base = await placeOf(now.web.address)
  for (const { sent, status } of answers) {
    if (!sent) continue
    if (status === 302) saved.add(sent.change)
    if ((await save(now.web.address, sent, base)).status === 302) saved.add(sent.change)
  }
  return wrongIn(answers)
}

/** Somebody holds the row of the site for a while. */
async function hold(): Promise<string[]> {
  const base = await placeOf(now.web.address)
  const trx = await now.knex.transaction()
  await trx('sites').where({ id: 'saltmarsh' }).forUpdate().first('id')
  const answers = Array.from({ length: 1 + below(6) }, () => {
    number += 1
    const sent = newSave(number)
    return timed(() => save(now.web.address, sent, base)).then((answer) => ({ ...answer, sent }))
  })
  await wait(below(9000))
  await trx.rollback()
  const all = await Promise.all(answers)
  for (const { status, sent } of all) if (status === 302) saved.add(sent.change)
  note('a row that is held', all)
  return wrongIn(all)
}

/** One of two web processes hangs in the middle of saves; the other goes on. */
async function hang(): Promise<string[]> {
  const base = await placeOf(now.web.address)
  const atOne = Array.from({ length: 4 }, () => {
    number += 1
    const sent = newSave(number)
    return save(now.web.address, sent, base).then(({ status }) => {
      if (status === 302) saved.add(sent.change)
    })
  })
  await wait(below(200))
  now.web.child.kill('SIGSTOP')
  number += 1
  const sent = newSave(number)
  const other = await timed(() => save(now.hallway.address, sent, base))
  await wait(below(3000))
  now.web.child.kill('SIGCONT')
  await Promise.all(atOne)
  note('the other web process hangs', [other])
  if (other.status !== 302) return [`the other web process answered ${other.status}`]
  saved.add(sent.change)
  return []
}

it(
  `${ROUNDS} rounds of a database that says nothing, rows that are held and a web process that hangs: everybody is answered, and nothing is lost`,
  async () => {
    const began = seed
    const wrong: string[] = []
    for (let round = 0; round < ROUNDS; round += 1)
      for (const happens of [stall, hold, hang]) wrong.push(...(await happens()))
    console.table(longest)
    console.log(`${saved.size} saves acknowledged, SEED=${began}`)
    expect(wrong, `SEED=${began}`).toEqual([])
    expect(await wrongWithin(now.hallway.databaseUrl(), saved)).toEqual([])
  },
  (ROUNDS + 1) * 90_000,
)
