import { data, redirect } from 'react-router'
import { companyOf, goToCompany } from '../../../server/people/company'
import { within } from '../../address'
import { carry } from '../../carried.server'
import { load } from '../../stored.server'
import type { Route } from './+types/to-company'
import { backAddress } from './back-address.server'

/** Sends a browser to the company's sign-in, with a note of what it went there for. */
export async function loader({ request }: Route.LoaderArgs) {
  const company = companyOf()
  if (!company) throw data(null, { status: 404 })
  const { searchParams } = new URL(request.url)
  const wants = {
    to: within(searchParams.get('to')),
    invitation: searchParams.get('invitation')?.slice(0, 100) ?? null,
  }
  const { to, errand } = await load(() => goToCompany(company, backAddress(request), wants))
  return redirect(to, { headers: { 'Set-Cookie': await carry('errand', JSON.stringify(errand)) } })
}
