import { Readable } from 'node:stream'
import { data } from 'react-router'
import { database } from '../../../server/database/connection'
import { seriesOf } from '../../../server/series/series'
import { seriesCsv } from '../../../server/series/series-csv'
import { load, loadSite } from '../../stored.server'
import type { Route } from './+types/readings-file'

/** All readings of an instrument as CSV, a chunk at a time, so that those of ten days take no more room than those of an hour. */
export async function loader({ params }: Route.LoaderArgs) {
  await loadSite(params.site)
  const id = params.series.replace(/\.csv$/, '')
  const series = await load((knex) => seriesOf(knex, params.site, id))
  if (!series || id === params.series) throw data(null, { status: 404 })
  return new Response(Readable.toWeb(Readable.from(seriesCsv(database(), params.site, id))) as ReadableStream, {
    headers: {
      'Content-Type': 'text/csv; charset=utf-8',
      'Content-Disposition': `attachment; filename="${id}.csv"`,
    },
  })
}
