import type { Knex } from 'knex'
import type { Soaking } from '../../core/bench/progress'
import type { Evidence } from '../../core/plan/cable'
import { readPlan as checkPlan } from '../../core/plan/read'
import type { Session } from '../../core/plan/session'
import { appendEvidence, type Saved, TOO_MUCH } from './cables'
import { holdSite, lockSite, placesIn, type Refusal, refused, setRevision } from './lock'
import { sessionRow } from './rows'

/** Begins a sort-out session. */
export async function createSession(knex: Knex, siteId: string, session: Session): Promise<Saved | Refusal> {
  return knex.transaction(async (trx) => {
    const site = await lockSite(trx, siteId)
    if (!site) return { outcome: 'no-site' }
    const checked = checkPlan({ ...site.plan, sessions: [...site.plan.sessions, session] })
    if (!checked.ok) return { outcome: 'refused', faults: checked.faults }
    const place = await placesIn(trx, 'sessions', siteId)
    await trx('sessions').insert(sessionRow(siteId, session, place(session.id)))
    await setRevision(trx, siteId, site.revision + 1)
    return { outcome: 'saved', revision: site.revision + 1 }
  })
}

/** Ends a session for good. What was read stays on the cables. */
export async function removeSession(knex: Knex, siteId: string, sessionId: string): Promise<void> {
  await knex.transaction(async (trx) => {
    const held = await holdSite(trx, siteId)
    await trx('sessions').where({ site_id: siteId, id: sessionId }).delete()
    if (held !== null) await setRevision(trx, siteId, held + 1)
  })
}

/** The soaks that run in a session, the longest first. */
export async function runningSoaks(knex: Knex, siteId: string, sessionId: string): Promise<Soaking[]> {
  const rows = await knex('soaks')
    .where({ site_id: siteId, session_id: sessionId })
    .orderBy('started_at')
    .select('cable_id', 'test_id', knex.raw('TIMESTAMPDIFF(MICROSECOND, started_at, NOW(3)) / 1000000 AS seconds'))
  return rows.map((row) => ({ cable: row.cable_id, test: row.test_id, seconds: Math.max(0, Number(row.seconds)) }))
}

/** Notes that a cable soaks from now on; started anew where it soaked already. */
export async function startSoak(
  knex: Knex,
  siteId: string,
  sessionId: string,
  cableId: string,
  testId: string,
): Promise<void> {
  await knex('soaks')
    .insert({ site_id: siteId, session_id: sessionId, cable_id: cableId, test_id: testId, started_at: knex.fn.now(3) })
    .onConflict(['site_id', 'session_id', 'cable_id'])
    .merge(['test_id', 'started_at'])
}

/** Calls a soak off without a reading. */
export async function stopSoak(knex: Knex, siteId: string, sessionId: string, cableId: string): Promise<void> {
  await knex('soaks').where({ site_id: siteId, session_id: sessionId, cable_id: cableId }).delete()
}

/**
 * Saves readings of one cable in a session at once, as evidence on the cable. Readings are only ever added, so two technicians at one
 * session lose nothing: of two readings of one test both stay, and the later counts.
 */
export async function addReadings(
  knex: Knex,
  siteId: string,
  sessionId: string,
  cableId: string,
  readings: readonly Evidence[],
): Promise<Saved | Refusal> {
  return knex.transaction(async (trx) => {
    const held = await holdSite(trx, siteId)
    if (held === null) return { outcome: 'no-site' }
    const row = await trx('sessions').where({ site_id: siteId, id: sessionId }).first('spec')
    const session: Session | undefined = row?.spec
    if (!session) return refused('session', 'the session is no longer there')
    if (!session.cables.includes(cableId)) return refused('cable', 'the cable is not in this session')
    if (!(await appendEvidence(trx, siteId, cableId, readings))) return refused('evidence', TOO_MUCH)
    const tests = readings.flatMap((reading) => ('test' in reading && reading.test ? [reading.test] : []))
    await trx('soaks')
      .where({ site_id: siteId, session_id: sessionId, cable_id: cableId })
      .whereIn('test_id', tests)
      .delete()
    await setRevision(trx, siteId, held + 1)
    return { outcome: 'saved', revision: held + 1 }
  })
}
