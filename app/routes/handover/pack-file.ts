import { data } from 'react-router'
import { documentOf, documentTag } from '../../../server/handover/documents'
import { load } from '../../stored.server'
import type { Route } from './+types/pack-file'
import { handoverIn } from './handed.server'

/** One file of a handover, as it was made. It may have come with an archive, so a browser takes it as a file and opens none of it. */
export async function loader({ params }: Route.LoaderArgs) {
  const { id } = await handoverIn(params.site, params.handover)
  const document = await load((knex) => documentOf(knex, { siteId: params.site, handover: id }, params['*']))
  if (!document) throw data('This file was not made. The page of the handover says what there is.', { status: 404 })
  const file = document.name.split('/').at(-1) ?? 'file'
  return new Response(new Uint8Array(document.bytes), {
    headers: {
      'Content-Type': document.type,
      'Content-Disposition': `attachment; filename="${file.replace(/[^a-z0-9._-]/gi, '_')}"`,
      'Content-Security-Policy': "default-src 'none'; sandbox",
      ETag: documentTag(document.bytes),
      'Cache-Control': 'private, no-cache',
    },
  })
}
