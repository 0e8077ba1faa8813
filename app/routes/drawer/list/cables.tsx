import { Box, Flex, Link, Text } from '@chakra-ui/react'
import { useDeferredValue, useEffect, useMemo, useRef, useState } from 'react'
import { data, Link as RouterLink, useNavigation, useSearchParams } from 'react-router'
import type { LogPosition } from '../../../../core/change/change'
import { deleteCables, standCables, type TagSeries, tagCables, whatHolds } from '../../../../core/change/changes/cables'
import { type DrawerRow, drawerRows, rowsForJob } from '../../../../core/drawer/drawer-rows'
import { parseJob } from '../../../../core/match/job-text'
import type { Plan } from '../../../../core/plan/plan'
import { CABLE_STANDINGS, type Cable } from '../../../../core/vocabulary/cable'
import { type MakeChange, refused, unlessSo } from '../../../../server/sites/change-site'
import { readForm } from '../../../read-form.server'
import { baseOf, change, whyNotSaved } from '../../../stored.server'
import { MainButton, Notice, QuietButton } from '../../../ui/controls'
import { PlainInput } from '../../../ui/field'
import { Form } from '../../../ui/form'
import { useShortcut } from '../../../ui/shortcut'
import { useSite } from '../../../ui/site-context'
import { Undo } from '../../../ui/undo'
import { useUnit } from '../../../ui/units'
import type { Route } from './+types/cables'
import { BulkBar } from './bulk-bar'
import { type Chosen, DrawerTable } from './drawer-table'
import { JobWords } from './job-words'

/** Thousands of cables chosen at once are sent by their ids. */
const LONGEST_CHOICE = 700_000

type Answer = { problem: string } | { done: string; token: string | null }

const said = (answer: Answer, status = 200) => data<Answer>(answer, { status })

/** Bulk changes. */
export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request, { longest: LONGEST_CHOICE })
  const ids = String(form.get('cables') ?? '')
    .split(' ')
    .filter(Boolean)
  const wanted = readChange(form)
  if (ids.length === 0 || wanted === null)
    return said({ problem: 'Choose cables, and for new tags the first of them, such as C-0100.' }, 422)
  const place = new Map(ids.map((id, at) => [id, at]))
  let count = 0
  const changed = await change(request, form, params.site, ({ plan }) => {
    const chosen = plan.cables
      .filter(({ id }) => place.has(id))
      .sort((one, other) => (place.get(one.id) ?? 0) - (place.get(other.id) ?? 0))
    count = chosen.length
    return draftFor(plan, chosen, baseOf(form), wanted)
  })
  if (changed?.outcome === 'saved') return said({ done: `${cables(count)} ${doneWords(wanted)}.`, token: changed.id })
  const { problem, status } = whyNotSaved(changed)
  return said({ problem }, status)
}

/** What may be done to many cables at once. */
type BulkChange =
  | { change: 'stand'; standing: Cable['standing'] }
  | ({ change: 'tag' } & TagSeries)
  | { change: 'delete' }

function draftFor(plan: Plan, chosen: readonly Cable[], base: LogPosition, wanted: BulkChange): ReturnType<MakeChange> {
  if (chosen.length === 0) return refused('cables', 'none of these cables is there any more')
  switch (wanted.change) {
    case 'stand':
      return unlessSo(standCables(chosen, base, wanted.standing))
    case 'tag':
      return tagCables(chosen, base, wanted)
    case 'delete': {
      const held = chosen.flatMap((cable) => whatHolds(plan, cable))
      return held.length > 0 ? { outcome: 'refused', faults: held } : deleteCables(plan, chosen, base)
    }
  }
}

const cables = (count: number): string => `${count} ${count === 1 ? 'cable' : 'cables'}`

function readChange(form: FormData): BulkChange | null {
  const intent = form.get('intent')
  const standing = CABLE_STANDINGS.find((each) => each === intent)
  if (standing) return { change: 'stand', standing }
  if (intent === 'delete') return { change: 'delete' }
  const first = /^(.*?)(\d{1,9})$/.exec(String(form.get('first') ?? '').trim())
  if (intent !== 'tag' || !first) return null
  const [, prefix = '', number = ''] = first
  return { change: 'tag', prefix, first: Number(number), digits: number.length }
}

function doneWords(change: BulkChange): string {
  if (change.change === 'delete') return 'deleted'
  if (change.change === 'tag') return 'given new tags'
  return { drawer: 'back in the drawer', lent: 'lent', retired: 'retired' }[change.standing]
}

/** Every cable, what it is good for and how that is known; what a job needs narrows the list. */
export default function Cables({ actionData }: Route.ComponentProps) {
  const { plan, index } = useSite()
  const unit = useUnit()
  const [params, setParams] = useSearchParams()
  const [text, setText] = useState(params.get('job') ?? '')
  const asked = useDeferredValue(text)
  const rows = useMemo(() => drawerRows(index), [index])
  const shown = useMemo(() => rowsForJob(rows, parseJob(asked, unit)), [rows, asked, unit])
  useEffect(() => workAhead(rows), [rows])
  const [chosen, setChosen] = useState<Chosen>({})
  const box = useRef<HTMLInputElement>(null)
  useShortcut('j', () => box.current?.focus())
  // the address follows once the typing rests, so that the list can be come back to
  useEffect(() => {
    if (asked === (params.get('job') ?? '')) return
    const timer = setTimeout(
      () => setParams(asked ? { job: asked } : {}, { replace: true, preventScrollReset: true }),
      400,
    )
    return () => clearTimeout(timer)
  }, [asked, params, setParams])
  const busy = useNavigation().state === 'submitting'
  // in the order they were chosen, which is the order new tags are given in; what is not listed is not touched
  const listed = useMemo(() => new Set(shown.map(({ cable }) => cable.id)), [shown])
  const ids = Object.keys(chosen).filter((id) => listed.has(id))
  if (plan.cables.length === 0) return <EmptyDrawer siteId={plan.site.id} />
  return (
    <>
      {actionData ? <Said answer={actionData} /> : <Arrived />}
      <Flex gap="3" mb="2" wrap="wrap" align="center">
        <Form role="search" style={{ flex: '1 1 300px' }} onSubmit={(event) => event.preventDefault()}>
          <PlainInput
            ref={box}
            name="job"
            value={text}
            onChange={(event) => setText(event.target.value)}
            placeholder="What does the job need?  40 Gb/s, at least 2 m, 100 W   ( j )"
            aria-label="What the job needs of a cable"
            aria-keyshortcuts="j"
            autoComplete="off"
            maxLength={200}
          />
        </Form>
        <Text fontSize="sm" color="quiet" aria-live="polite">
          {shown.length === rows.length ? cables(rows.length) : `${shown.length} of ${cables(rows.length)}`}
        </Text>
        <Link href={`/sites/${plan.site.id}/drawer.csv`} color="brassInk" textDecoration="underline" fontSize="sm">
          As a table (CSV)
        </Link>
      </Flex>
      <JobWords text={asked} />
      <BulkBar ids={ids} busy={busy} clear={() => setChosen({})} />
      {shown.length === 0 ? (
        <Notice tone="note">
          <Text mb="2">No cable in this drawer does that job.</Text>
          <QuietButton type="button" onClick={() => setText('')}>
            Show all of them
          </QuietButton>
        </Notice>
      ) : (
        <DrawerTable rows={rows} shown={shown} chosen={chosen} choose={setChosen} />
      )}
    </>
  )
}

/** What another page has just done. */
function Arrived() {
  const [params] = useSearchParams()
  const removed = params.get('removed')
  const added = Number(params.get('added') ?? 0)
  if (params.has('undone')) return <Said answer={{ done: 'It is as before again.', token: null }} />
  if (removed) return <Said answer={{ done: '1 cable deleted.', token: removed }} />
  return added > 0 ? <Said answer={{ done: `${cables(added)} came in.`, token: null }} /> : null
}

function Said({ answer }: { answer: Answer }) {
  const { plan } = useSite()
  const [params] = useSearchParams()
  if ('problem' in answer) return <Notice tone="blocked">{answer.problem}</Notice>
  // the list stays as narrow as it was
  const job = params.get('job')
  const back = new URLSearchParams({ ...(job ? { job } : {}), undone: '1' })
  return (
    <Notice tone="clear" slim>
      {answer.token ? (
        <Undo change={answer.token} back={`/sites/${plan.site.id}/drawer?${back}`}>
          {answer.done}
        </Undo>
      ) : (
        answer.done
      )}
    </Notice>
  )
}

/** Works out what every cable is good for while the page rests, so that the first word typed finds it ready. Answers how to stop. */
function workAhead(rows: readonly DrawerRow[]): () => void {
  let at = 0
  let timer: ReturnType<typeof setTimeout> | undefined
  const some = () => {
    const until = Math.min(rows.length, at + AT_ONCE)
    for (; at < until; at += 1) rows[at]?.text
    if (at < rows.length) timer = setTimeout(some)
  }
  timer = setTimeout(some, 200)
  return () => clearTimeout(timer)
}
/** Rows worked out in one go: a few milliseconds, which nobody notices. */
const AT_ONCE = 400

function EmptyDrawer({ siteId }: { siteId: string }) {
  const home = `/sites/${siteId}/drawer`
  return (
    <Box maxW="560px">
      <Text mb="4">
        No cable yet. Empty the drawer onto the bench. Add the first cable by its mark, read its chip, or import the
        list you have.
      </Text>
      <Flex gap="3" wrap="wrap">
        <MainButton asChild>
          <RouterLink to={`${home}/add`}>Add a cable</RouterLink>
        </MainButton>
        <QuietButton asChild>
          <RouterLink to={`${home}/import`}>From a table</RouterLink>
        </QuietButton>
        <QuietButton asChild>
          <RouterLink to={`${home}/chip`}>Ask its chip</RouterLink>
        </QuietButton>
      </Flex>
    </Box>
  )
}
