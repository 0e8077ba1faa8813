import { Box, Flex, Grid, Heading, Link, Text } from '@chakra-ui/react'
import { data, Form, isRouteErrorResponse, Link as RouterLink, redirect, useSearchParams } from 'react-router'
import { conflictSentence } from '../../../core/checks/sentences'
import { cautionSentence, cautionsOf } from '../../../core/drawer/cable-cautions'
import { abilitiesOf } from '../../../core/link/abilities'
import { basisNames } from '../../../core/link/known'
import type { Cable } from '../../../core/plan/cable'
import type { indexPlan } from '../../../core/plan/site-index'
import { formatWatts } from '../../../core/quantity/watts'
import { describeEnd } from '../../../core/standards/connectors'
import { shortCode } from '../../../core/tags/short-code'
import { changeCables, revisionOfCable } from '../../../server/sites/cables'
import { load, save, whyNotSaved } from '../../stored.server'
import { Notice, QuietButton } from '../../ui/controls'
import { ErrorView } from '../../ui/error-view'
import { DoorGlyph } from '../../ui/grade'
import { useSite } from '../../ui/site-context'
import { Length, useUnit } from '../../ui/units'
import { UseDoor } from '../../ui/use-door'
import type { Route } from './+types/cable'
import { CableEdit } from './cable-edit'
import { CableEvidence } from './cable-evidence'
import { CableRecord } from './cable-record'
import { CableVolts } from './cable-volts'
import { DoorList } from './door-list'
import { saveCableForm, saveTrialForm } from './save-cable.server'

/** The revision the form is made from. The plan itself comes with the site. */
export async function loader({ params }: Route.LoaderArgs) {
  const base = await load((knex) => revisionOfCable(knex, params.site, params.cable))
  if (base === null) throw data(null, { status: 404 })
  return { base }
}

export async function action({ request, params }: Route.ActionArgs) {
  const form = await request.formData()
  const here = `/sites/${params.site}/cables/${encodeURIComponent(params.cable)}`
  switch (form.get('intent')) {
    case 'trial':
      return saveTrialForm(form, params)
    case 'delete': {
      const changed = await save((knex) => changeCables(knex, params.site, [params.cable], { change: 'delete' }))
      if (changed?.outcome === 'changed')
        return redirect(`/sites/${params.site}/drawer?${new URLSearchParams({ removed: changed.token })}`)
      return refused(changed)
    }
    case 'retired':
    case 'drawer': {
      const standing = form.get('intent') === 'retired' ? 'retired' : 'drawer'
      const changed = await save((knex) =>
        changeCables(knex, params.site, [params.cable], { change: 'stand', standing }),
      )
      return changed?.outcome === 'changed' ? redirect(here) : refused(changed)
    }
    default:
      return saveCableForm(form, request, params)
  }
}

function refused(answer: Parameters<typeof whyNotSaved>[0]) {
  const { problem, status } = whyNotSaved(answer)
  return data({ problem }, { status })
}

/** One cable: what it is good for at its length, who says so, what it did, and what to take care of. */
export default function CablePage({ loaderData, actionData, params }: Route.ComponentProps) {
  const { index, revision } = useSite()
  const cable = index.cables.get(params.cable)
  if (!cable) return <ErrorView status={404} />
  const problem = actionData && 'problem' in actionData ? actionData.problem : null
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
          <CableVolts cable={cable} />
        </Box>
        <Box minW="0">
          <CableEvidence cable={cable} index={index} />
          <CableRecord cable={cable} index={index} />
          <CableEdit
            key={`${cable.id} ${revision}`}
            cable={cable}
            base={loaderData.base}
            lastResult={actionData && 'result' in actionData ? actionData.result : undefined}
          />
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
        <Link asChild fontSize="sm" color="brassInk" textDecoration="underline">
          <RouterLink to={home}>Drawer</RouterLink>
        </Link>
        <Flex align="center" gap="4" wrap="wrap">
          <Heading as="h1" size="2xl" fontFamily="mono">
            {cable.tag}
          </Heading>
          <Box fontSize="lg">
            <UseDoor abilities={abilities} size={32} />
          </Box>
          <Box fontFamily="mono" bg="floor" px="2" borderRadius="2px" title="What stands on its tag">
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
        <Form method="post">
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
  const all = [...conflicts, ...cautions]
  if (all.length === 0) return null
  return (
    <Box as="section" aria-label="Take care" mb="5">
      {all.map((text) => (
        <Flex key={text} gap="2" py="1.5" px="3" mb="1" bg="tightFloor" borderLeft="4px solid" borderColor="tight">
          <DoorGlyph grade="tight" />
          <Text>{text}</Text>
        </Flex>
      ))}
    </Box>
  )
}

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
    <Notice tone="clear" py="2">
      {done === 'read' ? `What you saw of ${tag} is written down.` : `${tag} is saved.`}
    </Notice>
  )
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  return <ErrorView status={isRouteErrorResponse(error) ? error.status : 500} />
}
