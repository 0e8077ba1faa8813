import { Flex, Heading, Text } from '@chakra-ui/react'
import { useState } from 'react'
import { data, Link as RouterLink, redirect, useNavigation, useSearchParams } from 'react-router'
import { revisionOf } from '../../../core/change/change'
import {
  addDevices,
  deleteDevice,
  MOST_AT_ONCE,
  portsInTheWay,
  saveDevice,
  whatUses,
} from '../../../core/change/changes/survey'
import { LARGEST_READING_BYTES } from '../../../core/identity/device-reading'
import { byId } from '../../../core/plan/lookup'
import { portLine } from '../../../core/survey/port-line'
import { withPatches } from '../../../core/survey/take-reading'
import { passesThrough } from '../../../core/vocabulary/device'
import { laidCables, type Run } from '../../../core/vocabulary/run'
import { refused } from '../../../server/sites/change-site'
import { readFormWithFile } from '../../read-form.server'
import { addressWith, baseOf, change, loadSite, whyNotSaved } from '../../stored.server'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { MainButton, Notice, QuietButton } from '../../ui/controls'
import { ErrorView, RouteErrorView } from '../../ui/error-view'
import { Labelled, PlainSelect, plainField, TextField } from '../../ui/field'
import { Form } from '../../ui/form'
import { useSite } from '../../ui/site-context'
import { useKept } from '../../ui/use-kept'
import { readUnit } from '../../unit-cookie'
import { HistoryLink } from '../history/history-link'
import { SeenForm } from '../seen/seen-form'
import type { Route } from './+types/device'
import { DeviceFields } from './device-fields'
import { type DeviceFault, readDevice } from './device-form'
import { PortsField } from './ports-field'
import { ReadDevice, type ReadingAnswer } from './read-device'
import { readPatches, readReading } from './read-device.server'
import look from './survey.module.css'

export async function loader({ params }: Route.LoaderArgs) {
  const { copy } = await loadSite(params.site)
  if (!byId(copy.plan.devices).has(params.device)) throw data(null, { status: 404 })
  return null
}

/** So many copies are named to the page that tells of them. */
const MOST_NAMED = 12

/** A log that is longer is chosen as a file. */
const LONGEST_PASTED = 2_000_000

export const action = ({ request, params }: Route.ActionArgs) =>
  readFormWithFile(request, { file: LARGEST_READING_BYTES, longest: LONGEST_PASTED }, async (form, file) => {
    const wrong = (problem: string, status = 422, lines: DeviceFault['lines'] = []) =>
      data<DeviceFault>({ problem, lines }, { status })
    const intent = form.get('intent')
    const count = Number(form.get('count') ?? 1)
    if (intent === 'copy' && !(Number.isInteger(count) && count >= 1 && count <= MOST_AT_ONCE))
      return wrong(`Say how many: 1 to ${MOST_AT_ONCE}. Nothing was saved.`)
    if (intent === 'read') return readReading(form, file, params.site, params.device)
    let fault: DeviceFault | null = null
    const saved = await change(request, form, params.site, ({ plan }) => {
      const device = byId(plan.devices).get(params.device)
      if (!device) return refused('device', 'the device is no longer there')
      if (intent === 'delete') {
        const held = whatUses(plan, device)
        return held.length > 0 ? { outcome: 'refused', faults: held } : deleteDevice(device, baseOf(form))
      }
      if (intent === 'copy') {
        const { id: _, at: __, seen: ___, ...rest } = device
        return addDevices(plan, rest, count)
      }
      if (intent === 'accept') {
        const patches = readPatches(form)
        return patches.length > 0
          ? saveDevice(withPatches(device, patches), baseOf(form))
          : refused('device', 'nothing of what was read is ticked')
      }
      const made = readDevice(form, device, readUnit(request))
      if (!made.ok) {
        fault = { problem: made.problem, lines: 'lines' in made ? made.lines : [] }
        return refused('ports', made.problem)
      }
      const next = { ...made.value, id: device.id }
      const gone = portsInTheWay(plan, next)
      return gone.length > 0 ? { outcome: 'refused', faults: gone } : saveDevice(next, baseOf(form))
    })
    if (saved?.outcome === 'saved')
      return redirect(
        intent === 'delete'
          ? addressWith(`/sites/${params.site}/survey`, { deleted: saved.id })
          : intent === 'copy'
            ? addressWith(`/sites/${params.site}/survey`, {
                added: saved.id,
                new: saved.edits
                  .flatMap(({ list, id }) => (list === 'devices' ? id : []))
                  .slice(0, MOST_NAMED)
                  .join(' '),
              })
            : `/sites/${params.site}/survey/${params.device}?done=saved`,
      )
    const told = fault as DeviceFault | null
    if (told) return wrong(told.problem, 422, told.lines)
    const { problem, status } = whyNotSaved(saved)
    return wrong(problem, status)
  })

/** One device: what it is, where it stands, and what each of its ports does. */
export default function DevicePage({ params, actionData }: Route.ComponentProps) {
  const { plan, index, place, revisions } = useSite()
  const device = index.devices.get(params.device)
  const stamp = String(revisionOf({ revisions }, 'devices', params.device))
  const { made, behind, type, round } = useKept({ stamp, device, place })
  const done = useSearchParams()[0].get('done')
  if (!device || !made.device) return <ErrorView status={404} />
  const runs = index.runsAt.get(device.id) ?? []
  return (
    <>
      <Heading as="h1" size="xl" mb="2">
        {device.name}
      </Heading>
      {done && (
        <Notice tone="clear" slim>
          {device.name} is saved.
        </Notice>
      )}
      {behind && (
        <Notice tone="note" slim>
          This device was changed meanwhile. What you typed is still here; saving keeps both, or says where both of you
          changed the same.
        </Notice>
      )}
      {actionData?.problem && <Notice tone="blocked">{actionData.problem}</Notice>}
      <p className={`${text.small} ${look.links}`}>
        {runs.length > 0 ? 'Runs at it: ' : 'No run ends at it yet. '}
        {runs.map(({ id, tag }) => (
          <span key={id}>
            <RouterLink to={`/sites/${plan.site.id}/runs/${id}`} className={`${text.link} ${text.mono}`}>
              {tag}
            </RouterLink>{' '}
          </span>
        ))}
        {passesThrough(device) && runs.length > 0 && (
          <RouterLink to={`/sites/${plan.site.id}/docks/${device.id}`} className={text.link}>
            what its uplink carries
          </RouterLink>
        )}{' '}
        {runs.length > 0 && (
          <RouterLink to={`/sites/${plan.site.id}/faults?device=${device.id}`} className={text.link}>
            something is wrong here
          </RouterLink>
        )}
      </p>
      <DeviceEditor
        key={round}
        device={made.device}
        base={behind ? made.place : place}
        wrong={actionData?.lines ?? []}
        type={type}
      />
      <SeenAtDevice runs={runs} />
      <ReadDevice device={device} answer={readingIn(actionData)} />
      <Flex gap="5" align="end" wrap="wrap" mt="5" pt="4" borderTop="1px solid" borderColor="line">
        <Form method="post" className={look.place}>
          <MadeFrom />
          <TextField
            field={plainField('count', '1')}
            label="More like this, how many"
            type="number"
            min={1}
            max={MOST_AT_ONCE}
          />
          <QuietButton name="intent" value="copy">
            Add them
          </QuietButton>
        </Form>
        <Form method="post">
          <MadeFrom />
          <QuietButton name="intent" value="delete" grave>
            Delete the device
          </QuietButton>
        </Form>
        <Text fontSize="sm" color="quiet">
          You can undo this.
        </Text>
        <HistoryLink list="devices" id={device.id} />
      </Flex>
    </>
  )
}

/** What was seen at one of its runs, written down from here; the answer comes on the run's own page. */
function SeenAtDevice({ runs }: { runs: readonly Run[] }) {
  const { plan } = useSite()
  const laid = runs.filter(({ leads }) => leads.length > 0 && laidCables({ leads }).length === leads.length)
  const [chosen, setChosen] = useState('')
  const run = laid.find(({ id }) => id === chosen) ?? laid[0]
  if (!run) return null
  return (
    <details className={look.byFields}>
      <summary>Write down what you saw at it</summary>
      <Labelled label="On the run">
        <PlainSelect value={run.id} onChange={({ target }) => setChosen(target.value)}>
          {laid.map(({ id, tag }) => (
            <option key={id} value={id}>
              {tag}
            </option>
          ))}
        </PlainSelect>
      </Labelled>
      <SeenForm
        key={run.id}
        subject={{ run: run.id, leads: laidCables(run) }}
        from={run.from}
        to={run.to}
        action={`/sites/${plan.site.id}/runs/${run.id}`}
      />
    </details>
  )
}

const readingIn = (answer: object | undefined): ReadingAnswer | null =>
  answer && 'reading' in answer ? (answer.reading as ReadingAnswer) : null

function DeviceEditor({
  device,
  base,
  wrong,
  type,
}: {
  device: NonNullable<ReturnType<typeof useSite>['plan']['devices'][number]>
  base: number
  wrong: DeviceFault['lines']
  type: () => void
}) {
  const saving = useNavigation().state === 'submitting'
  const [ports, setPorts] = useState(device.ports.map(portLine).join('\n'))
  return (
    <Form method="post" onInput={type}>
      <MadeFrom base={base} />
      <DeviceFields device={device} />
      <PortsField value={ports} put={setPorts} wrong={wrong} />
      <Flex mt="3">
        <MainButton loading={saving}>Save the device</MainButton>
      </Flex>
    </Form>
  )
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  return <RouteErrorView error={error} />
}
