import { data, redirect } from 'react-router'
import { z } from 'zod'
import { backFromCompany, companyOf, type Errand } from '../../../server/people/company'
import { personOfLogin, takeUpByLogin } from '../../../server/people/people'
import { beginSession } from '../../../server/people/sessions'
import { within } from '../../address'
import { carriedBy, carry, carrySignedIn } from '../../carried.server'
import { load } from '../../stored.server'
import type { Route } from './+types/from-company'
import { backAddress } from './back-address.server'
import { deviceOf } from './device-of'

const errandSchema = z.object({
  state: z.string(),
  nonce: z.string(),
  verifier: z.string(),
  to: z.string(),
  invitation: z.string().nullable(),
}) satisfies z.ZodType<Errand>

const NOBODY_HERE =
  'The company knows you, but you have no account here. Ask whoever runs this Hallway for an invitation, and open it first.'
const FORGOTTEN = 'It took too long, or was begun in another browser. Begin once more.'

/** Whoever comes back from the company's sign-in: let in where they are known, or where they came with an invitation. */
export async function loader({ request }: Route.LoaderArgs) {
  const company = companyOf()
  if (!company) throw data(null, { status: 404 })
  const errand = errandOf((await carriedBy(request)).errand)
  if (!errand) throw data(FORGOTTEN, { status: 400 })
  const address = new URL(backAddress(request))
  address.search = new URL(request.url).search
  const login = await load(() => backFromCompany(company, address, errand))
  const { invitation } = errand
  const person = await load((knex) =>
    invitation === null ? personOfLogin(knex, login) : takeUpByLogin(knex, invitation, login),
  )
  if (person === null || typeof person === 'string') throw data(person ?? NOBODY_HERE, { status: 403 })
  const session = await load((knex) => beginSession(knex, person, deviceOf(request)))
  return redirect(within(errand.to), {
    headers: [...(await carrySignedIn(session, person)), ['Set-Cookie', await carry('errand', null)]],
  })
}

function errandOf(text: string | null): Errand | null {
  try {
    return errandSchema.parse(JSON.parse(text ?? ''))
  } catch {
    return null
  }
}
