import { text } from 'node:stream/consumers'
import type { Knex } from 'knex'
import { RIGHTS } from '../../core/people/rights'
import { Failure } from '../failure'
import { forget } from '../people/forget'
import { addPerson, INVITATION_DAYS, invite, listPeople, personCalled, retire, setPassword } from '../people/people'
import type { Person } from '../people/person'
import type { MadeKey } from '../people/site-keys'
import { setRight } from '../people/site-rights'
import { siteExists } from '../sites/sites'
import { publicUrl } from '../web/reach'
import { readRunning } from './running'
import { withDatabase } from './with-database'

type Say = (line: string) => void
/** A password from standard input, for scripts: it stands in no list of processes and in no history of a shell. */
type Told = { admin?: boolean; passwordStdin?: boolean }

/** Makes an account, the first one that of an admin, and prints an invitation to it. */
export const addCommand = (name: string, { admin, passwordStdin }: Told, say: Say): Promise<void> =>
  withDatabase(async (knex) => {
    const person = await addPerson(knex, { name, ...(admin ? { admin } : {}) })
    say(`${person.name} has an account${person.admin ? ' and runs this Hallway' : ''}.`)
    await letIn(knex, person, passwordStdin === true, say)
  })

/** A new way in for somebody whose password is gone. They are signed out wherever they are once it is used. */
export const resetCommand = (name: string, { passwordStdin }: Told, say: Say): Promise<void> =>
  withDatabase(async (knex) => letIn(knex, await known(knex, name), passwordStdin === true, say))

async function letIn(knex: Knex, person: Person, passwordStdin: boolean, say: Say): Promise<void> {
  if (passwordStdin) {
    await setPassword(knex, person, (await text(process.stdin)).replace(/\r?\n$/, ''))
    say('The password is set.')
    return
  }
  const home = publicUrl()?.origin ?? readRunning(undefined)?.address ?? 'http://127.0.0.1:4310'
  say(
    `They choose a password here, once, within ${INVITATION_DAYS} days: ${home}/welcome/${await invite(knex, person)}`,
  )
}

/** Ends an account, and the links and tokens that it made unless they are handed to somebody. */
export const retireCommand = (name: string, { keysTo }: { keysTo?: string }, say: Say): Promise<void> =>
  withDatabase(async (knex) => {
    const person = await known(knex, name)
    const to = keysTo === undefined ? null : await known(knex, keysTo)
    const keys = await retire(knex, person, to)
    say(`${person.name} is signed out everywhere and may do nothing more. The name stays in the history.`)
    sayKeys(keys, to, say)
  })

function sayKeys(keys: readonly MadeKey[], to: Person | null, say: Say): void {
  for (const { name, sort, site } of keys)
    say(`The ${sort} “${name}” to ${site} ${to ? `is ${to.name}'s from now on` : 'has ended'}.`)
}

/** Takes a name out of Hallway, on request of whose it is. */
export const forgetCommand = (name: string, { keysTo }: { keysTo?: string }, say: Say): Promise<void> =>
  withDatabase(async (knex) => {
    const to = keysTo === undefined ? null : await known(knex, keysTo)
    const person = (await listPeople(knex)).find((each) => each.name.toLowerCase() === name.toLowerCase())
    if (!person) throw new Failure(`${name} never had an account here.`)
    const { now, keys, still } = await forget(knex, { ...person, retired: person.retired !== null }, to)
    say(`${person.name} is called “${now}” in the history from now on.`)
    sayKeys(keys, to, say)
    for (const { what, count } of still) say(`The name still stands in ${count} ${what}.`)
    say('Backups that were made before keep it too.')
  })

/** Everybody who has, or had, an account. */
export const listCommand = (say: Say): Promise<void> =>
  withDatabase(async (knex) => {
    const people = await listPeople(knex)
    if (people.length === 0) say('Nobody has an account: whoever reaches this Hallway may do everything.')
    for (const { name, admin, retired, ready } of people) {
      const what = retired ? 'retired' : [admin ? 'runs this Hallway' : 'rights site by site', ready ? '' : 'invited']
      say(`${name}: ${[what].flat().filter(Boolean).join(', ')}`)
    }
  })

/** Gives somebody a right on a site, or takes it away. */
export const rightCommand = (name: string, site: string, held: string, say: Say): Promise<void> =>
  withDatabase(async (knex) => {
    const right = RIGHTS.find((each) => each === held) ?? null
    if (right === null && held !== 'none') throw new Failure(`A right is ${RIGHTS.join(', ')} or none, not "${held}".`)
    const person = await known(knex, name)
    if (!(await siteExists(knex, site))) throw new Failure(`There is no site ${site}.`)
    await setRight(knex, site, person.id, right && { held: right, hides: [] })
    say(right === null ? `${person.name} may not see ${site}.` : `${person.name} on ${site}: ${right}.`)
  })

async function known(knex: Knex, name: string): Promise<Person> {
  const person = await personCalled(knex, name)
  if (!person) throw new Failure(`${name} has no account here, or not any more.`)
  return person
}
