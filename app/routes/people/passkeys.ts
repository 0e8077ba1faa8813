import { data } from 'react-router'
import { askForNewPasskey, keepPasskey } from '../../../server/people/passkeys'
import { beganLately } from '../../../server/people/sessions'
import { asker } from '../../asker.server'
import { readForm } from '../../read-form.server'
import { AWAY_MESSAGE, save } from '../../stored.server'
import type { Route } from './+types/passkeys'
import { doorOf } from './door.server'

const LONGEST_ANSWER = 20_000
const SIGN_IN_AGAIN =
  'You signed in a while ago, and whoever sits at an open browser could be anybody. Sign out, sign in again, then add it.'

/** Makes a passkey for whoever is signed in: asks their browser for one, and keeps what it answers. */
export async function action({ request }: Route.ActionArgs) {
  const { person, session } = asker()
  const door = doorOf(request)
  if (!door || !person || !session) throw data(null, { status: 404 })
  const form = await readForm(request, { longest: LONGEST_ANSWER })
  const answer = form.get('answer')
  const done = await save(async (knex) => {
    if (!(await beganLately(knex, session))) return { problem: SIGN_IN_AGAIN }
    if (typeof answer !== 'string') return askForNewPasskey(knex, door, person)
    return { problem: await keepPasskey(knex, door, person, { name: String(form.get('name') ?? ''), answer }) }
  })
  if (done === null) return Response.json({ problem: AWAY_MESSAGE }, { status: 503 })
  const refused = 'problem' in done && done.problem !== null
  return Response.json(done, { status: refused ? 422 : 200 })
}
