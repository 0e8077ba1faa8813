import { Heading, Text } from '@chakra-ui/react'
import { data, redirect, useNavigation } from 'react-router'
import { editsBetween } from '../../../core/change/edits-between'
import { LARGEST_TABLE_BYTES } from '../../../core/drawer/decode-text'
import { listOfTable, SURVEY_TABLES, type SurveyRead, surveyTables } from '../../../core/survey/tables'
import { unlessSo } from '../../../server/sites/change-site'
import { readSurveyFile } from '../../off-thread.server'
import { readFormWithFile } from '../../read-form.server'
import { addressWith, change, loadSite, whyNotSaved } from '../../stored.server'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { MainButton, Notice, QuietButton } from '../../ui/controls'
import { FileField, LabelledField, PlainSelect, PlainTextArea, plainField } from '../../ui/field'
import { Form } from '../../ui/form'
import { RuledTable } from '../../ui/ruled-table'
import { useSite } from '../../ui/site-context'
import { Took } from '../../ui/take'
import { readUnit } from '../../unit-cookie'
import type { Route } from './+types/tables'
import look from './tables.module.css'

const nothing = 'Nothing was imported.'
/** Rows of each sort that are shown; the rest is counted. */
const SHOWN = 30

type Preview = {
  table: string
  headers: string[]
  good: { count: number; first: SurveyRead['good'] }
  bad: { count: number; first: SurveyRead['bad'] }
}

/** Reads a table against the site as it stands, and brings it in as one change; or only says what it would bring. */
export const action = ({ request, params }: Route.ActionArgs) =>
  readFormWithFile(request, { file: LARGEST_TABLE_BYTES, longest: LONGEST_PASTED }, async (form, file) => {
    const wrong = (problem: string, status = 422, preview: Preview | null = null) =>
      data({ problem: `${problem} ${nothing}`, preview }, { status })
    const table = SURVEY_TABLES.find((each) => each === form.get('table'))
    if (!table) return wrong('Choose what the table is of.')
    const pasted = String(form.get('pasted') ?? '')
    if (!file && pasted.trim() === '') return wrong('Choose a file or paste a table first.')
    const { plan, place } = (await loadSite(params.site)).copy
    const work = await readSurveyFile({
      table,
      told: file ? { path: file.path } : { text: pasted },
      plan: { ...plan, observations: [], sessions: [], soaks: [] },
      unit: readUnit(request),
    })
    if (!work.done) return wrong(work.problem, work.status)
    if (!work.value.ok) return wrong(work.value.problem)
    const { headers, read } = work.value.value
    const preview: Preview = {
      table,
      headers,
      good: { count: read.good.length, first: read.good.slice(0, SHOWN) },
      bad: { count: read.bad.length, first: read.bad.slice(0, SHOWN) },
    }
    if (form.get('intent') === 'look') return data({ problem: null, preview })
    if (read.good.length === 0 || (read.bad.length > 0 && form.get('intent') !== 'good'))
      return wrong('Some rows cannot be read as they are.', 422, preview)
    const list = listOfTable[table]
    const after = { ...plan, [list]: read.plan[list] }
    // made from the site as it was read: what somebody changed since is merged, or told
    const saved = await change(request, form, params.site, () =>
      unlessSo({
        what: {
          name: 'bring in table',
          about: [table, ...read.good.map(({ cells }) => cells[0] ?? '').slice(0, MOST_NAMED)],
        },
        edits: editsBetween(plan, after, place),
      }),
    )
    if (saved?.outcome === 'saved') return redirect(addressWith(`/sites/${params.site}/tables`, { took: saved.id }))
    const { problem, status } = whyNotSaved(saved)
    return data({ problem, preview: null }, { status })
  })

/** Characters of a pasted table at most; a longer one is a file. */
const LONGEST_PASTED = 500_000

/** What a line of the history names at most. */
const MOST_NAMED = 200

const rowsOf = (count: number): string => `${count.toLocaleString('en')} ${count === 1 ? 'row' : 'rows'}`

/** The survey in and out as tables, which spreadsheets open. */
export default function Tables({ actionData }: Route.ComponentProps) {
  const { plan } = useSite()
  const busy = useNavigation().state !== 'idle'
  const preview = actionData?.preview
  return (
    <>
      <Heading as="h1" size="xl" mb="2">
        Tables
      </Heading>
      <Took />
      <Text mb="3" maxW="720px">
        The survey out to a spreadsheet, and back in from .xlsx, CSV or pasted cells. A row that names something here
        changes it; any other row is new. An empty cell leaves what is on record. To lay leads, two columns of a table
        of runs do: run and cable. Each import is one change, which you can undo.
      </Text>
      <RuledTable label="Tables of this site" cards columns={['Table', 'Columns', 'Rows', 'Out']}>
        {SURVEY_TABLES.map((table) => (
          <tr key={table}>
            <td className={text.strong}>{table}</td>
            <td className={text.small}>
              {surveyTables[table].columns.map((column, at) => (
                <span key={column}>
                  {at > 0 && ', '}
                  {surveyTables[table].needed.includes(column) ? <b>{column}</b> : column}
                </span>
              ))}
            </td>
            <td>
              {rowsOf(
                table === 'ports' ? plan.devices.reduce((sum, { ports }) => sum + ports.length, 0) : plan[table].length,
              )}
            </td>
            <td>
              <a href={`/sites/${plan.site.id}/tables/${table}.csv`} className={text.link} download>
                {table}.csv
              </a>
            </td>
          </tr>
        ))}
      </RuledTable>
      <Form method="post" encType="multipart/form-data" className={look.in}>
        <MadeFrom />
        <LabelledField field={plainField('table')} label="A table of">
          <PlainSelect id="field-table" name="table" defaultValue={preview?.table ?? 'places'}>
            {SURVEY_TABLES.map((table) => (
              <option key={table}>{table}</option>
            ))}
          </PlainSelect>
        </LabelledField>
        <FileField
          label="Table (.xlsx or CSV)"
          name="file"
          accept=".xlsx,.csv,.tsv,.txt,text/csv"
          describedBy="table-problem"
        />
        <LabelledField field={plainField('pasted')} label="or paste it here">
          <PlainTextArea id="field-pasted" name="pasted" rows={2} maxLength={LONGEST_PASTED} spellCheck={false} />
        </LabelledField>
        <QuietButton name="intent" value="look" loading={busy}>
          Preview
        </QuietButton>
        <MainButton name="intent" value="bring" loading={busy}>
          Import
        </MainButton>
        {preview && preview.bad.count > 0 && preview.good.count > 0 && (
          <QuietButton name="intent" value="good" loading={busy}>
            Import {preview.good.count === 1 ? 'the one good row' : `the ${preview.good.count} good rows`}
          </QuietButton>
        )}
      </Form>
      {actionData?.problem && (
        <Notice tone="blocked" id="table-problem">
          {actionData.problem}
        </Notice>
      )}
      {preview && <WhatComesIn preview={preview} />}
    </>
  )
}

function WhatComesIn({ preview: { headers, good, bad } }: { preview: Preview }) {
  return (
    <section aria-label="What would come in" aria-live="polite">
      <Text my="3">
        <b>{good.count.toLocaleString('en')}</b> {good.count === 1 ? 'row' : 'rows'} can come in
        {bad.count > 0 && (
          <>
            , <b>{bad.count.toLocaleString('en')}</b> cannot yet
          </>
        )}
        .
      </Text>
      {bad.count > 0 && (
        <RuledTable
          label="Rows that cannot come in"
          columns={['Line', 'What is wrong', 'The row']}
          tone="blocked"
          maxH="300px"
        >
          {bad.first.map(({ line, problem, cells }) => (
            <tr key={line}>
              <td className={text.mono}>{line}</td>
              <td>{problem}</td>
              <td className={`${text.mono} ${text.tiny} ${text.quiet} ${text.anywhere}`}>
                {cells.join(' · ').slice(0, 200)}
              </td>
            </tr>
          ))}
        </RuledTable>
      )}
      {good.count > 0 && (
        <RuledTable label="Rows that can come in" columns={['Line', ...headers]} wide>
          {good.first.map(({ line, cells }) => (
            <tr key={line}>
              <td className={text.mono}>{line}</td>
              {headers.map((header, at) => (
                <td key={header} className={text.anywhere}>
                  {cells[at]?.slice(0, 120)}
                </td>
              ))}
            </tr>
          ))}
        </RuledTable>
      )}
    </section>
  )
}
