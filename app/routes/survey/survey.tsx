import { Heading, Text } from '@chakra-ui/react'
import { useEffect, useMemo, useState } from 'react'
import { data, Link as RouterLink, redirect, useSearchParams } from 'react-router'
import { z } from 'zod'
import {
  addDevices,
  addPlaces,
  addSurvey,
  deletePlace,
  MOST_AT_ONCE,
  savePlace,
} from '../../../core/change/changes/survey'
import { byId } from '../../../core/plan/lookup'
import type { Place, Plan } from '../../../core/plan/plan'
import { devicesByPlace } from '../../../core/plan/site-index'
import { type LengthUnit, parseLength } from '../../../core/quantity/length'
import { type Parsed, parsed } from '../../../core/quantity/parsed'
import { MOST_SURVEY_LINES, parseSurveyLines } from '../../../core/survey/device-line'
import { readMains } from '../../../core/survey/mains-text'
import { fromTemplate, templates } from '../../../core/survey/templates'
import type { Device } from '../../../core/vocabulary/device'
import { nameField } from '../../../core/vocabulary/fields'
import { type Outcome, refused } from '../../../server/sites/change-site'
import { readForm } from '../../read-form.server'
import { addressWith, baseOf, change, whyNotSaved } from '../../stored.server'
import text from '../../theme/text.module.css'
import { Notice } from '../../ui/controls'
import { lengthText } from '../../ui/form-text'
import { LongTable } from '../../ui/long-table'
import { useSite } from '../../ui/site-context'
import { Undo } from '../../ui/undo'
import { readUnit } from '../../unit-cookie'
import type { Route } from './+types/survey'
import { type DeviceFault, readDevice } from './device-form'
import { NeedsOfNew } from './needs-of-new'
import { NewDevices } from './new-devices'
import { NewPlace } from './new-place'
import look from './survey.module.css'
import { SurveyLines } from './survey-lines'
import { DeviceLine, PlaceLine } from './survey-rows'

/** The way to the outlet as a form says it; one that was not touched stays as it was, to the millimetre. */
function readOutlet(form: FormData, unit: LengthUnit, before: number | undefined): Parsed<Pick<Place, 'outlet'>> {
  const text = String(form.get('outlet') ?? '').trim()
  if (text === '') return parsed({})
  if (before !== undefined && text === lengthText(before, unit)) return parsed({ outlet: before })
  const read = parseLength(text, unit)
  return read.ok ? parsed({ outlet: read.value }) : read
}

export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request)
  const wrong = (problem: string, status = 422, lines: DeviceFault['lines'] = []) =>
    data<DeviceFault>({ problem, lines }, { status })
  const done = (saved: Outcome | null) => {
    if (saved?.outcome === 'saved') {
      const added = saved.edits.flatMap(({ list, id }) => (list === 'devices' ? id : []))
      return redirect(
        addressWith(`/sites/${params.site}/survey`, { added: saved.id, new: added.slice(0, MOST_ASKED).join(' ') }),
      )
    }
    const { problem, status } = whyNotSaved(saved)
    return wrong(problem, status)
  }
  const intent = form.get('intent')
  if (intent === 'devices') {
    const template = templates.find(({ name }) => name === form.get('template'))
    const made = readDevice(form, template ? { ...fromTemplate(template), ports: [] } : null, readUnit(request))
    if (!made.ok) return wrong(made.problem, 422, 'lines' in made ? made.lines : [])
    const count = Number(form.get('count') ?? 1)
    if (!Number.isInteger(count) || count < 1 || count > MOST_AT_ONCE)
      return wrong(`Say how many: 1 to ${MOST_AT_ONCE}. Nothing was saved.`)
    return done(await change(request, form, params.site, ({ plan }) => addDevices(plan, made.value, count)))
  }
  if (intent === 'lines') {
    const said = parseSurveyLines(String(form.get('lines') ?? '').slice(0, LONGEST_LINES))
    if (said.faults.length > 0)
      return wrong(
        `Some lines are not understood, so nothing was saved. ${said.faults
          .slice(0, 5)
          .map(({ line, problem }) => `Line ${line}: ${problem}`)
          .join(' ')}`,
      )
    if (said.places.length + said.devices.length === 0) return wrong('Type at least one line. Nothing was saved.')
    const saved = await change(request, form, params.site, ({ plan }) => {
      const place = byId(plan.places).get(String(form.get('place') ?? ''))
      const made = addSurvey(plan, said, place?.id ?? null)
      return made.edits.length > 0 ? made : refused('places', 'all of these places are there already')
    })
    return done(saved)
  }
  const names = String(form.get('placeName') ?? '')
    .slice(0, LONGEST_LINES)
    .split(/\r?\n/)
    .filter((name) => name.trim() !== '')
  const read = z.array(nameField).min(1).max(MOST_SURVEY_LINES).safeParse(names)
  const saved = await change(request, form, params.site, ({ plan }) => {
    const place = byId(plan.places).get(String(form.get('place') ?? ''))
    if (intent === 'no place')
      return place ? deletePlace(place, baseOf(form)) : refused('place', 'it is no longer there')
    const [name] = read.success ? read.data : []
    if (!read.success || name === undefined) return refused('place', 'a place needs a name, of 120 characters at most')
    if (!place && form.get('place')) return refused('place', 'it is no longer there')
    const mains = readMains(String(form.get('mains') ?? '')) ?? 'not known'
    if (place) {
      const { outlet: before, ...rest } = place
      const outlet = readOutlet(form, readUnit(request), before)
      return outlet.ok
        ? savePlace({ ...rest, name, mains, ...outlet.value }, baseOf(form))
        : refused('outlet', `the way to the outlet: ${outlet.problem}`)
    }
    return addPlaces(plan, read.data, mains)
  })
  if (saved?.outcome === 'saved') return redirect(`/sites/${params.site}/survey`)
  const { problem, status } = whyNotSaved(saved)
  return wrong(problem, status)
}

/** Needs are asked of so many new devices at once. */
const MOST_ASKED = 12
/** Characters of pasted lines that are looked at. */
const LONGEST_LINES = 60_000

type SurveyRow = { kind: 'place'; place: Place | null; count: number } | { kind: 'device'; device: Device }
const keyOf = (row: SurveyRow): string => (row.kind === 'place' ? `place ${row.place?.id ?? ''}` : row.device.id)

/** Survey: the places, what stands there, and what each of its ports does. */
export default function Survey({ actionData }: Route.ComponentProps) {
  const { plan, index } = useSite()
  const [params] = useSearchParams()
  const added = params.get('added')
  const deleted = params.get('deleted')
  const told = added ?? deleted
  // the place somebody chose stays the place until another is chosen, or made
  const [chosen, setChosen] = useState<string | null>(null)
  const [mode, setMode] = useState<'lines' | 'fields'>(actionData?.lines ? 'fields' : 'lines')
  const latest = plan.places.at(-1)?.id
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new place is where the next devices stand
  useEffect(() => setChosen(null), [latest])
  const at = chosen !== null && (chosen === '' || index.places.has(chosen)) ? chosen : usualPlace(plan)
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
            {added ? addedWords(params.get('new'), index.devices) : 'Deleted from the survey.'}
          </Undo>
        </Notice>
      )}
      {actionData && <Notice tone="blocked">{actionData.problem}</Notice>}
      {plan.devices.length === 0 && (
        <Text mb="3" maxW="640px">
          Type your places and devices below, a line each: Hallway knows the ports of the usual ones. Then lay runs
          between the ports (Match), and add what must get through (Needs).
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
        : all of it out as CSV, and in from a spreadsheet.{' '}
        <RouterLink to={`/sites/${plan.site.id}/many?list=devices`} className={text.link}>
          Many at once
        </RouterLink>
        : move, rename, delete.
      </p>
      <NeedsOfNew />
      <details className={look.add} open={plan.devices.length === 0 || (added !== null && mode !== 'fields')}>
        <summary>Add places and devices</summary>
        <SurveyLines place={at} choosePlace={setChosen} />
      </details>
      <details className={look.add} open={added !== null && mode === 'fields'} onSubmit={() => setMode('fields')}>
        <summary>Add a device by its fields</summary>
        <NewDevices
          key={`${plan.devices.length} ${added}`}
          wrong={actionData?.lines ?? []}
          place={at}
          choosePlace={setChosen}
        />
      </details>
      <NewPlace />
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

/** Where the next device is likely to stand: at a place that is new and empty, else where the last one does. */
function usualPlace({ places, devices }: Plan): string {
  const last = places.at(-1)
  if (last && !devices.some(({ place }) => place === last.id)) return last.id
  return devices.at(-1)?.place ?? ''
}

/** So many new devices are named. */
const MOST_NAMED = 3

/** What was added: "Added Desk 1 dock at Desk 1." */
function addedWords(ids: string | null, devices: ReturnType<typeof useSite>['index']['devices']): string {
  const names = (ids ?? '').split(' ').flatMap((id) => devices.get(id)?.name ?? [])
  if (names.length === 0) return 'Added to the survey.'
  const more = names.length - MOST_NAMED
  return `Added ${names.slice(0, MOST_NAMED).join(', ')}${more > 0 ? ` and ${more} more` : ''}.`
}
