import { Readable } from 'node:stream'
import { siteArchive } from '../../../server/files/write-archive'
import { load, loadSite } from '../../stored.server'
import type { Route } from './+types/archive'

/** A site as an archive to download: its plan file, and its drawings and photos beside it. */
export async function loader({ params }: Route.LoaderArgs) {
  const { copy } = await loadSite(params.site)
  const zip = await load((knex) => siteArchive(knex, params.site, copy.plan))
  return new Response(Readable.toWeb(zip) as ReadableStream, {
    headers: {
      'Content-Type': 'application/zip',
      'Content-Disposition': `attachment; filename="${params.site.replace(/[^a-z0-9._-]/gi, '_')}.zip"`,
    },
  })
}
