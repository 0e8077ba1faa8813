import { Box, Flex, Heading } from '@chakra-ui/react'
import { useMemo } from 'react'
import { Link as RouterLink, useNavigation } from 'react-router'
import type { Cell } from '../../../../core/bench/cell'
import { gradeTexts, predictionText, readingText, testTitle } from '../../../../core/bench/grade-reading'
import { type MatrixRow, type SessionReadings, sessionMatrix } from '../../../../core/bench/matrix'
import { goesText, type Recommendation } from '../../../../core/bench/recommend'
import type { SiteIndex } from '../../../../core/plan/site-index'
import type { Session } from '../../../../core/vocabulary/session'
import text from '../../../theme/text.module.css'
import { MadeFrom } from '../../../ui/change-fields'
import { QuietButton } from '../../../ui/controls'
import { Form } from '../../../ui/form'
import { DoorGlyph } from '../../../ui/grade'
import { LongTable, type RowProps } from '../../../ui/long-table'
import look from './session-matrix.module.css'

/** Every cable through every test, each cell against what the lead should do, and what becomes of the lead. */
export function SessionMatrix({
  session,
  index,
  readings,
}: {
  session: Session
  index: SiteIndex
  readings: SessionReadings
}) {
  const rows = useMemo(() => sessionMatrix(index, session, readings), [index, session, readings])
  const busy = useNavigation().state !== 'idle'
  const failed = rows.filter(
    ({ recommendation, cable }) => recommendation.verdict === 'retire' && cable.standing !== 'retired',
  )
  return (
    <Box as="section" aria-labelledby="table">
      <Flex align="center" gap="4" mb="2" wrap="wrap">
        <Heading as="h3" size="md" id="table">
          What each lead did
        </Heading>
        {failed.length > 0 && (
          <Form method="post" preventScrollReset>
            <MadeFrom />
            <input type="hidden" name="cable" value={failed.map(({ cable }) => cable.id).join(' ')} />
            <QuietButton name="intent" value="retire" loading={busy}>
              Retire the {failed.length === 1 ? 'one that failed' : `${failed.length} that failed`}
            </QuietButton>
          </Form>
        )}
      </Flex>
      <LongTable
        label="What each lead did"
        columns={['Lead', ...session.tests.map((test) => testTitle(index, test)), 'What becomes of it']}
        rows={rows}
        keyOf={keyOf}
      >
        {(row, props) => <MatrixLine key={row.cable.id} row={row} site={index.plan.site.id} props={props} />}
      </LongTable>
    </Box>
  )
}

const keyOf = ({ cable }: MatrixRow): string => cable.id

const MatrixLine = ({ row, site, props }: { row: MatrixRow; site: string; props: RowProps }) => (
  <tr {...props}>
    <td className={text.whole}>
      <RouterLink
        to={`/sites/${site}/cables/${encodeURIComponent(row.cable.id)}`}
        className={`${text.link} ${text.mono} ${text.strong}`}
      >
        {row.cable.tag}
      </RouterLink>
      {row.cable.standing === 'retired' && <span className={`${text.block} ${text.quiet}`}>retired</span>}
    </td>
    {row.cells.map((cell) => (
      <MatrixCell key={cell.test.id} row={row} cell={cell} />
    ))}
    <td>
      <Advice recommendation={row.recommendation} />
    </td>
  </tr>
)

function MatrixCell({ row, cell }: { row: MatrixRow; cell: Cell }) {
  const { prediction, reading, grade, goes, earlier, test } = cell
  if (prediction.kind === 'does not fit') return <td className={`${text.quiet} ${text.tiny}`}>does not fit</td>
  const search = new URLSearchParams({ cable: row.cable.id, test: test.id }).toString()
  const should = `should: ${predictionText(prediction)}`
  if (!reading)
    return (
      <td className={`${text.quiet} ${text.tiny}`}>
        <RouterLink to={{ search }} title={`Test ${row.cable.tag} here`}>
          {should}
        </RouterLink>
      </td>
    )
  return (
    <td data-grade={grade?.grade} title={should} className={text.narrow}>
      <RouterLink to={{ search }} title={`Test ${row.cable.tag} again`}>
        <span className={look.read}>
          <DoorGlyph grade={grade?.grade ?? 'note'} size={15} />
          <span>
            <span className={`${text.block} ${text.half}`}>{readingText(reading)}</span>
            <span className={`${text.block} ${text.tiny} ${look.grade}`} data-grade={grade?.grade}>
              {goes ? goesText(goes) : gradeText(grade)}
              {reading.instrument?.simulated && ', simulated'}
              {!goes && earlier.length > 0 && `, read ${earlier.length + 1} times`}
            </span>
          </span>
        </span>
      </RouterLink>
    </td>
  )
}

const gradeText = (grade: Cell['grade']): string => {
  if (!grade) return 'at least this'
  return grade.beyond ? 'more than it should' : gradeTexts[grade.grade]
}

const verdicts: Record<Recommendation['verdict'], { words: string; grade: 'clear' | 'tight' | 'blocked' | 'note' }> = {
  use: { words: 'Use it', grade: 'clear' },
  limited: { words: 'Use it for less', grade: 'tight' },
  retire: { words: 'Retire it', grade: 'blocked' },
  open: { words: 'Still open', grade: 'note' },
}

function Advice({ recommendation: { verdict, useFor, notFor, reasons } }: { recommendation: Recommendation }) {
  const { words, grade } = verdicts[verdict]
  const lines: [string, readonly string[]][] = [
    ['for', useFor],
    ['not for', notFor],
    ['because', reasons],
  ]
  return (
    <>
      <span className={look.advice} data-grade={grade}>
        <DoorGlyph grade={grade} size={15} /> {words}
      </span>
      {lines.map(([name, what]) =>
        what.length === 0 ? null : (
          <p key={name} className={text.tiny}>
            <span className={text.quiet}>{name}</span> {what.join('; ')}
          </p>
        ),
      )}
    </>
  )
}
