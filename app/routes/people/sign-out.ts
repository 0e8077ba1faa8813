import { redirect } from 'react-router'
import { endSession } from '../../../server/people/sessions'
import { asker } from '../../asker.server'
import { carry } from '../../carried.server'
import { readForm } from '../../read-form.server'
import { load } from '../../stored.server'
import type { Route } from './+types/sign-out'

/** Ends the session of this browser, and takes away any link it carries. */
export async function action({ request }: Route.ActionArgs) {
  await readForm(request)
  const { person, session } = asker()
  if (person && session) await load((knex) => endSession(knex, person, session))
  return redirect('/sign-in', {
    headers: [
      ['Set-Cookie', await carry('session', null)],
      ['Set-Cookie', await carry('link', null)],
      // what this browser has kept of pages and copies goes as well
      ['Clear-Site-Data', '"cache"'],
    ],
  })
}

export const loader = () => redirect('/')
