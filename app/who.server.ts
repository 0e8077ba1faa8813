import { createHash } from 'node:crypto'
import { createCookie } from 'react-router'
import { nameField } from '../core/vocabulary/fields'
import { database } from '../server/database/connection'
import { nameOf } from '../server/people/asker'
import { signingSecret } from '../server/people/signing-secret'
import type { Hand } from '../server/sites/change-site'
import { publicUrl } from '../server/web/reach'
import { asker, rightsOfAsker } from './asker.server'

/** Stands beside what was changed by somebody who has not said who they are. */
export const NOBODY = 'somebody'

const YEAR = 31_536_000

const cookie = async () =>
  createCookie('hallway-who', {
    httpOnly: true,
    sameSite: 'lax',
    path: '/',
    maxAge: YEAR,
    secure: publicUrl()?.protocol === 'https:',
    secrets: [await signingSecret(database())],
  })

/** The name that a browser has given; null where it has given none, or one that nobody here has signed. */
export async function readWho(request: Request): Promise<string | null> {
  const header = request.headers.get('Cookie')
  if (!header?.includes('hallway-who=')) return null
  const name = nameField.safeParse(await (await cookie()).parse(header))
  return name.success ? name.data : null
}

export const whoCookie = async (name: string): Promise<string> => (await cookie()).serialize(name)

const CHANGE_ID = /^[a-z0-9-]{8,64}$/i

/** Who sends a form, with the id that its page gave the change, and the place whose state somebody chose to write over. */
export async function handOf(request: Request, form: FormData): Promise<Hand> {
  const id = form.get('change')
  const over = Number(form.get('over') ?? Number.NaN)
  return {
    by: nameOf(asker()) ?? (await readWho(request)) ?? NOBODY,
    rights: rightsOfAsker(),
    leads: asker().person?.admin === false ? asker().person?.id : undefined,
    ...(typeof id === 'string' && CHANGE_ID.test(id) ? { id } : {}),
    digest: await digestOf(request, form),
    over: Number.isInteger(over) && over > 0 ? over : null,
  }
}

/**
 * What was sent, in short: the route, what it asks for and its fields, in the order they were sent, a file by its bytes. The id of the change is what it is
 * bound to.
 */
export async function digestOf({ url }: Pick<Request, 'url'>, form: FormData): Promise<string> {
  const { pathname, search } = new URL(url)
  const hash = createHash('sha256').update(JSON.stringify([pathname, search]))
  for (const [name, value] of form) {
    if (name === 'change') continue
    if (typeof value === 'string') {
      hash.update(JSON.stringify([name, value]))
      continue
    }
    hash.update(JSON.stringify([name, value.name, value.size]))
    hash.update(new Uint8Array(await value.arrayBuffer()))
  }
  return hash.digest('hex')
}
