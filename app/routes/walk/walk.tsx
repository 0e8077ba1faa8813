import { Heading, Text } from '@chakra-ui/react'
import { useMemo } from 'react'
import { data, Link as RouterLink, redirect, useNavigation, useSearchParams } from 'react-router'
import { goneSince, keepPhotos, lookAtPlace } from '../../../core/change/changes/walk'
import { type KeptImage, LARGEST_UPLOAD_BYTES } from '../../../core/files/file-types'
import { storedOf } from '../../../core/files/storage'
import { byId } from '../../../core/plan/lookup'
import { legsExample, parseRoute } from '../../../core/route/legs'
import { readMains } from '../../../core/survey/mains-text'
import { type Stop, walkOf } from '../../../core/survey/walk'
import { fileField } from '../../../core/vocabulary/floor'
import { fileId, filesSize } from '../../../server/files/files'
import { refused } from '../../../server/sites/change-site'
import { pictureOf } from '../../off-thread.server'
import { readFormWithFile } from '../../read-form.server'
import { addressWith, baseOf, change, load, whyNotSaved } from '../../stored.server'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { MainButton, Notice, QuietButton } from '../../ui/controls'
import { plainField, TextField } from '../../ui/field'
import { Form } from '../../ui/form'
import { takesLength } from '../../ui/keep-typed-unit'
import { MainsField } from '../../ui/mains-field'
import { useSite } from '../../ui/site-context'
import { Took } from '../../ui/take'
import { Length, useUnit } from '../../ui/units'
import { readUnit } from '../../unit-cookie'
import { NearlyFull } from '../files/stored-line'
import { routeText } from '../run/run-form'
import type { Route } from './+types/walk'
import { Photos } from './photos'
import look from './walk.module.css'

/** Whether there is room for more photos. */
export async function loader({ params }: Route.LoaderArgs) {
  const files = await load((knex) => filesSize(knex, params.site))
  return { stored: storedOf({ bytes: 0, grown: 0, files }) }
}

export const action = ({ request, params }: Route.ActionArgs) =>
  readFormWithFile(request, { file: LARGEST_UPLOAD_BYTES }, async (form, sent) => {
    const placeId = String(form.get('place') ?? '')
    const wrong = (problem: string, status = 422) => data({ problem, place: placeId }, { status })
    const intent = form.get('intent')
    let photo: KeptImage | null = null
    if (intent === 'photo') {
      const made = await pictureOf(sent, 'photo')
      if ('problem' in made) return wrong(made.problem, made.status)
      photo = made.picture
    }
    const unit = readUnit(request)
    const saved = await change(request, form, params.site, ({ plan }) => {
      const place = byId(plan.places).get(placeId)
      if (!place) return refused('place', 'this place is no longer there')
      const photos = place.photos ?? []
      if (photo !== null) {
        const id = fileId(photo.bytes)
        const kept = [...photos.filter(({ file }) => file !== id), { file: id }]
        return { ...keepPhotos(place, kept, baseOf(form)), files: [photo] }
      }
      if (intent === 'no photo') {
        const gone = fileField.safeParse(form.get('file')).data
        return keepPhotos(
          place,
          photos.filter(({ file }) => file !== gone),
          baseOf(form),
        )
      }
      const runs = []
      for (const id of form.getAll('run').map(String)) {
        const run = byId(plan.runs).get(id)
        const read = parseRoute(String(form.get(`length-${id}`) ?? ''), unit)
        if (!read.ok) return refused('length', `${run?.tag ?? id}: ${read.problem}`)
        runs.push({ id, ...read.value })
      }
      const note = String(form.get('note') ?? '').trim()
      const devices = form.getAll('device').map(String)
      const seen = {
        mains: readMains(String(form.get('mains') ?? '')) ?? ('not known' as const),
        devices,
        runs,
        note: note || undefined,
      }
      const gone = goneSince(plan, place, seen)
      return gone.length > 0
        ? { outcome: 'refused', faults: gone }
        : lookAtPlace(plan, place, seen, new Date().toISOString().slice(0, 10), baseOf(form))
    })
    const page = form.get('from') === 'install' ? 'install' : 'walk'
    if (saved?.outcome === 'saved')
      return redirect(`${addressWith(`/sites/${params.site}/${page}`, { took: saved.id })}#${placeId}`)
    const { problem, status } = whyNotSaved(saved)
    return wrong(problem, status)
  })

/** What is still to be looked at on the site, place by place, for a phone in one hand. */
export default function Walk({ actionData, loaderData }: Route.ComponentProps) {
  const { plan, index } = useSite()
  const stops = useMemo(() => walkOf(index), [index])
  const [params, setParams] = useSearchParams()
  const all = params.get('all') === 'on'
  const things = stops.reduce((sum, stop) => sum + stop.things, 0)
  const done = stops.reduce((sum, stop) => sum + stop.done, 0)
  const shown = all ? stops : stops.filter((stop) => stop.done < stop.things)
  return (
    <>
      <Heading as="h1" size="xl" mb="2">
        Walk it
      </Heading>
      <Took />
      <NearlyFull stored={loaderData.stored} />
      {stops.length === 0 ? (
        <Text>
          There are no places yet:{' '}
          <RouterLink to={`/sites/${plan.site.id}/survey`} className={text.link}>
            add them in the survey
          </RouterLink>
          , then walk from one to the next.
        </Text>
      ) : (
        <>
          <Text mb="1">
            <b>
              {done} of {things}
            </b>{' '}
            looked at. Floor by floor, from the lowest up. Tick what you read off the device itself, and type what you
            measured along the real route.
          </Text>
          <progress className={look.progress} value={done} max={things} aria-label="How much of the walk is done" />
          <p className={text.small}>
            <QuietButton type="button" small onClick={() => setParams(all ? {} : { all: 'on' }, { replace: true })}>
              {all ? 'Show what is still to be done' : 'Show all places'}
            </QuietButton>
          </p>
          {shown.length === 0 && <Notice tone="clear">You have looked at everything.</Notice>}
          <ol className={look.stops}>
            {shown.slice(0, MOST_SHOWN).map((stop) => (
              <StopCard
                key={stop.place.id}
                stop={stop}
                wrong={actionData?.place === stop.place.id ? actionData.problem : null}
              />
            ))}
          </ol>
          {shown.length > MOST_SHOWN && (
            <Text color="quiet">and {shown.length - MOST_SHOWN} more places after these.</Text>
          )}
        </>
      )}
    </>
  )
}

/** Nobody walks to more at once. */
const MOST_SHOWN = 40

function StopCard({ stop, wrong }: { stop: Stop; wrong: string | null }) {
  const { plan } = useSite()
  const busy = useNavigation().state === 'submitting'
  const unit = useUnit()
  const { place, floor, devices, runs, things, done } = stop
  return (
    <li className={look.stop} id={place.id}>
      <h2>
        {place.name}{' '}
        <span className={text.quiet}>
          {floor?.name ?? 'on no floor yet'}, {done} of {things}
          {place.seen && `, last seen ${place.seen}`}
        </span>
      </h2>
      {wrong && <Notice tone="blocked">{wrong}</Notice>}
      <Form method="post" preventScrollReset>
        <MadeFrom />
        <input type="hidden" name="place" value={place.id} />
        <MainsField mains={place.mains} />
        {devices.map((device) => (
          <label key={device.id} className={look.tick}>
            <input type="checkbox" name="device" value={device.id} defaultChecked={device.seen !== undefined} />
            <span>
              <RouterLink to={`/sites/${plan.site.id}/survey/${device.id}`} className={text.link}>
                {device.name}
              </RouterLink>
              : its {device.ports.length === 1 ? 'port' : `${device.ports.length} ports`} read
            </span>
          </label>
        ))}
        {runs.map((run) => (
          <div key={run.id} className={look.run}>
            <label className={look.tick}>
              <input type="checkbox" name="run" value={run.id} defaultChecked={run.route.seen !== undefined} />
              <span className={text.mono}>{run.tag}</span> measured
            </label>
            <TextField
              field={{ ...plainField(`length-${run.id}`, routeText(run.route, unit)), id: `length-${run.id}` }}
              label={
                <>
                  {nameOf(plan.devices, run.from.device)} to {nameOf(plan.devices, run.to.device)}
                </>
              }
              hint={run.route.seen ? undefined : `like ${legsExample}`}
              inputMode="text"
              {...takesLength}
            />
            <Length metres={run.route.length} />
          </div>
        ))}
        <TextField
          field={{ ...plainField('note', place.note), id: `note-${place.id}` }}
          label="Note"
          maxLength={2000}
        />
        <p className={look.tick}>
          <MainButton name="intent" value="seen" loading={busy} large>
            I was here
          </MainButton>
        </p>
      </Form>
      <Photos place={place} />
    </li>
  )
}

const nameOf = (devices: readonly { id: string; name: string }[], id: string): string =>
  byId(devices).get(id)?.name ?? id
