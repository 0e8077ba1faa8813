import { Box, Flex, Link, Text } from '@chakra-ui/react'
import { data, Link as RouterLink, redirect, useNavigation, useSearchParams } from 'react-router'
import { putKinds, removeKind } from '../../../../core/change/changes/kinds'
import { LARGEST_TABLE_BYTES } from '../../../../core/drawer/decode-text'
import { hasCatalogue } from '../../../../core/drawer/has-catalogue'
import { observationsOf } from '../../../../core/observe/learned'
import { slugOf } from '../../../../core/plan/free-id'
import { byId } from '../../../../core/plan/lookup'
import type { Plan } from '../../../../core/plan/plan'
import { describeEnd } from '../../../../core/standards/connectors'
import { gradeFacts } from '../../../../core/standards/grades'
import { powerMarkOf } from '../../../../core/standards/mark-text'
import type { CableKind } from '../../../../core/vocabulary/cable'
import { refused } from '../../../../server/sites/change-site'
import { within } from '../../../address'
import { genericCatalogue } from '../../../csv/generic-catalogue'
import { readKindsFile } from '../../../off-thread.server'
import { parseFields } from '../../../parse-fields.server'
import { readFormWithFile } from '../../../read-form.server'
import { baseOf, change, loadSite, whyNotSaved } from '../../../stored.server'
import text from '../../../theme/text.module.css'
import { MadeFrom } from '../../../ui/change-fields'
import { MainButton, Notice, QuietButton } from '../../../ui/controls'
import { FileField } from '../../../ui/field'
import { Form } from '../../../ui/form'
import { RuledTable } from '../../../ui/ruled-table'
import { useSite } from '../../../ui/site-context'
import { Length } from '../../../ui/units'
import { utcToday } from '../../../ui/use-today'
import { WrongLines } from '../../../ui/wrong-lines'
import { readUnit } from '../../../unit-cookie'
import { Waiting } from '../../order/waits'
import { saveRetraction, saveSeen } from '../../seen/save-seen.server'
import type { Route } from './+types/catalogue'
import look from './catalogue.module.css'
import { KindForm } from './kind-fields'
import { kindFormSchema, readKind } from './kind-form'
import { KindSaid } from './kind-said'

type Answer = { problem: string; lines?: { line: number; problems: string[] }[]; result?: unknown }
const refusal = (answer: Answer, status: number) => data<Answer>(answer, { status })

/** What was seen of the kind that is open: the site brings what it comes to, this page shows each piece. */
export async function loader({ request, params }: Route.LoaderArgs) {
  const kind = openKind(request)
  const { copy } = await loadSite(params.site)
  return { observations: kind === null ? [] : observationsOf(copy.plan, { kind }) }
}

/** The kind that the page has open, by its address. */
const openKind = (request: Request): string | null => new URL(request.url).searchParams.get('edit')

/** One kind saved or taken out, what was seen of it, a file brought in, or the generic catalogue taken over. */
export const action = ({ request, params }: Route.ActionArgs) =>
  readFormWithFile(request, { file: LARGEST_TABLE_BYTES }, async (form, sent) => {
    const open = openKind(request)
    const seenOf = (plan: Plan) => {
      const kind = byId(plan.kinds).get(open ?? '')
      return kind ? { subject: { kind: kind.id }, tag: kind.name } : null
    }
    const done = (word: string): string => `${here(params, word)}&edit=${encodeURIComponent(open ?? '')}`
    switch (form.get('intent')) {
      case 'seen':
        return saveSeen(request, form, { site: params.site, done: done('read') }, seenOf)
      case 'retract':
        return saveRetraction(request, form, { site: params.site, done: done('retracted') }, seenOf)
      case 'remove': {
        const removed = await change(request, form, params.site, ({ plan }) => {
          const kind = plan.kinds.find(({ id }) => id === form.get('id'))
          return kind ? removeKind(plan, kind, baseOf(form)) : refused('kind', 'the kind is no longer there')
        })
        return removed?.outcome === 'saved' ? redirect(here(params, 'removed')) : refusedBy(removed)
      }
      case 'generic':
        return put(request, form, params, genericCatalogue().kinds)
      case 'file': {
        if (!sent) return refusal({ problem: 'Choose a file first. Nothing was saved.' }, 422)
        const work = await readKindsFile({ path: sent.path, unit: readUnit(request) })
        if (!work.done) return refusal({ problem: `${work.problem} Nothing was saved.` }, work.status)
        const read = work.value
        if (!read.ok) return refusal({ problem: `${read.problem} Nothing was saved.` }, 422)
        const { kinds, bad } = read.value
        if (bad.length > 0)
          return refusal(
            {
              problem: `${bad.length === 1 ? 'One line is' : `${bad.length} lines are`} wrong, so nothing was written. Correct them and choose the file again.`,
              lines: bad.slice(0, 50),
            },
            422,
          )
        return put(request, form, params, kinds)
      }
      default: {
        const submission = parseFields(form, kindFormSchema(readUnit(request)))
        if (submission.status !== 'success') return refusal({ problem: '', result: submission.reply() }, 422)
        const { value } = submission
        const saved = await change(request, form, params.site, ({ plan }) => {
          const before = plan.kinds.find(({ id }) => id === value.id)
          if (value.id && !before) return refused('kind', 'the kind is no longer there')
          return putKinds(plan, baseOf(form), [
            readKind(value, value.id || slugOf(value.name, 'kind'), utcToday(), before),
          ]).draft
        })
        return saved?.outcome === 'saved' ? redirect(here(params, 'saved')) : refusedBy(saved)
      }
    }
  })

type Here = { site: string }
const here = ({ site }: Here, done: string): string =>
  `/sites/${site}/drawer/catalogue?${new URLSearchParams({ done })}`

/** Many kinds at once, over whatever stands there now: a file is newer than the page it is sent from. */
async function put(request: Request, form: FormData, params: Here, kinds: readonly CableKind[]) {
  const saved = await change(request, form, params.site, ({ plan, place }) => putKinds(plan, place, kinds).draft)
  if (saved?.outcome !== 'saved') return refusedBy(saved)
  const added = saved.edits.filter(({ base }) => base === null).length
  const done = `${added} new, ${kinds.length - added} replaced`
  return redirect(form.has('back') ? within(form.get('back')) : here(params, done))
}

function refusedBy(answer: Parameters<typeof whyNotSaved>[0]) {
  const { problem, status } = whyNotSaved(answer)
  return refusal({ problem }, status)
}

/** Kinds of cable a shop sells, with lengths, prices and terms: what orders are made from and listings are known by. */
export default function Catalogue({ actionData, loaderData }: Route.ComponentProps) {
  const { plan, index } = useSite()
  const busy = useNavigation().state !== 'idle'
  const [params] = useSearchParams()
  const edited = plan.kinds.find((kind) => kind.id === params.get('edit'))
  const done = params.get('done')
  return (
    <>
      {actionData?.problem && <WrongLines problem={actionData.problem} lines={actionData.lines} />}
      {!actionData && done && (
        <Notice tone="clear" slim>
          {DONE[done] ?? `Catalogue: ${done}.`}
        </Notice>
      )}
      <Form method="post" encType="multipart/form-data">
        <MadeFrom />
        <Flex gap="4" wrap="wrap" align="end" mb="4">
          <Text flex="1 1 320px">
            Prices are in {plan.policy.currency} (
            <RouterLink to={`/sites/${plan.site.id}/policy`} className={text.link}>
              change that
            </RouterLink>
            ). Cables of a kind are known by its listing until their mark, chip or a test says more.
          </Text>
          <Link
            href={`/sites/${plan.site.id}/catalogue.csv`}
            color="brassInk"
            textDecoration="underline"
            fontSize="sm"
            pb="1.5"
          >
            As a table (CSV)
          </Link>
          <FileField label="From a table (.xlsx or CSV)" name="file" accept=".xlsx,.csv,.tsv,.txt,text/csv" />
          <QuietButton name="intent" value="file" loading={busy}>
            Import
          </QuietButton>
        </Flex>
      </Form>
      {!hasCatalogue(plan) && (
        <Form method="post">
          <MadeFrom />
          <Notice tone="note">
            <Flex gap="4" align="center" wrap="wrap">
              <Text flex="1 1 300px">
                Hallway comes with a ready catalogue. Its prices are invented: put in your own. It replaces kinds of the
                same name.
              </Text>
              <MainButton name="intent" value="generic" loading={busy}>
                Add the ready catalogue
              </MainButton>
            </Flex>
          </Notice>
        </Form>
      )}
      <Waiting />
      {plan.kinds.length > 0 && <Kinds />}
      <Box key={`${edited?.id} ${done}`} mt="6" id="kind-form">
        <KindForm kind={edited ?? null} lastResult={actionData?.result} />
        {edited && <KindSaid kind={edited} index={index} observations={loaderData.observations} />}
      </Box>
    </>
  )
}

/** What is said when something is done. */
const DONE: Readonly<Record<string, string>> = {
  removed: 'The kind is removed.',
  saved: 'The kind is saved.',
  read: 'It is saved.',
  retracted: 'It is taken back.',
}

function Kinds() {
  const { plan } = useSite()
  const price = new Intl.NumberFormat('en', { style: 'currency', currency: plan.policy.currency })
  const used = new Map<string, number>()
  for (const { kind } of plan.cables) if (kind) used.set(kind, (used.get(kind) ?? 0) + 1)
  return (
    <RuledTable
      label="Kinds"
      columns={['Kind', 'Ends', 'Listed as', 'Lengths and prices', 'Days to deliver', 'Days to send back', 'Cables']}
      maxH="460px"
    >
      {plan.kinds.map((kind) => (
        <tr key={kind.id}>
          <td className={text.wide}>
            <RouterLink to={{ search: `edit=${kind.id}`, hash: 'kind-form' }} className={`${text.link} ${text.half}`}>
              {kind.name}
            </RouterLink>
            {kind.avoid && (
              <span className={text.block}>
                <b>Not bought</b> since {kind.avoid.on}: {kind.avoid.why}
              </span>
            )}
            {kind.note && <span className={`${text.block} ${text.quiet}`}>{kind.note}</span>}
          </td>
          <td className={text.narrow}>
            {describeEnd(kind.ends[0])} {kind.oneWay ? '→' : '–'} {describeEnd(kind.ends[1])}
          </td>
          <td className={text.narrow}>
            {gradeFacts[kind.grade].name}
            <span className={`${text.block} ${text.quiet}`}>
              {[kind.construction, powerMarkOf(kind)].filter(Boolean).join(', ')}
            </span>
          </td>
          <td className={text.wide}>
            <span className={look.prices}>
              {kind.stock.map((stock) => (
                <span key={stock.length} className={look.price}>
                  <Length metres={stock.length} brief /> <span className={text.mono}>{price.format(stock.price)}</span>
                </span>
              ))}
              {kind.stock.length === 0 && <span className={text.quiet}>none yet</span>}
            </span>
          </td>
          <td className={text.mono}>{kind.leadDays ?? ''}</td>
          <td className={text.mono}>{kind.returnDays === 0 ? 'never' : (kind.returnDays ?? '')}</td>
          <td className={text.mono}>{used.get(kind.id) ?? 0}</td>
        </tr>
      ))}
    </RuledTable>
  )
}
