import { Heading, Text } from '@chakra-ui/react'
import { useMemo } from 'react'
import { Link as RouterLink } from 'react-router'
import { gradeWords } from '../../../core/checks/wording'
import { decimal } from '../../../core/quantity/parsed'
import { needVerdicts, runVerdicts, toBuy, type VerdictLine } from '../../../core/report/verdict-list'
import text from '../../theme/text.module.css'
import { QuietButton } from '../../ui/controls'
import { GradeMark } from '../../ui/grade'
import { RuledTable } from '../../ui/ruled-table'
import { useSite } from '../../ui/site-context'
import { Length, useUnit } from '../../ui/units'
import look from './verdicts.module.css'

/** So many lines of each sort are drawn for paper; the table for spreadsheets has them all. */
const MOST_DRAWN = 500

/** All verdicts on one page for the client or the boss: what is wrong and what would help, and what has to be bought. */
export default function Verdicts() {
  const { plan, assessed, assessment } = useSite()
  const unit = useUnit()
  const runs = useMemo(() => runVerdicts(assessed, unit), [assessed, unit])
  const needs = useMemo(() => needVerdicts(assessed, unit), [assessed, unit])
  const buying = useMemo(() => toBuy(assessed), [assessed])
  const { length, currency } = plan.policy
  const count = (['clear', 'tight', 'blocked'] as const)
    .map((grade) => `${assessment.runs.filter((run) => run.grade === grade).length} ${gradeWords[grade].toLowerCase()}`)
    .join(', ')
  return (
    <>
      <div className={look.head}>
        <Heading as="h1" size="xl">
          Verdicts
        </Heading>
        <div className={look.actions}>
          <a href={`/sites/${plan.site.id}/verdicts.csv`} className={text.link}>
            Download as CSV
          </a>
          <span className={look.print}>
            <QuietButton type="button" onClick={() => window.print()}>
              Print
            </QuietButton>
          </span>
        </div>
      </div>
      <Text mb="4">
        {plan.site.name}: {assessment.runs.length} {assessment.runs.length === 1 ? 'run' : 'runs'}, {count}. Judged by
        the {length}.
      </Text>
      <Lines
        title="Runs"
        none="No run yet."
        columns={['Run', 'Verdict', 'From and to', 'Length', 'Cables', 'Why, and what to do']}
        lines={runs}
        address={(id) => `/sites/${plan.site.id}/runs/${id}`}
      />
      <Heading as="h2" size="md" mt="6" mb="2">
        To buy
      </Heading>
      {buying.length === 0 ? (
        <Text>Nothing: every planned cable is in the drawer.</Text>
      ) : (
        <RuledTable label="To buy" columns={['How many', 'Cable', 'Length', 'For', 'Price']} cards>
          {buying.map(({ kind, length: metres, runs: tags, price }) => (
            <tr key={`${kind} ${metres}`}>
              <td>{tags.length}</td>
              <td>{kind}</td>
              <td>
                <Length metres={metres} />
              </td>
              <td className={text.mono}>{tags.join(', ')}</td>
              <td>{price === null ? 'ask' : `${decimal(price, 2)} ${currency}`}</td>
            </tr>
          ))}
        </RuledTable>
      )}
      <Lines
        title="Needs"
        none="No need yet."
        columns={['Need', 'Verdict', 'From and to', 'Size', 'Over', 'Why, and what to do']}
        lines={needs}
        address={(id) => `/sites/${plan.site.id}/needs/${id}`}
      />
    </>
  )
}

function Lines({
  title,
  none,
  columns,
  lines,
  address,
}: {
  title: string
  none: string
  columns: readonly string[]
  lines: readonly VerdictLine[]
  address: (id: string) => string
}) {
  const more = lines.length - MOST_DRAWN
  return (
    <>
      <Heading as="h2" size="md" mt="6" mb="2">
        {title}
      </Heading>
      {lines.length === 0 ? (
        <Text>{none}</Text>
      ) : (
        <RuledTable label={title} columns={columns} widths={WIDTHS} cards>
          {lines.slice(0, MOST_DRAWN).map(({ id, name, grade, from, to, size, over, why, todo }) => (
            <tr key={id}>
              <td className={text.anywhere}>
                <RouterLink to={address(id)} className={text.link}>
                  {name}
                </RouterLink>
              </td>
              <td>
                <GradeMark grade={grade} size="xs" />
              </td>
              <td className={text.anywhere}>
                {from} → {to}
              </td>
              <td className={text.anywhere}>{size}</td>
              <td className={`${text.mono} ${text.anywhere}`}>{over || 'none'}</td>
              <td>
                {why}
                {todo.map((each) => (
                  <div key={each} className={text.quiet}>
                    {each}
                  </div>
                ))}
              </td>
            </tr>
          ))}
        </RuledTable>
      )}
      {more > 0 && <Text mt="1">{`and ${more.toLocaleString('en')} more, in the CSV`}</Text>}
    </>
  )
}
const WIDTHS = ['11%', '7.5rem', '18%', '11%', '12%', 'auto']
