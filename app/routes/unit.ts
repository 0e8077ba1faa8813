import { redirect } from 'react-router'
import { publicUrl } from '../../server/web/reach'
import { within } from '../address'
import { readForm } from '../read-form.server'
import { unitCookie } from '../unit-cookie'
import type { Route } from './+types/unit'

/** Switches the unit lengths are shown in and goes back to where the switch was thrown. */
export async function action({ request }: Route.ActionArgs) {
  const form = await readForm(request)
  return redirect(within(form.get('back')), {
    headers: { 'Set-Cookie': unitCookie(form.get('unit') === 'ft' ? 'ft' : 'm', publicUrl()?.protocol === 'https:') },
  })
}

export const loader = () => redirect('/')
