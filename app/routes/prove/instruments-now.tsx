import { useEffect, useState } from 'react'
import { Link as RouterLink } from 'react-router'
import { decimal } from '../../../core/quantity/parsed'
import { COLUMNS, columnNames, columnUnits } from '../../../core/series/chunk'
import type { Run } from '../../../core/vocabulary/run'
import type { InstrumentNews } from '../../../server/series/news'
import text from '../../theme/text.module.css'
import { Moment } from '../../ui/moment'
import { useStream } from '../../ui/page-stream'
import { RuledTable } from '../../ui/ruled-table'
import { useSite } from '../../ui/site-context'
import { useSeconds } from '../../ui/use-seconds'
import look from './prove.module.css'

/** An instrument that said nothing for so long has stalled, or is gone. */
const QUIET_AFTER_SECONDS = 15

/** What instruments on a run read just now. Those that had told something when the page was made stand there at once. */
export function InstrumentsNow({ run, known }: { run: Run; known: readonly InstrumentNews[] }) {
  const { plan } = useSite()
  const [news, setNews] = useState(known)
  const stream = useStream('instruments', (data) => setNews(JSON.parse(data)))
  useEffect(() => stream?.watch('instruments', run.id), [stream, run.id])
  if (news.length === 0) return null
  return (
    <section className={look.section} aria-labelledby="instruments">
      <h2 id="instruments">Instruments</h2>
      <RuledTable label="Instruments" columns={['Instrument', 'Now', 'Readings', 'State']}>
        {news.map((each) => (
          <tr key={each.series}>
            <td>
              <RouterLink
                to={`/sites/${plan.site.id}/prove/${encodeURIComponent(run.id)}/readings/${each.series}`}
                className={text.link}
              >
                {each.instrument}
              </RouterLink>
              {each.simulated && ' (simulated)'}
            </td>
            <td className={text.mono}>
              {COLUMNS.flatMap((column) => {
                const value = each.latest?.[column]
                return value === undefined ? [] : `${columnNames[column]} ${decimal(value, 2)} ${columnUnits[column]}`
              }).join(', ') || 'nothing yet'}
            </td>
            <td className={text.mono}>
              {each.samples}
              {each.rubbish > 0 && `, ${each.rubbish} not readable`}
            </td>
            <td>{each.ended ? 'ended' : <Heard key={each.heard} quiet={each.quiet} at={each.heard} />}</td>
          </tr>
        ))}
      </RuledTable>
    </section>
  )
}

function Heard({ quiet, at }: { quiet: number; at: string }) {
  if (useSeconds(quiet) <= QUIET_AFTER_SECONDS) return 'reads'
  return (
    <>
      says nothing since <Moment at={at} />
    </>
  )
}
