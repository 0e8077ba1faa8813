import { data } from 'react-router'
import { fileOf } from '../../../server/files/files'
import { asker } from '../../asker.server'
import { load } from '../../stored.server'
import type { Route } from './+types/file'

const YEAR_SECONDS = 365 * 24 * 3600

/** A file that is kept with a site: a picture and nothing else, whatever somebody makes of its address. */
export async function loader({ params }: Route.LoaderArgs) {
  if (!/^[0-9a-f]{64}$/.test(params.file)) throw data(null, { status: 404 })
  const file = await load((knex) => fileOf(knex, params.site, params.file))
  if (!file) throw data(null, { status: 404 })
  return new Response(new Uint8Array(file.bytes), {
    headers: {
      'Content-Type': file.type,
      'Content-Length': String(file.bytes.length),
      'Content-Disposition': 'inline',
      'Content-Security-Policy': "default-src 'none'; style-src 'unsafe-inline'; img-src data:; sandbox",
      // its name is what it holds
      'Cache-Control': asker().open ? `private, max-age=${YEAR_SECONDS}, immutable` : 'no-store',
    },
  })
}
