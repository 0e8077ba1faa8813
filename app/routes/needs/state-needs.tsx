import { Flex, Heading, Text } from '@chakra-ui/react'
import { useMemo } from 'react'
import { data, Link as RouterLink, redirect, useNavigation, useSearchParams } from 'react-router'
import { stateNeeds } from '../../../core/change/changes/needs'
import { countedSize } from '../../../core/needs/need-text'
import { presetsFor } from '../../../core/needs/presets'
import { reachableFrom } from '../../../core/path/reachable'
import { freeIds, slugOf } from '../../../core/plan/free-id'
import type { Need } from '../../../core/vocabulary/need'
import { within } from '../../address'
import { readForm } from '../../read-form.server'
import { addressWith, change, whyNotSaved } from '../../stored.server'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { MainButton, Notice } from '../../ui/controls'
import { PlainSelect } from '../../ui/field'
import { Form } from '../../ui/form'
import { useSite } from '../../ui/site-context'
import type { Route } from './+types/state-needs'
import { needFormSchema, needOf } from './need-form'
import { NeedLine } from './need-line'
import look from './needs.module.css'

/** Lines of one form at most: what one host has around it. */
const MOST_LINES = 200

type Wrong = { problem: string; lines: Readonly<Record<string, string>> }

/** States the needs that were ticked: all of them, or none where one of them cannot be read. */
export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request)
  const lines: Record<string, string> = {}
  const read = form
    .getAll('line')
    .slice(0, MOST_LINES)
    .flatMap((each) => {
      const line = String(each)
      const [from, to] = form.get(`toward-${line}`) === 'host' ? [line, form.get('host')] : [form.get('host'), line]
      const kind = form.get(`kind-${line}`)
      const { count, size } = countedSize(String(form.get(`size-${line}`) ?? ''))
      const answer = needFormSchema.safeParse({ from, to, kind, size })
      if (answer.success) return Array.from({ length: count }, () => answer.data)
      lines[line] = answer.error.issues[0]?.message ?? 'This cannot be read.'
      return []
    })
  const wrong = (problem: string, status: number) => data<Wrong>({ problem, lines }, { status })
  if (Object.keys(lines).length > 0)
    return wrong(
      'Some lines cannot be read; they say why. Nothing was saved yet, and what you typed is still here.',
      422,
    )
  if (read.length === 0) return wrong('Tick at least one need. Nothing was saved.', 422)
  const saved = await change(request, form, params.site, ({ plan }) => {
    const idOf = freeIds(plan.needs.map(({ id }) => id))
    const needs = read.map((each): Need => needOf(each, idOf(slugOf(`${each.kind} ${each.to}`, 'need')), null))
    return stateNeeds(plan, needs)
  })
  const back = form.has('back') ? within(form.get('back')) : `/sites/${params.site}/needs`
  if (saved?.outcome === 'saved') return redirect(addressWith(back, { stated: saved.id }))
  const { problem, status } = whyNotSaved(saved)
  return wrong(problem, status)
}

/** What must get through around one computer: each device its runs reach, with what is usually wanted of it. Tick, change a figure, save. */
export default function StateNeeds({ actionData }: Route.ComponentProps) {
  const { plan, index } = useSite()
  const [params, setParams] = useSearchParams()
  const saving = useNavigation().state === 'submitting'
  const hosts = useMemo(
    () => plan.devices.filter(({ id, kind }) => index.runsAt.has(id) && (kind === 'computer' || kind === 'other')),
    [plan.devices, index],
  )
  const like = index.needs.get(params.get('like') ?? '')
  const host = index.devices.get(params.get('host') ?? '') ?? hosts[0]
  const around = useMemo(
    () => (host ? reachableFrom(index, host.id).filter((device) => presetsFor(device).length > 0) : []),
    [index, host],
  )
  if (!host)
    return (
      <>
        <Heading as="h1" size="xl" mb="4">
          Add needs
        </Heading>
        <Text>
          No runs yet. Lay a run from a computer first; the devices it reaches are listed here.{' '}
          <RouterLink to={`/sites/${plan.site.id}/runs/new`} className={text.link}>
            New run
          </RouterLink>
        </Text>
      </>
    )
  return (
    <>
      <Heading as="h1" size="xl" mb="1">
        Add needs
      </Heading>
      <Text mb="4">
        Choose the computer. Everything its runs reach is listed below with the usual needs. Write a size as a figure
        (800 MB/s), a job (100 GB in 20 min) or frames (2448x2048@75 mono8). For several alike, put the number first: 2x
        3840x2160@60.
      </Text>
      <label className={text.half} htmlFor="host">
        Around{' '}
      </label>
      <PlainSelect
        id="host"
        value={host.id}
        onChange={({ currentTarget }) => setParams({ host: currentTarget.value })}
        style={{ width: 'auto', display: 'inline-block', marginBottom: '0.75rem' }}
      >
        {hosts.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </PlainSelect>
      {actionData && <Notice tone="blocked">{actionData.problem}</Notice>}
      {around.length === 0 ? (
        <Text mt="4">No run leads from {host.name} to anything that asks for something.</Text>
      ) : (
        <Form method="post" key={host.id}>
          <MadeFrom />
          <input type="hidden" name="host" value={host.id} />
          <ul className={look.suggested}>
            {around.slice(0, MOST_LINES).map((device) => (
              <NeedLine key={device.id} host={host} device={device} wrong={actionData?.lines[device.id]} like={like} />
            ))}
          </ul>
          <Flex mt="4">
            <MainButton loading={saving}>Add these needs</MainButton>
          </Flex>
        </Form>
      )}
    </>
  )
}
