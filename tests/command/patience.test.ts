import { setTimeout as wait } from 'node:timers/promises'
import { afterEach, describe, expect, it } from 'vitest'
import { wrongWithin } from '../support/actors'
import { newSave, placeOf, save, throughStall, wrongIn } from '../support/stalls'
import { twoWebProcesses } from '../support/two-web-processes'

// Two web processes over one database, one of them behind a line that can stand still.

const PORT = 4385
const now = twoWebProcesses(PORT)
afterEach(() => now.line.goOn())

const saved = new Set<string>()
/** All that was acknowledged is there, once, and the log has no gap. */
const nothingLost = async () => expect(await wrongWithin(now.hallway.databaseUrl(), saved)).toEqual([])

describe('while the database says nothing', () => {
  it.each([
    ['right after it was asked, on connections that were idle for longer than it is waited for', 7000, 40],
    ['in the middle of pages and saves', 0, 110],
    ['before anything is asked', 0, 0],
  ])('%s: each page and each save is answered before it goes on', async (_when, quietMs, afterMs) => {
    // connections there are, as after a while of work
    await Promise.all(Array.from({ length: 6 }, () => placeOf(now.web.address)))
    await wait(quietMs)
    const answers = await throughStall(now.web.address, now.line, { pages: 5, saves: 4, afterMs, number: saved.size })
    expect(wrongIn(answers)).toEqual([])
    // as a browser does that keeps what was typed: sent again, each counts once
    const base = await placeOf(now.web.address)
    for (const { sent, status } of answers) {
      if (!sent) continue
      if (status === 302) saved.add(sent.change)
      const again = await save(now.web.address, sent, base)
      expect([302, 409], again.text.slice(0, 300)).toContain(again.status)
      if (again.status === 302) saved.add(sent.change)
    }
    await nothingLost()
  })
})

describe('while somebody else’s save does not end', () => {
  it('whoever saves on that site is told so, one as soon as the other, and pages and other sites go on', async () => {
    const base = await placeOf(now.web.address)
    const trx = await now.knex.transaction()
    await trx('sites').where({ id: 'saltmarsh' }).forUpdate().first('id')
    let held = true
    try {
      const waiting = Array.from({ length: 4 }, async (_, at) => {
        const answer = await save(now.web.address, newSave(20 + at), base)
        return { ...answer, held }
      })
      const page = await fetch(`${now.web.address}/sites/saltmarsh/history`)
      expect([page.status, held]).toEqual([200, true])
      const other = await fetch(`${now.web.address}/?index`, {
        method: 'POST',
        body: new URLSearchParams({ name: `Beside ${Date.now()}` }),
        redirect: 'manual',
      })
      expect([other.status, held]).toEqual([302, true])
      for (const answer of await Promise.all(waiting)) {
        expect(answer).toMatchObject({ status: 503, held: true })
        expect(answer.text.match(/does not end|does not answer|not certain/)?.[0]).toBe('does not end')
      }
    } finally {
      held = false
      await trx.rollback()
    }
    const sent = newSave(30)
    expect((await save(now.web.address, sent, base)).status).toBe(302)
    saved.add(sent.change)
    await nothingLost()
  })
})

describe('while one of two web processes hangs', () => {
  it('the other goes on saving, whatever the one was in the middle of, and nothing counts twice once it goes on too', async () => {
    const base = await placeOf(now.web.address)
    const sent = Array.from({ length: 6 }, (_, at) => newSave(40 + at))
    const atOne = sent.map((each) => save(now.web.address, each, base).then(({ status }) => status))
    await wait(60)
    now.web.child.kill('SIGSTOP')
    let hangs = true
    try {
      for (let at = 0; at < 3; at += 1) {
        const own = newSave(46 + at)
        const answer = await save(now.hallway.address, own, base)
        expect([answer.status, hangs], answer.text.slice(0, 300)).toEqual([302, true])
        saved.add(own.change)
      }
    } finally {
      hangs = false
      now.web.child.kill('SIGCONT')
    }
    for (const [at, status] of (await Promise.all(atOne)).entries()) {
      expect([302, 503]).toContain(status)
      const each = sent[at]
      if (!each) continue
      const again = await save(now.hallway.address, each, base)
      expect([302, 409]).toContain(again.status)
      if (status === 302 || again.status === 302) saved.add(each.change)
    }
    await nothingLost()
  })
})
