import type { Knex } from 'knex'

/** What a site takes up, in bytes: its plan with what was seen, and its files; and how many changes its log holds. */
export type SiteSize = { id: string; name: string; plan: number; files: number; changes: number }

/** Each site, and all logs together, as the database reckons them. */
export async function sizes(knex: Knex): Promise<{ sites: SiteSize[]; log: number }> {
  const rows = await knex('sites')
    .leftJoin(
      knex('files').groupBy('site_id').select('site_id').sum({ size: 'size' }).as('kept'),
      'kept.site_id',
      'sites.id',
    )
    .orderBy('sites.name')
    .select('sites.id', 'sites.name', 'sites.bytes', 'sites.grown', 'sites.place', 'kept.size')
  const [tables] = await knex.raw(
    "SELECT COALESCE(SUM(data_length + index_length), 0) AS bytes FROM information_schema.tables WHERE table_schema = DATABASE() AND table_name IN ('changes', 'edits')",
  )
  return {
    sites: rows.map(({ id, name, bytes, grown, place, size }) => ({
      id,
      name,
      plan: Number(bytes) + Number(grown),
      files: Number(size ?? 0),
      changes: place,
    })),
    log: Number(tables[0]?.bytes ?? 0),
  }
}
