import { data } from 'react-router'
import { askForPasskey, signInByPasskey } from '../../../server/people/passkeys'
import { beginSession } from '../../../server/people/sessions'
import { within } from '../../address'
import { asker } from '../../asker.server'
import { carrySignedIn } from '../../carried.server'
import { readForm } from '../../read-form.server'
import { AWAY_MESSAGE, save } from '../../stored.server'
import type { Route } from './+types/passkey-door'
import { deviceOf } from './device-of'
import { doorOf } from './door.server'

const LONGEST_ANSWER = 20_000

/** Asks a browser for a passkey, and lets in whoever answers with one. */
export async function action({ request }: Route.ActionArgs) {
  const door = doorOf(request)
  if (!door || asker().open) throw data(null, { status: 404 })
  const form = await readForm(request, { longest: LONGEST_ANSWER })
  const answer = form.get('answer')
  if (typeof answer !== 'string') {
    const question = await save((knex) => askForPasskey(knex, door))
    return question ? Response.json(question) : Response.json({ problem: AWAY_MESSAGE }, { status: 503 })
  }
  const done = await save(async (knex) => {
    const signedIn = await signInByPasskey(knex, door, answer)
    if ('problem' in signedIn) return signedIn
    return { person: signedIn.person, session: await beginSession(knex, signedIn.person, deviceOf(request)) }
  })
  if (done === null) return Response.json({ problem: AWAY_MESSAGE }, { status: 503 })
  if ('problem' in done) return Response.json({ problem: done.problem }, { status: done.status })
  return Response.json(
    { to: within(form.get('to')) },
    {
      headers: await carrySignedIn(done.session, done.person),
    },
  )
}
