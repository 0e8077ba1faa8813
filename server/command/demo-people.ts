import { randomInt } from 'node:crypto'
import type { Knex } from 'knex'
import type { Right } from '../../core/people/rights'
import { Failure } from '../failure'
import { addPerson, hasPeople, personCalled, setLogin, setPassword } from '../people/people'
import { setRight } from '../people/site-rights'
import { type SimulatedPerson, type SimulatedSignIn, startSimulatedSignIn } from './simulated-sign-in'

/** The invented people of the pilot school; whoever has no right of their own runs this Hallway. */
const PEOPLE = [
  { name: 'Marit', does: 'runs this Hallway', may: null },
  { name: 'Tove', does: 'leads the site', may: 'lead' },
  { name: 'Egil', does: 'lays and tests', may: 'work' },
  { name: 'Runa', does: 'looks, for the school', may: 'look' },
] as const satisfies readonly { name: string; does: string; may: Right | null }[]
const SITE = 'saltmarsh'

/** What their passwords are put together from, anew with every start: a demo has no secret that stands in its code. */
const WORDS =
  'anchor ballast beacon berth bilge bollard bosun bridge buoy cabin capstan channel chart compass cutter davit deck dock ebb fathom fender ferry galley gangway halyard harbour hatch helm hull jetty keel lantern ledger locker lock lookout mainsail mast mooring oar pier pilot pontoon quay raft rigging rudder sextant slipway sluice tide tiller wharf winch yard'.split(
    ' ',
  )
const passphrase = (): string => Array.from({ length: 4 }, () => WORDS[randomInt(WORDS.length)]).join(' ')

/** Somebody whom the company's sign-in knows and Hallway does not. */
const STRANGER: SimulatedPerson = { subject: 'stranger', name: 'Somebody new' }

/** Accounts for the demo's people, with rights on its site, and the sign-in of their school beside it. Says how each comes in. */
export async function loadDemoPeople(knex: Knex, say: (line: string) => void): Promise<SimulatedSignIn> {
  if ((await hasPeople(knex)) && !(await personCalled(knex, PEOPLE[0].name)))
    throw new Failure('People have accounts of their own here, so those of the demo stay out. Start without --people.')
  say('Four people of the demo, with passwords for this start:')
  const logins: SimulatedPerson[] = []
  for (const { name, does, may } of PEOPLE) {
    const person = (await personCalled(knex, name)) ?? (await addPerson(knex, { name, admin: may === null }))
    const password = passphrase()
    await setPassword(knex, person, password)
    logins.push({ subject: name.toLowerCase(), name })
    if (may) await setRight(knex, SITE, person.id, { held: may, hides: [] })
    say(`  ${name.padEnd(6)} ${does.padEnd(22)} ${password}`)
  }
  const signIn = await startSimulatedSignIn([...logins, STRANGER])
  for (const { subject, name } of logins) {
    const person = await personCalled(knex, name)
    if (person) await setLogin(knex, person, { issuer: signIn.company.issuer.href, subject })
  }
  return signIn
}
