import { Box, Flex, Heading, Text } from '@chakra-ui/react'
import { type SubmissionResult, useForm } from '@conform-to/react'
import { parseWithZod } from '@conform-to/zod/v4'
import { type RefObject, useMemo, useRef, useState } from 'react'
import { data, Link as RouterLink, redirect, useNavigation } from 'react-router'
import { revisionOf } from '../../../core/change/change'
import { changeNeed, dropNeed, keepTriedRuns } from '../../../core/change/changes/needs'
import { corridorOf } from '../../../core/checks/corridor'
import { formatNeedSize } from '../../../core/needs/need-text'
import { byId } from '../../../core/plan/lookup'
import { keepWhatIf } from '../../../core/variants/keep-what-if'
import { judgeVariants } from '../../../core/variants/need-variants'
import { type Need, needLabel } from '../../../core/vocabulary/need'
import type { Run } from '../../../core/vocabulary/run'
import { refused } from '../../../server/sites/change-site'
import { parseFields } from '../../parse-fields.server'
import { readForm } from '../../read-form.server'
import { addressWith, baseOf, change, loadSite, whyNotSaved } from '../../stored.server'
import text from '../../theme/text.module.css'
import { NOT_TRIED, triedOf, triedRuns, triedText } from '../../tried'
import { MadeFrom } from '../../ui/change-fields'
import { choose } from '../../ui/choice'
import { MainButton, Notice, QuietButton } from '../../ui/controls'
import { Corridor } from '../../ui/corridor'
import { ErrorView, RouteErrorView } from '../../ui/error-view'
import { Form } from '../../ui/form'
import { GradeMark } from '../../ui/grade'
import { RuledTable } from '../../ui/ruled-table'
import { useSite } from '../../ui/site-context'
import { SqueezeBar } from '../../ui/squeeze-bar'
import { Took } from '../../ui/take'
import { useKept } from '../../ui/use-kept'
import { Findings } from '../run/findings'
import { WhatIf } from '../run/what-if'
import whatIfLook from '../run/what-if.module.css'
import type { Route } from './+types/need'
import { NeedFields } from './need-fields'
import { type NeedFormTexts, needFormSchema, needOf, textsOfNeed } from './need-form'
import look from './needs.module.css'
import { TriedRun } from './tried-run'
import { useNeedDraft } from './use-need-draft'

/** Whether there is such a need. What it is comes with the site. */
export async function loader({ params }: Route.LoaderArgs) {
  const { copy } = await loadSite(params.site)
  if (!copy.plan.needs.some(({ id }) => id === params.need)) throw data(null, { status: 404 })
  return null
}

export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request)
  const base = baseOf(form)
  const gone = () => refused('need', 'the need is no longer there')
  if (form.get('intent') === 'drop') {
    const dropped = await change(request, form, params.site, ({ plan }) => {
      const need = byId(plan.needs).get(params.need)
      return need ? dropNeed(plan, base, need) : gone()
    })
    if (dropped?.outcome === 'saved')
      return redirect(addressWith(`/sites/${params.site}/needs`, { dropped: dropped.id }))
    const { problem, status } = whyNotSaved(dropped)
    return data({ result: { status: 'error', error: { '': [problem] } } as SubmissionResult<string[]> }, { status })
  }
  const submission = parseFields(form, needFormSchema)
  if (submission.status !== 'success')
    return data({ result: submission.reply() as SubmissionResult<string[]> }, { status: 422 })
  const tried = triedOf(form)
  if (tried === undefined)
    return data(
      { result: submission.reply({ formErrors: [NOT_TRIED] }) as SubmissionResult<string[]> },
      { status: 422 },
    )
  const saved = await change(request, form, params.site, (copy) => {
    const { plan } = copy
    const before = byId(plan.needs).get(params.need)
    if (!before) return gone()
    const need = needOf(submission.value, params.need, before)
    const made = tried ? keepTriedRuns(plan, base, need, triedRuns(tried)) : changeNeed(base, need)
    return tried?.words ? (keepWhatIf(copy, made, tried.on, tried.words) ?? refused('tried', NOT_TRIED)) : made
  })
  if (saved?.outcome === 'saved')
    return redirect(
      addressWith(`/sites/${params.site}/needs/${params.need}`, { done: 'saved', took: tried && saved.id }),
    )
  const { problem, status } = whyNotSaved(saved)
  return data({ result: submission.reply({ formErrors: [problem] }) as SubmissionResult<string[]> }, { status })
}

export default function NeedRoute({ actionData, params }: Route.ComponentProps) {
  const { plan } = useSite()
  const need = byId(plan.needs).get(params.need)
  return need ? <NeedPage key={need.id} need={need} lastResult={actionData?.result} /> : <ErrorView status={404} />
}

type PageProps = { need: Need; lastResult: SubmissionResult<string[]> | undefined }

/** One need; what was tried on it is put back by making the page anew. */
function NeedPage(props: PageProps) {
  const [round, setRound] = useState(0)
  return <NeedBody key={round} {...props} putBack={() => setRound(round + 1)} />
}

const NOTHING_TRIED: ReadonlyMap<string, { run: Run; of: Run | undefined }> = new Map()

/** One need: its whole path as a corridor with what if, what it asks, and what is found on its way. */
function NeedBody({ need, lastResult, putBack }: PageProps & { putBack: () => void }) {
  const { plan, index, place, revisions } = useSite()
  const stamp = String(revisionOf({ revisions }, 'needs', need.id))
  const { made, behind, type, round } = useKept({ stamp, need, place })
  const formRef = useRef<HTMLFormElement>(null)
  const [words, setWords] = useState<string | null>(null)
  const [tried, setTried] = useState(NOTHING_TRIED)
  // what was tried is of a run as it was; what others change elsewhere leaves it
  const runs = useMemo(
    () => new Map([...tried].flatMap(([id, { run, of }]) => (index.runs.get(id) === of ? [[id, run] as const] : []))),
    [tried, index],
  )
  const [which, setWhich] = useState<string | null>(null)
  const { draft, read } = useNeedDraft(formRef, made.need, runs, words)
  const corridor = useMemo(() => corridorOf(draft.judged, draft.need), [draft.judged, draft.need])
  const verdict = byId(draft.judged.assessment.needs).get(need.id)
  const label = needLabel(need, index.devices)
  const nameOf = (id: string) => index.devices.get(id)?.name ?? id
  // what was tried may leave no way, and is put back all the same
  const way = draft.runs.length > 0 ? draft.runs : [...runs.values()]
  const run = way.find(({ id }) => id === which) ?? way[0]
  return (
    <>
      <Flex align="center" gap="4" mb="3" wrap="wrap">
        <Heading as="h1" size="xl">
          {label}: {nameOf(need.from)} to {nameOf(need.to)}
        </Heading>
        {verdict && (
          <span aria-live="polite">
            <GradeMark grade={verdict.grade} size="lg" />
          </span>
        )}
      </Flex>
      <Took />
      {behind && (
        <Notice tone="note" slim>
          This need was changed meanwhile. What you typed is still here; saving keeps both, or says where both of you
          changed the same.
        </Notice>
      )}
      <div className={whatIfLook.judged}>
        {corridor ? (
          <Corridor corridor={corridor} title={`the ${label}`} />
        ) : (
          <Text>No path of runs, docks and hubs joins the two yet. Lay a run between them.</Text>
        )}
        {run && (
          <WhatIf
            {...draft}
            form={needFormId(need)}
            kept={triedText(
              draft.whatIf?.words ?? null,
              way.map(({ id }) => id),
              [...runs.values()],
              place,
            )}
            tryOut={setWords}
            putBack={putBack}
          >
            <TriedRun
              runs={way}
              run={run}
              choose={setWhich}
              tryOut={(other) =>
                setTried(new Map([...tried, [other.id, { run: other, of: index.runs.get(other.id) }]]))
              }
            />
          </WhatIf>
        )}
      </div>
      {draft.runs.length > 0 && (
        <p className={`${text.small} ${look.way}`}>
          Path:{' '}
          {draft.runs.map(({ id, tag }, at) => (
            <span key={id}>
              {at > 0 && ', then '}
              <RouterLink to={`/sites/${plan.site.id}/runs/${id}`} className={`${text.link} ${text.mono}`}>
                {tag}
              </RouterLink>
            </span>
          ))}
          .{' '}
          <RouterLink
            to={`/sites/${plan.site.id}/needs/new?${new URLSearchParams({ host: hostOf(need, index.devices), like: need.id })}`}
            className={text.link}
          >
            More like this
          </RouterLink>
        </p>
      )}
      <NeedEditor
        key={round}
        need={made.need}
        base={behind ? made.place : place}
        lastResult={lastResult}
        formRef={formRef}
        type={type}
        read={read}
      />
      <Variants need={need} />
      <Findings verdict={verdict} plan={draft.judged.index.plan} />
    </>
  )
}

/** The end of a need that is the computer. */
const hostOf = ({ from, to }: Need, devices: ReadonlyMap<string, { kind: string }>): string =>
  devices.get(from)?.kind !== 'computer' && devices.get(to)?.kind === 'computer' ? to : from

const needFormId = ({ id }: Need): string => `need-${id}`

/** The need judged in each way in which it may be asked, with the hungriest named. */
function Variants({ need }: { need: Need }) {
  const { assessed } = useSite()
  const variants = useMemo(() => judgeVariants(assessed, need), [assessed, need])
  if (!variants) return null
  return (
    <Box as="section" mb="6" aria-labelledby="variants-heading">
      <Heading as="h2" size="md" mb="2" id="variants-heading">
        As it may be asked
      </Heading>
      {variants.hungriest && <Text mb="2">The hungriest: {variants.hungriest}.</Text>}
      <RuledTable label="Variants" columns={['Variant', 'Size', 'Verdict', 'Against its door']} cards>
        {variants.judged.map(({ name, need: asked, grade, squeeze }) => (
          <tr key={name}>
            <td>{name}</td>
            <td className={text.mono}>{formatNeedSize(asked)}</td>
            <td>
              <GradeMark grade={grade} size="xs" />
            </td>
            <td>{squeeze && <SqueezeBar squeeze={squeeze} />}</td>
          </tr>
        ))}
      </RuledTable>
    </Box>
  )
}

function NeedEditor({
  need,
  base,
  lastResult,
  formRef,
  type,
  read,
}: PageProps & {
  base: number
  formRef: RefObject<HTMLFormElement | null>
  /** Told when somebody types, and when what was typed is there to be read. */
  type: () => void
  read: () => void
}) {
  const saving = useNavigation().state === 'submitting'
  const [form, fields] = useForm<NeedFormTexts>({
    id: needFormId(need),
    lastResult,
    defaultValue: textsOfNeed(need),
    onValidate: ({ formData }) => parseWithZod(formData, { schema: needFormSchema }) as never,
    shouldRevalidate: 'onInput',
  })
  const put = (kind: string, size: string) => {
    const controls = formRef.current?.elements
    const kinds = controls?.namedItem('kind')
    const sizes = controls?.namedItem('size')
    if (!(kinds instanceof HTMLSelectElement) || !(sizes instanceof HTMLInputElement)) return
    choose(kinds, kind)
    sizes.value = size
    sizes.dispatchEvent(new Event('input', { bubbles: true }))
  }
  const typed = () => {
    type()
    read()
  }
  return (
    <>
      <Form method="post" ref={formRef} id={form.id} onSubmit={form.onSubmit} noValidate onInput={typed}>
        <MadeFrom base={base} />
        {form.errors && <Notice tone="blocked">{form.errors.join(' ')}</Notice>}
        <NeedFields fields={fields as never} put={put} />
        <Flex mt="3" mb="6" gap="4" align="center">
          <MainButton loading={saving}>Save the need</MainButton>
        </Flex>
      </Form>
      <Form method="post">
        <MadeFrom />
        <input type="hidden" name="intent" value="drop" />
        <Flex mb="6" gap="4" align="center">
          <QuietButton grave>Delete the need</QuietButton>
          <Text fontSize="sm" color="quiet">
            You can undo this.
          </Text>
        </Flex>
      </Form>
    </>
  )
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  return <RouteErrorView error={error} />
}
