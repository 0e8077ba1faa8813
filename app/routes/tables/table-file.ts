import { data } from 'react-router'
import { SURVEY_TABLES, surveyRows } from '../../../core/survey/tables'
import { csvFile } from '../../csv/csv'
import { loadSite } from '../../stored.server'
import type { Route } from './+types/table-file'

/** One of the tables of a survey, to download. */
export async function loader({ params }: Route.LoaderArgs) {
  const table = SURVEY_TABLES.find((each) => `${each}.csv` === params.table)
  if (!table) throw data(null, { status: 404 })
  const { copy } = await loadSite(params.site)
  return csvFile(`${params.site}-${table}`, surveyRows(copy.plan, table))
}
