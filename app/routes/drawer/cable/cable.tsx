import { Box, Flex, Grid, Heading, Link, Text } from '@chakra-ui/react'
import { data, Link as RouterLink, redirect, useSearchParams } from 'react-router'
import { deleteCables, standCables, whatHolds } from '../../../../core/change/changes/cables'
import { conflictSentence } from '../../../../core/checks/wording'
import { cautionSentence, cautionsOf } from '../../../../core/drawer/cable-cautions'
import { unexplainedSentence } from '../../../../core/drawer/unexplained-sentence'
import { abilitiesOf } from '../../../../core/link/abilities'
import { triedLead } from '../../../../core/link/lay'
import { basisNames } from '../../../../core/observe/basis'
import { observationsOf } from '../../../../core/observe/learned'
import { unexplainedOf } from '../../../../core/observe/unexplained'
import { byId } from '../../../../core/plan/lookup'
import type { Plan } from '../../../../core/plan/plan'
import type { indexPlan } from '../../../../core/plan/site-index'
import { formatWatts } from '../../../../core/quantity/watts'
import { describeEnd } from '../../../../core/standards/connectors'
import { shortCode } from '../../../../core/tags/short-code'
import type { Cable } from '../../../../core/vocabulary/cable'
import { refused as gone, unlessSo } from '../../../../server/sites/change-site'
import { readForm } from '../../../read-form.server'
import { addressWith, baseOf, change, loadSite, whyNotSaved } from '../../../stored.server'
import { MadeFrom } from '../../../ui/change-fields'
import { Notice, QuietButton } from '../../../ui/controls'
import { ErrorView, RouteErrorView } from '../../../ui/error-view'
import { Form } from '../../../ui/form'
import { DoorGlyph } from '../../../ui/grade'
import { useSite } from '../../../ui/site-context'
import { Length, useUnit } from '../../../ui/units'
import { UseDoor } from '../../../ui/use-door'
import { HistoryLink } from '../../history/history-link'
import { saveRetraction, saveSeen } from '../../seen/save-seen.server'
import type { Route } from './+types/cable'
import { CableEdit } from './cable-edit'
import { CableObservations } from './cable-observations'
import { CableRecord } from './cable-record'
import { CableVolts } from './cable-volts'
import { DoorList } from './door-list'
import { type CableSaveAnswer, saveCableForm } from './save-cable.server'

/** What was observed of the cable: the site brings what it comes to, this page shows each piece. */
export async function loader({ params }: Route.LoaderArgs) {
  const { copy } = await loadSite(params.site)
  if (!copy.plan.cables.some(({ id }) => id === params.cable)) throw data(null, { status: 404 })
  return { observations: observationsOf(copy.plan, { cable: params.cable }) }
}

export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request)
  const here = `/sites/${params.site}/cables/${encodeURIComponent(params.cable)}`
  const intent = form.get('intent')
  switch (intent) {
    case 'seen':
      return saveSeen(request, form, { site: params.site, done: `${here}?done=read` }, (plan) => seenOf(plan, params))
    case 'retract':
      return saveRetraction(request, form, { site: params.site, done: `${here}?done=retracted` }, (plan) =>
        seenOf(plan, params),
      )
    case 'delete':
    case 'retired':
    case 'drawer': {
      const changed = await change(request, form, params.site, ({ plan }) => {
        const cables = plan.cables.filter(({ id }) => id === params.cable)
        if (cables.length === 0) return gone('cable', 'this cable is no longer there')
        if (intent !== 'delete') return unlessSo(standCables(cables, baseOf(form), intent))
        const held = cables.flatMap((cable) => whatHolds(plan, cable))
        return held.length > 0 ? { outcome: 'refused', faults: held } : deleteCables(plan, cables, baseOf(form))
      })
      if (changed?.outcome !== 'saved') return refused(changed)
      return redirect(intent === 'delete' ? addressWith(`/sites/${params.site}/drawer`, { removed: changed.id }) : here)
    }
    default:
      return saveCableForm(form, request, params)
  }
}

function seenOf(plan: Plan, params: { cable: string }) {
  const cable = byId(plan.cables).get(params.cable)
  return cable ? { subject: { cable: cable.id }, tag: cable.tag } : null
}

function refused(answer: Parameters<typeof whyNotSaved>[0]) {
  const { problem, status } = whyNotSaved(answer)
  return data<CableSaveAnswer>({ problem }, { status })
}

/** One cable: what it is good for at its length, who says so, what it did, and what to take care of. */
export default function CablePage({ loaderData, actionData, params }: Route.ComponentProps) {
  const { index } = useSite()
  const cable = index.cables.get(params.cable)
  if (!cable) return <ErrorView status={404} />
  const { observations } = loaderData
  const problem = actionData?.problem
  return (
    <>
      <Head cable={cable} index={index} />
      {problem && <Notice tone="blocked">{problem}</Notice>}
      <Done tag={cable.tag} />
      <Cautions cable={cable} index={index} />
      <Grid templateColumns={{ base: '1fr', lg: '300px 1fr' }} gap="8" alignItems="start">
        <Box as="section" aria-labelledby="good-for">
          <Heading as="h2" size="md" id="good-for" mb="2">
            Doors at <Length metres={cable.length} brief />
          </Heading>
          <DoorList index={index} cable={cable} />
          <CablePower cable={cable} index={index} />
          <CableVolts cable={cable} observations={observations} />
        </Box>
        <Box minW="0">
          <CableObservations cable={cable} index={index} observations={observations} />
          <CableRecord cable={cable} index={index} />
          <CableEdit key={cable.id} cable={cable} lastResult={actionData?.result} clash={actionData?.clash} />
        </Box>
      </Grid>
    </>
  )
}

type Shown = { cable: Cable; index: ReturnType<typeof indexPlan> }

function Head({ cable, index }: Shown) {
  const unit = useUnit()
  const abilities = abilitiesOf(index, cable)
  const home = `/sites/${index.plan.site.id}/drawer`
  const run = index.runOf.get(cable.id)
  const retired = cable.standing === 'retired'
  const [one, other] = cable.ends.map(describeEnd)
  const kind = cable.kind ? index.kinds.get(cable.kind)?.name : undefined
  const supplier = cable.suppliedWith ? index.devices.get(cable.suppliedWith)?.name : undefined
  return (
    <Flex gap="4" mb="4" wrap="wrap" align="center">
      <Box flex="1 1 420px">
        <Flex gap="4">
          <Link asChild fontSize="sm" color="brassInk" textDecoration="underline">
            <RouterLink to={home}>Drawer</RouterLink>
          </Link>
          <HistoryLink list="cables" id={cable.id} />
        </Flex>
        <Flex align="center" gap="4" wrap="wrap">
          <Heading as="h1" size="2xl" fontFamily="mono">
            {cable.tag}
          </Heading>
          <Box fontSize="lg">
            <UseDoor abilities={abilities} size={32} />
          </Box>
          <Box fontFamily="mono" bg="floor" px="2" borderRadius="2px" title="What to write on its tag">
            {shortCode(abilities, unit)}
          </Box>
        </Flex>
        <Text mt="1">
          {one} {cable.oneWay ? 'to' : 'and'} {other}
          {cable.oneWay && ', one way'}, {cable.construction}, <Length metres={cable.length} />
          {kind && `, ${kind}`}
          {supplier && `, came with ${supplier}`}.{' '}
          {run ? (
            <>
              It lies in run{' '}
              <Link asChild color="brassInk" textDecoration="underline" fontFamily="mono" fontWeight="700">
                <RouterLink to={`/sites/${index.plan.site.id}/runs/${run.id}`}>{run.tag}</RouterLink>
              </Link>
              .
            </>
          ) : (
            { drawer: 'It is in the drawer.', lent: 'It is lent.', retired: 'It is retired.' }[cable.standing]
          )}
        </Text>
        {cable.note && <Text color="quiet">{cable.note}</Text>}
      </Box>
      <Flex gap="2" wrap="wrap">
        <QuietButton asChild>
          <RouterLink to={`${home}/tags?${new URLSearchParams({ cables: cable.id })}`}>Print its tags</RouterLink>
        </QuietButton>
        <QuietButton asChild>
          <RouterLink to={`${home}/sessions/new?${new URLSearchParams({ cables: cable.id })}`}>Test it</RouterLink>
        </QuietButton>
        {run && (
          <QuietButton asChild>
            <RouterLink to={`/sites/${index.plan.site.id}/faults?run=${run.id}`}>Something is wrong with it</RouterLink>
          </QuietButton>
        )}
        <Form method="post">
          <MadeFrom />
          <QuietButton name="intent" value={retired ? 'drawer' : 'retired'}>
            {retired ? 'Back in the drawer' : 'Retire'}
          </QuietButton>
        </Form>
      </Flex>
    </Flex>
  )
}

function Cautions({ cable, index }: Shown) {
  const { known } = abilitiesOf(index, cable)
  const cautions = [...cautionsOf(cable, known)].map(cautionSentence)
  const conflicts = known.conflicts.map((conflict) => conflictSentence(conflict, cable.tag))
  const crossing = [...unexplainedOf(known, triedLead(index, cable))].map((each) => unexplainedSentence(each, index))
  const all = [...conflicts, ...crossing, ...cautions]
  if (all.length === 0) return null
  return (
    <Box as="section" aria-label="Take care" mb="5">
      {all.map((text) => (
        <Flex key={text} gap="2" py="1.5" px="3" mb="1" {...toneOf(known.hot !== null)}>
          <DoorGlyph grade={known.hot ? 'blocked' : 'tight'} />
          <Text>{text}</Text>
        </Flex>
      ))}
    </Box>
  )
}

const toneOf = (blocked: boolean) =>
  ({
    borderLeft: '4px solid',
    ...(blocked ? { bg: 'blockedFloor', borderColor: 'blocked' } : { bg: 'tightFloor', borderColor: 'tight' }),
  }) as const

function CablePower({ cable, index }: Shown) {
  const { watts, picture, known } = abilitiesOf(index, cable)
  const rows: [string, string, string][] = [
    ['Picture', picture ? picture.name : 'none', basisNames[known.grade.basis]],
    ['Power', watts > 0 ? `up to ${formatWatts(watts)}` : 'none', basisNames[known.amps.basis]],
  ]
  return (
    <Box as="dl" mt="3" fontSize="sm">
      {rows.map(([name, value, by]) => (
        <Box key={name} mb="1">
          <Box as="dt" display="inline" fontWeight="700">
            {name}:{' '}
          </Box>
          <Box as="dd" display="inline">
            {value}{' '}
            <Box as="span" color="quiet">
              ({by})
            </Box>
          </Box>
        </Box>
      ))}
    </Box>
  )
}

function Done({ tag }: { tag: string }) {
  const [params] = useSearchParams()
  const done = params.get('done')
  if (!done) return null
  return (
    <Notice tone="clear" slim>
      {done === 'read'
        ? `What you saw of ${tag} is saved.`
        : done === 'retracted'
          ? 'Taken back. It no longer counts.'
          : `${tag} is saved.`}
    </Notice>
  )
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  return <RouteErrorView error={error} />
}
