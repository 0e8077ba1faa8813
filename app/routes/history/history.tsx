import { Box, Flex, Heading, Link, Text } from '@chakra-ui/react'
import { data, Link as RouterLink, redirect, useSearchParams } from 'react-router'
import { UNDO_CHANGES, UNDO_DAYS } from '../../../core/change/undo-ends'
import { storedOf } from '../../../core/files/storage'
import { LIST_NAMES, type ListName } from '../../../core/plan/entity'
import { idField } from '../../../core/vocabulary/fields'
import { filesSize } from '../../../server/files/files'
import { historyOf, undoChange } from '../../../server/sites/history'
import { within } from '../../address'
import { readForm } from '../../read-form.server'
import { load, loadSite, reasonsOf, save, whyNotSaved } from '../../stored.server'
import { Notice, QuietButton } from '../../ui/controls'
import { RouteErrorView } from '../../ui/error-view'
import { Labelled, PlainInput } from '../../ui/field'
import { Form } from '../../ui/form'
import { useSite } from '../../ui/site-context'
import { handOf } from '../../who.server'
import { StoredLine } from '../files/stored-line'
import type { Route } from './+types/history'
import { entityNamed } from './entity-named'
import { HistoryLines } from './history-lines'

export const meta: Route.MetaFunction = () => [{ title: 'History · Hallway' }]

export async function loader({ request, params }: Route.LoaderArgs) {
  const { searchParams } = new URL(request.url)
  const { copy } = await loadSite(params.site)
  const before = Number(searchParams.get('before') ?? Number.NaN)
  const list = LIST_NAMES.find((each) => each === searchParams.get('list'))
  const id = searchParams.get('id')
  if (id !== null && !idField.safeParse(id).success) throw data(null, { status: 404 })
  const asked = searchParams.get('of')?.slice(0, 120) ?? ''
  const found = asked === '' ? null : entityNamed(copy.plan, asked)
  if (found) throw redirect(`/sites/${params.site}/history?${new URLSearchParams(found)}`)
  const stored = storedOf({ ...copy, files: await load((knex) => filesSize(knex, params.site)) })
  const page = await load((knex) =>
    historyOf(knex, params.site, copy, {
      before: Number.isInteger(before) ? before : undefined,
      of: list && id ? { list, id } : undefined,
    }),
  )
  return { ...page, asked, stored }
}

/** Undoes a change, from here or from wherever it was made; then back to where that was asked. */
export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request)
  const id = String(form.get('undo') ?? '').slice(0, 64)
  const undone = await save(async (knex) => undoChange(knex, params.site, await handOf(request, form), id))
  if (undone?.outcome === 'saved')
    return redirect(form.has('back') ? within(form.get('back')) : `/sites/${params.site}/history`)
  if (undone?.outcome === 'refused')
    return data({ problem: `Nothing was changed: ${reasonsOf(undone.faults)}` }, { status: 409 })
  const { problem, status } = whyNotSaved(undone)
  return data({ problem }, { status })
}

const listNames: Partial<Record<ListName, string>> = {
  cables: 'cable',
  runs: 'run',
  devices: 'device',
  needs: 'need',
  kinds: 'cable kind',
  sessions: 'session',
  places: 'place',
  searches: 'the search at',
  handovers: 'handover',
}

/** Everything that was changed, by whom and when; each can be undone as long as nobody has changed the same since. */
export default function History({ loaderData, actionData }: Route.ComponentProps) {
  const { plan } = useSite()
  const [params] = useSearchParams()
  const { lines, older, newer, asked, stored } = loaderData
  const list = LIST_NAMES.find((each) => each === params.get('list'))
  const id = params.get('id')
  const named = list && id ? nameOf(plan, list, id) : null
  const home = `/sites/${plan.site.id}/history`
  const olderAddress = new URLSearchParams({ ...(list && id ? { list, id } : {}), before: String(older) })
  return (
    <Box maxW="960px">
      <Heading as="h1" size="xl" mb="1">
        History{named && ` of ${listNames[list as ListName] ?? ''} ${named}`}
      </Heading>
      <Text mb="4" color="quiet">
        What was changed here, by whom and when. What nobody has changed since can be undone, up to {UNDO_CHANGES}{' '}
        changes and {UNDO_DAYS} days back; that is a change too.
        {named && (
          <>
            {' '}
            <Link asChild color="brassInk" textDecoration="underline">
              <RouterLink to={home}>All of the site</RouterLink>
            </Link>
          </>
        )}
      </Text>
      <Form action={home} role="search" aria-label="The history of one thing">
        <Flex gap="3" mb="4" align="end">
          <Labelled label="Of one run, cable, device or need" maxW="300px" flex="1">
            <PlainInput
              name="of"
              key={asked}
              defaultValue={asked}
              placeholder="its tag or name"
              maxLength={120}
              required
            />
          </Labelled>
          <QuietButton>Show</QuietButton>
        </Flex>
      </Form>
      {asked !== '' && <Notice tone="note">Nothing here is called “{asked}”. These are all changes.</Notice>}
      {actionData && <Notice tone="blocked">{actionData.problem}</Notice>}
      {lines.length === 0 ? <Text>Nothing was changed yet.</Text> : <HistoryLines lines={lines} />}
      <StoredLine stored={stored} />
      <Flex gap="3" mt="4">
        {newer && (
          <QuietButton asChild>
            <RouterLink to={list && id ? `${home}?${new URLSearchParams({ list, id })}` : home}>
              To the latest
            </RouterLink>
          </QuietButton>
        )}
        {older !== null && (
          <QuietButton asChild>
            <RouterLink to={`${home}?${olderAddress}`}>Earlier changes</RouterLink>
          </QuietButton>
        )}
      </Flex>
    </Box>
  )
}

function nameOf(plan: ReturnType<typeof useSite>['plan'], list: ListName, id: string): string {
  if (list === 'site' || list === 'policy') return ''
  // a search is called by the run it is of
  if (list === 'searches') return nameOf(plan, 'runs', plan.searches.find((each) => each.id === id)?.run ?? id)
  const items: readonly { id: string; tag?: string; name?: string | undefined }[] = plan[list]
  const item = items.find((each) => each.id === id)
  return item?.tag ?? item?.name ?? id
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  return <RouteErrorView error={error} />
}
