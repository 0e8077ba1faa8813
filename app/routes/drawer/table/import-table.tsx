import { Box, Flex, Heading, Link, Text } from '@chakra-ui/react'
import { data, redirect, useNavigation } from 'react-router'
import type { Edit } from '../../../../core/change/change'
import { addCables } from '../../../../core/change/changes/cables'
import { observed } from '../../../../core/change/changes/observations'
import { LARGEST_TABLE_BYTES } from '../../../../core/drawer/decode-text'
import { answeredBefore } from '../../../../server/sites/change-site'
import { chosenFrom, importContext, previewOf } from '../../../csv/preview'
import { readTableFile } from '../../../off-thread.server'
import { readFormWithFile } from '../../../read-form.server'
import { changeBy, load, loadSite, whyNotSaved } from '../../../stored.server'
import { ChangeId } from '../../../ui/change-fields'
import { MainButton, Notice, QuietButton } from '../../../ui/controls'
import { FileField, LabelledField, PlainTextArea, plainField } from '../../../ui/field'
import { Form } from '../../../ui/form'
import { useSite } from '../../../ui/site-context'
import { readUnit } from '../../../unit-cookie'
import { handOf } from '../../../who.server'
import { witnessOf } from '../../../witness.server'
import type { Route } from './+types/import-table'
import { BadRows, ColumnChoice, GoodRows, UnreadWords } from './table-preview'
import { usePreview } from './use-preview'

const nothing = 'Nothing was imported.'
/** More than that is chosen as a file. */
const LONGEST_PASTED = 500_000

/** Reads the file anew, as the page did, and writes its good rows in one transaction; bad rows stay out only where that was asked for. */
export const action = ({ request, params }: Route.ActionArgs) =>
  readFormWithFile(request, { file: LARGEST_TABLE_BYTES, longest: LONGEST_PASTED }, async (form, file) => {
    const pasted = String(form.get('pasted') ?? '')
    if (!file && pasted.trim() === '')
      return data({ problem: `Choose a file or paste a table first. ${nothing}`, read: null }, { status: 422 })
    const hand = await handOf(request, form)
    // sent twice, its cables are in the drawer by now and would be read as others
    const before = await load((knex) => answeredBefore(knex, params.site, hand))
    if (before?.outcome === 'saved') return cameIn(params.site, before)
    const { plan } = (await loadSite(params.site)).copy
    const work = await readTableFile({
      told: file ? { path: file.path } : { text: pasted },
      chosen: chosenFrom(form),
      context: importContext(plan, readUnit(request)),
    })
    if (!work.done) return data({ problem: `${work.problem} ${nothing}`, read: null }, { status: work.status })
    const read = work.value
    if (!read.ok) return data({ problem: `${read.problem} ${nothing}`, read: null }, { status: 422 })
    const { good, bad } = read.value
    if (good.length === 0 || (bad.length > 0 && form.get('rows') !== 'good')) {
      const problem = `${rows(bad.length)} cannot be read as they are. ${nothing} Choose the file again; then you can import the good ones alone.`
      return data({ problem, read: previewOf(read.value) }, { status: 422 })
    }
    const witness = witnessOf(hand)
    const saved = await changeBy(hand, params.site, () =>
      addCables(
        good.map(({ cable }) => cable),
        good.flatMap(({ cable, marks }) => observed(marks, { cable: cable.id }, witness)),
      ),
    )
    if (saved?.outcome === 'saved') return cameIn(params.site, saved)
    const { problem, status } = whyNotSaved(saved)
    return data({ problem, read: null }, { status })
  })

const cameIn = (site: string, { edits }: { edits: readonly Edit[] }) => {
  const added = edits.filter(({ list }) => list === 'cables').length
  return redirect(`/sites/${site}/drawer?${new URLSearchParams({ added: String(added) })}`)
}

const rows = (count: number): string => `${count.toLocaleString('en')} ${count === 1 ? 'row' : 'rows'}`

/** Many cables from a table: choose a file, see what each column is taken for and what is wrong with which row, bring it in. */
export default function ImportTable({ actionData }: Route.ComponentProps) {
  const { plan } = useSite()
  const busy = useNavigation().state !== 'idle'
  const { state, open, paste, choose } = usePreview(plan)
  const read = state.step === 'read' ? state.preview : (actionData?.read ?? null)
  const problem = state.step === 'refused' ? state.problem : state.step === 'none' ? actionData?.problem : undefined
  return (
    <Form method="post" encType="multipart/form-data">
      <ChangeId />
      <Text mb="3" maxW="720px">
        One row per cable, with the column names in the first row. Only the two ends and the length are needed; cables
        without a tag get the next free one. Choose a spreadsheet (.xlsx) or CSV file, or copy the cells and paste them.{' '}
        <Link href="/sample-cables.csv" download color="brassInk" textDecoration="underline">
          A sample table
        </Link>{' '}
        shows all columns.
      </Text>
      <Flex gap="4" align="end" wrap="wrap" mb="4">
        <FileField
          label="Table (.xlsx or CSV)"
          name="file"
          accept=".xlsx,.csv,.tsv,.txt,text/csv"
          describedBy={problem ? 'table-problem' : undefined}
          onChoose={open}
        />
        <LabelledField field={plainField('pasted')} label="or paste it here">
          <PlainTextArea
            id="field-pasted"
            name="pasted"
            rows={2}
            maxLength={LONGEST_PASTED}
            spellCheck={false}
            onChange={({ currentTarget }) => paste(currentTarget.value)}
          />
        </LabelledField>
        {state.step === 'none' && <MainButton loading={busy}>Import</MainButton>}
        {state.step === 'reading' && (
          <Text role="status" color="quiet">
            Reading {state.name} …
          </Text>
        )}
      </Flex>
      {problem && (
        <Notice tone="blocked" id="table-problem">
          {problem}
        </Notice>
      )}
      {read && (
        <>
          {state.step === 'read' && <ColumnChoice preview={read} choose={choose} />}
          {read.unchosen.length > 0 && (
            <Notice tone="blocked">No column is chosen for: {read.unchosen.join(', ')}.</Notice>
          )}
          {state.step === 'read' && <UnreadWords preview={read} settled={state.chosen.settled} choose={choose} />}
          <Flex align="center" gap="4" my="4" wrap="wrap" aria-live="polite">
            <Text>
              <b>{rows(read.good.count)}</b> can be imported
              {read.bad.count > 0 && (
                <>
                  , <b>{rows(read.bad.count)}</b> cannot yet
                </>
              )}
              .
            </Text>
            {state.step === 'read' && read.good.count > 0 && (
              <BringIn good={read.good.count} bad={read.bad.count} busy={busy} />
            )}
          </Flex>
          {read.bad.count > 0 && <BadRows preview={read} />}
          {read.good.count > 0 && (
            <Box mt="5">
              <Heading as="h2" size="md" mb="2">
                What will be imported
              </Heading>
              <GoodRows preview={read} />
            </Box>
          )}
        </>
      )}
    </Form>
  )
}

function BringIn({ good, bad, busy }: { good: number; bad: number; busy: boolean }) {
  if (bad === 0) return <MainButton loading={busy}>Import {rows(good)}</MainButton>
  return (
    <>
      <QuietButton name="rows" value="good" loading={busy}>
        Import the {good === 1 ? 'one good row' : `${good.toLocaleString('en')} good rows`}
      </QuietButton>
      <Text fontSize="sm" color="quiet">
        or correct the file and choose it again.
      </Text>
    </>
  )
}
