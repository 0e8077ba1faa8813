import { pdfSheets } from '../../../server/tags/tag-sheets'
import type { Route } from './+types/tags-pdf'
import { labelsAsked } from './tags-request.server'

/** All sheets as one PDF. */
export async function loader({ request, params }: Route.LoaderArgs) {
  const { labels, size } = await labelsAsked(request, params.site)
  const pdf = await pdfSheets(labels, size)
  return new Response(new Uint8Array(pdf), {
    headers: { 'Content-Type': 'application/pdf', 'Content-Disposition': 'inline; filename="cable-tags.pdf"' },
  })
}
