import { Flex, Heading, Text } from '@chakra-ui/react'
import { useMemo, useState } from 'react'
import { data, Form, Link as RouterLink, redirect, useNavigation, useSearchParams } from 'react-router'
import { addDevices, deletePlace, MOST_AT_ONCE, savePlace } from '../../../core/change/changes/survey'
import { freeIds, slugOf } from '../../../core/plan/free-id'
import { byId } from '../../../core/plan/lookup'
import type { Place, Plan } from '../../../core/plan/plan'
import { devicesByPlace } from '../../../core/plan/site-index'
import { readMains } from '../../../core/survey/mains-text'
import { portLine } from '../../../core/survey/port-line'
import { fromTemplate, templates } from '../../../core/survey/templates'
import type { Device } from '../../../core/vocabulary/device'
import { nameField } from '../../../core/vocabulary/fields'
import { refused } from '../../../server/sites/change-site'
import { readForm } from '../../read-form.server'
import { addressWith, baseOf, change, whyNotSaved } from '../../stored.server'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { MainButton, Notice, QuietButton } from '../../ui/controls'
import { LabelledField, PlainSelect, plainField, TextField } from '../../ui/field'
import { LongTable, type RowProps } from '../../ui/long-table'
import { MainsField } from '../../ui/mains-field'
import { useSite } from '../../ui/site-context'
import { Undo } from '../../ui/undo'
import { readUnit } from '../../unit-cookie'
import type { Route } from './+types/survey'
import { DeviceFields } from './device-fields'
import { type DeviceFault, readDevice } from './device-form'
import { PortsField } from './ports-field'
import look from './survey.module.css'

export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request)
  const wrong = (problem: string, status = 422, lines: DeviceFault['lines'] = []) =>
    data<DeviceFault>({ problem, lines }, { status })
  const intent = form.get('intent')
  if (intent === 'devices') {
    const template = templates.find(({ name }) => name === form.get('template'))
    const made = readDevice(form, template ? { ...fromTemplate(template), ports: [] } : null, readUnit(request))
    if (!made.ok) return wrong(made.problem, 422, 'lines' in made ? made.lines : [])
    const count = Number(form.get('count') ?? 1)
    if (!Number.isInteger(count) || count < 1 || count > MOST_AT_ONCE)
      return wrong(`Say how many: 1 to ${MOST_AT_ONCE}. Nothing was saved.`)
    const saved = await change(request, form, params.site, ({ plan }) => addDevices(plan, made.value, count))
    if (saved?.outcome === 'saved') return redirect(addressWith(`/sites/${params.site}/survey`, { added: saved.id }))
    const { problem, status } = whyNotSaved(saved)
    return wrong(problem, status)
  }
  const read = nameField.safeParse(form.get('placeName'))
  const saved = await change(request, form, params.site, ({ plan }) => {
    const place = byId(plan.places).get(String(form.get('place') ?? ''))
    if (intent === 'no place')
      return place ? deletePlace(place, baseOf(form)) : refused('place', 'it is no longer there')
    if (!read.success) return refused('place', 'a place needs a name')
    if (!place && form.get('place')) return refused('place', 'it is no longer there')
    const mains = readMains(String(form.get('mains') ?? '')) ?? 'not known'
    if (place) return savePlace({ ...place, name: read.data, mains }, baseOf(form))
    const id = freeIds(plan.places.map((each) => each.id))(slugOf(read.data, 'place'))
    return savePlace({ id, name: read.data, mains }, null)
  })
  if (saved?.outcome === 'saved') return redirect(`/sites/${params.site}/survey`)
  const { problem, status } = whyNotSaved(saved)
  return wrong(problem, status)
}

type SurveyRow = { kind: 'place'; place: Place | null; count: number } | { kind: 'device'; device: Device }
const keyOf = (row: SurveyRow): string => (row.kind === 'place' ? `place ${row.place?.id ?? ''}` : row.device.id)

/** Survey: the places, what stands there, and what each of its ports does. */
export default function Survey({ actionData }: Route.ComponentProps) {
  const { plan } = useSite()
  const [params] = useSearchParams()
  const added = params.get('added')
  const deleted = params.get('deleted')
  const told = added ?? deleted
  const rows = useMemo((): SurveyRow[] => {
    const at = devicesByPlace(plan.devices)
    const loose = at.get('') ?? []
    return [
      ...plan.places.flatMap((place): SurveyRow[] => {
        const own = at.get(place.id) ?? []
        return [
          { kind: 'place', place, count: own.length },
          ...own.map((device) => ({ kind: 'device', device }) as const),
        ]
      }),
      ...(loose.length > 0 ? [{ kind: 'place', place: null, count: loose.length } as const] : []),
      ...loose.map((device) => ({ kind: 'device', device }) as const),
    ]
  }, [plan.places, plan.devices])
  return (
    <>
      <Heading as="h1" size="xl" mb="3">
        Survey
      </Heading>
      {told && (
        <Notice tone={added ? 'clear' : 'note'}>
          <Undo change={told} back={`/sites/${plan.site.id}/survey`}>
            {added ? 'Added to the survey.' : 'Deleted from the survey.'}
          </Undo>
        </Notice>
      )}
      {actionData && <Notice tone="blocked">{actionData.problem}</Notice>}
      {plan.devices.length === 0 && (
        <Text mb="3" maxW="640px">
          Start with a place, then add the devices at it: pick a usual one, or type its ports from the data sheet. Then
          lay runs between their ports (Match), and add what must get through (Needs).
        </Text>
      )}
      <p className={`${text.small} ${look.links}`}>
        <RouterLink to={`/sites/${plan.site.id}/floors`} className={text.link}>
          Floors and pathways
        </RouterLink>
        : how far it is.{' '}
        <RouterLink to={`/sites/${plan.site.id}/walk`} className={text.link}>
          Walk it
        </RouterLink>
        : what is still to be looked at, place by place.{' '}
        <RouterLink to={`/sites/${plan.site.id}/tables`} className={text.link}>
          Tables
        </RouterLink>
        : all of it in and out as CSV.
      </p>
      <NewPlace />
      <NewDevices wrong={actionData?.lines ?? []} key={`${plan.devices.length} ${added}`} />
      {rows.length > 0 && (
        <LongTable
          label="Places and devices"
          columns={['Device', 'What it is', 'Ports', 'Runs']}
          rows={rows}
          keyOf={keyOf}
        >
          {(row, props) =>
            row.kind === 'place' ? (
              <PlaceLine key={keyOf(row)} place={row.place} count={row.count} props={props} />
            ) : (
              <DeviceLine key={row.device.id} device={row.device} props={props} />
            )
          }
        </LongTable>
      )}
    </>
  )
}

function NewPlace() {
  const saving = useNavigation().state === 'submitting'
  const { plan } = useSite()
  return (
    <Form method="post" className={look.place} key={plan.places.length}>
      <MadeFrom />
      <TextField field={plainField('placeName')} label="A new place" required maxLength={120} />
      <MainsField mains={true} />
      <QuietButton name="intent" value="place" loading={saving}>
        Add the place
      </QuietButton>
    </Form>
  )
}

/** A device, or several alike, from a usual one or from its own lines. */
function NewDevices({ wrong }: { wrong: DeviceFault['lines'] }) {
  const { plan } = useSite()
  const saving = useNavigation().state === 'submitting'
  const [name, setName] = useState(templates[0]?.name ?? '')
  const [ports, setPorts] = useState((templates[0]?.lines ?? []).join('\n'))
  const template = templates.find((each) => each.name === name)
  // whoever has just put one here has more to put, most often beside it
  const adding = useSearchParams()[0].has('added')
  const beside = usualPlace(plan)
  const groups = [...new Set(templates.map(({ group }) => group))]
  return (
    <details className={look.newDevices} open={plan.devices.length === 0 || adding}>
      <summary>Add a device</summary>
      <Form method="post">
        <MadeFrom />
        <input type="hidden" name="intent" value="devices" />
        <div className={look.fields}>
          <LabelledField field={plainField('template')} label="Begin from">
            <PlainSelect
              id="field-template"
              name="template"
              value={name}
              onChange={({ currentTarget }) => {
                const chosen = templates.find((each) => each.name === currentTarget.value)
                setName(currentTarget.value)
                setPorts((chosen?.lines ?? []).join('\n'))
              }}
            >
              <option value="">nothing, port by port</option>
              {groups.map((group) => (
                <optgroup key={group} label={group}>
                  {templates
                    .filter((each) => each.group === group)
                    .map((each) => (
                      <option key={each.name}>{each.name}</option>
                    ))}
                </optgroup>
              ))}
            </PlainSelect>
          </LabelledField>
          <TextField field={plainField('count', '1')} label="How many" type="number" min={1} max={MOST_AT_ONCE} />
        </div>
        <DeviceFields
          key={`${name} ${plan.devices.length} ${beside}`}
          device={{
            ...(template ? fromTemplate(template) : { name: '', kind: 'computer', busPowered: false, ports: [] }),
            ...(beside === '' ? {} : { place: beside }),
          }}
        />
        <PortsField value={ports} put={setPorts} wrong={wrong} />
        <Flex mt="3" mb="4">
          <MainButton loading={saving}>Add to the survey</MainButton>
        </Flex>
      </Form>
    </details>
  )
}

/** Where the next device is likely to stand: at a place that is new and empty, else where the last one does. */
function usualPlace({ places, devices }: Plan): string {
  const last = places.at(-1)
  if (last && !devices.some(({ place }) => place === last.id)) return last.id
  return devices.at(-1)?.place ?? ''
}

function PlaceLine({ place, count, props }: { place: Place | null; count: number; props: RowProps }) {
  const { plan } = useSite()
  const [editing, setEditing] = useState(false)
  return (
    <tr {...props} className={look.placeLine}>
      <th colSpan={4} scope="rowgroup">
        {place && editing ? (
          <Form method="post" className={look.place} onSubmit={() => setEditing(false)}>
            <MadeFrom />
            <input type="hidden" name="place" value={place.id} />
            <TextField
              field={{ ...plainField('placeName', place.name), id: `name-${place.id}` }}
              label="Name of the place"
              required
              maxLength={120}
            />
            <MainsField mains={place.mains} />
            <QuietButton name="intent" value="place">
              Save the place
            </QuietButton>
            {count === 0 && (
              <QuietButton name="intent" value="no place" grave>
                Delete the place
              </QuietButton>
            )}
          </Form>
        ) : (
          <>
            {place?.name ?? 'No place yet'}{' '}
            <span className={text.quiet}>
              {count} {count === 1 ? 'device' : 'devices'}
              {place && place.mains !== true ? `, mains ${place.mains ? 'not known' : 'not within reach'}` : ''}
            </span>{' '}
            {place && (
              <QuietButton type="button" small onClick={() => setEditing(true)} aria-label={`Edit ${place.name}`}>
                Edit
              </QuietButton>
            )}{' '}
            {place && count > 0 && (
              <QuietButton asChild small>
                <RouterLink to={`/sites/${plan.site.id}/needs?copy=${place.id}#copy-place`}>
                  Copy<span className={text.hidden}> {place.name}</span>
                </RouterLink>
              </QuietButton>
            )}
          </>
        )}
      </th>
    </tr>
  )
}

/** So many ports are written out in a row. */
const PORTS_TOLD = 4

function DeviceLine({ device, props }: { device: Device; props: RowProps }) {
  const { plan, index } = useSite()
  const runs = index.runsAt.get(device.id)?.length ?? 0
  return (
    <tr {...props}>
      <td className={text.wide}>
        <RouterLink to={`/sites/${plan.site.id}/survey/${device.id}`} className={`${text.link} ${text.strong}`}>
          {device.name}
        </RouterLink>
      </td>
      <td>{device.kind}</td>
      <td className={`${text.mono} ${text.tiny}`}>
        {device.ports.slice(0, PORTS_TOLD).map((port) => (
          <span key={port.id} className={text.block}>
            {portLine(port)}
          </span>
        ))}
        {device.ports.length > PORTS_TOLD && `and ${device.ports.length - PORTS_TOLD} more`}
        {device.ports.length === 0 && 'none yet'}
      </td>
      <td>{runs === 0 ? '' : runs}</td>
    </tr>
  )
}
