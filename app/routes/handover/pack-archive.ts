import { Readable } from 'node:stream'
import { data } from 'react-router'
import { database } from '../../../server/database/connection'
import { packArchive } from '../../../server/handover/pack-archive'
import { load } from '../../stored.server'
import type { Route } from './+types/pack-archive'
import { handoverIn } from './handed.server'

/** All that was handed over, in one file. */
export async function loader({ params }: Route.LoaderArgs) {
  const { id, name } = await handoverIn(params.site, params.handover)
  const zip = await load(() => packArchive(database(), { siteId: params.site, handover: id }))
  if (!zip) throw data('Nothing was made for this handover yet. Its page makes it.', { status: 404 })
  return new Response(Readable.toWeb(zip) as ReadableStream, {
    headers: {
      'Content-Type': 'application/zip',
      'Content-Disposition': `attachment; filename="${name.replace(/[^a-z0-9._-]/gi, '_').slice(0, 80)}.zip"`,
    },
  })
}
