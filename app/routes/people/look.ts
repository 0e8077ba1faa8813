import { data, redirect } from 'react-router'
import { keyOf } from '../../../server/people/site-keys'
import { carry } from '../../carried.server'
import { load } from '../../stored.server'
import type { Route } from './+types/look'

/** A link that a client was given: from then on this browser may look at the one site. */
export async function loader({ params }: Route.LoaderArgs) {
  const key = await load((knex) => keyOf(knex, params.link, 'link'))
  if (!key)
    throw data('This link has ended or was taken back. Ask whoever gave it to you for a new one.', { status: 410 })
  return redirect(`/sites/${key.site}`, { headers: { 'Set-Cookie': await carry('link', params.link) } })
}
