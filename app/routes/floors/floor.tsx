import { Flex, Heading, Text } from '@chakra-ui/react'
import { useEffect, useMemo, useState } from 'react'
import { data, Link as RouterLink, redirect, useSearchParams } from 'react-router'
import type { Copy, Draft } from '../../../core/change/change'
import {
  deleteFloor,
  deletePathway,
  moveSpot,
  saveFloor,
  savePathway,
  standPlaces,
} from '../../../core/change/changes/floors'
import { areaReach } from '../../../core/headset/area'
import { noiseOn } from '../../../core/placement/floor-noise'
import type { Floor, Spot } from '../../../core/plan/floor'
import { byId } from '../../../core/plan/lookup'
import type { Plan } from '../../../core/plan/plan'
import { pathwaysOf } from '../../../core/plan/run'
import type { LengthUnit } from '../../../core/quantity/length'
import type { Parsed } from '../../../core/quantity/parsed'
import { keepFile } from '../../../server/files/files'
import { type Refused, refused } from '../../../server/sites/change-site'
import { makeImage } from '../../off-thread.server'
import { readForm } from '../../read-form.server'
import { baseOf, change, load, loadSite, whyNotSaved } from '../../stored.server'
import text from '../../theme/text.module.css'
import { Notice, QuietButton } from '../../ui/controls'
import { ErrorView, RouteErrorView } from '../../ui/error-view'
import { useSite } from '../../ui/site-context'
import { useUndoing } from '../../ui/use-undoing'
import { readUnit } from '../../unit-cookie'
import type { Route } from './+types/floor'
import look from './floor.module.css'
import { pathwayOf, placeOf, readFloor, readPathway, readScale, readSpot, readStanding } from './floor-form'
import { FloorMap, type Hand } from './floor-map'
import { floorShape } from './floor-shape'
import {
  AreaPanel,
  FloorPanel,
  MovedLine,
  NoisePanel,
  PathwayPanel,
  PathwayTable,
  PlacePanel,
  StandPanel,
  WayChoice,
} from './panels'

export async function loader({ params }: Route.LoaderArgs) {
  const { copy } = await loadSite(params.site)
  if (!byId(copy.plan.floors).has(params.floor)) throw data(null, { status: 404 })
  return null
}

export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request)
  const wrong = (problem: string, status = 422) =>
    data({ problem, failed: String(form.get('change') ?? '') }, { status })
  const file = form.get('drawing')
  let drawing: Floor['drawing']
  if (form.get('intent') === 'drawing') {
    if (!(file instanceof File) || file.size === 0) return wrong('Choose a drawing first. Nothing was saved.')
    const work = await makeImage({ bytes: new Uint8Array(await file.arrayBuffer()), use: 'drawing' })
    if (!work.done) return wrong(`${work.problem} Nothing was saved.`, work.status)
    if (!work.value.ok) return wrong(`${work.value.problem} Nothing was saved.`)
    const { value } = work.value
    const id = await load((knex) => keepFile(knex, params.site, value))
    if (id === null) return wrong('The files of this site fill what it may keep. Nothing was saved.', 413)
    drawing = { file: id, width: value.width, height: value.height, metresPerPixel: UNSCALED / value.width }
  }
  const unit = readUnit(request)
  const saved = await change(request, form, params.site, (copy) => {
    const floor = byId(copy.plan.floors).get(params.floor)
    if (!floor) return refused('floor', 'this floor is no longer there')
    return drafted(form, copy, floor, unit, drawing)
  })
  if (saved?.outcome === 'saved')
    return redirect(
      `/sites/${params.site}/floors${form.get('intent') === 'no floor' ? '' : `/${params.floor}?did=${saved.id}`}`,
    )
  const { problem, status } = whyNotSaved(saved)
  return wrong(problem, status)
}

/** Until somebody says how long a stretch of it is, a drawing is taken to be so wide. */
const UNSCALED = 20

/** What a form of the page asks for. */
function drafted(
  form: FormData,
  { plan, place: at }: Copy,
  floor: Floor,
  unit: LengthUnit,
  drawing: Floor['drawing'],
): Draft | Refused {
  const base = baseOf(form)
  const read = <T,>(answer: Parsed<T>, make: (value: T) => Draft): Draft | Refused =>
    answer.ok ? make(answer.value) : refused('floor', answer.problem)
  const place = placeOf(plan, form)
  const pathway = pathwayOf(plan, form)
  switch (form.get('intent')) {
    case 'move': {
      const from = readSpot(form, floor.id, 'm', ['fromX', 'fromY'])
      return from.ok
        ? read(readSpot(form, floor.id, 'm'), (to) => moveSpot(plan, at, from.value, to))
        : refused('floor', from.problem)
    }
    case 'stand':
      return place
        ? read(readStanding(form, place, floor.id, unit), (value) => standPlaces(plan, [value], base))
        : refused('place', 'choose a place')
    case 'lift': {
      if (!place) return refused('place', 'choose a place')
      const { at: _, ...rest } = place
      return standPlaces(plan, [rest], base)
    }
    case 'pathway':
      return read(readPathway(form, pathway ?? null, plan, floor.id, unit), (value) =>
        savePathway(plan, value, pathway ? base : null, at),
      )
    case 'no pathway':
      return pathway ? deletePathway(pathway, base) : refused('pathway', 'it is no longer there')
    case 'floor':
      return read(readFloor(form, floor, plan, unit), (value) => saveFloor(value, base))
    case 'no floor':
      return deleteFloor(floor, base)
    case 'drawing':
      return saveFloor({ ...floor, ...(drawing ? { drawing } : {}) }, base)
    case 'no drawing': {
      const { drawing: _, ...rest } = floor
      return saveFloor(rest, base)
    }
    case 'scale': {
      const { drawing: under } = floor
      return under
        ? read(readScale(form, unit), (metresPerPixel) =>
            saveFloor({ ...floor, drawing: { ...under, metresPerPixel } }, base),
          )
        : refused('floor', 'there is no drawing under this floor')
    }
    default:
      return refused('floor', 'nothing was asked for')
  }
}

/** What marking spots on the floor is for. */
export type Marking = 'pathway' | 'scale' | 'place'

/** One floor to scale: what stands on it, the pathways over it, and what follows from where they are. */
export default function FloorPage({ params, actionData }: Route.ComponentProps) {
  const { plan, index } = useSite()
  const floor = byId(plan.floors).get(params.floor)
  if (!floor) return <ErrorView status={404} />
  return (
    <>
      <Flex gap="4" align="baseline" wrap="wrap" mb="2">
        <Heading as="h1" size="xl">
          {floor.name}
        </Heading>
        {plan.floors
          .filter(({ id }) => id !== floor.id)
          .map(({ id, name }) => (
            <RouterLink key={id} to={`/sites/${plan.site.id}/floors/${id}`} className={text.link}>
              {name}
            </RouterLink>
          ))}
        <RouterLink to={`/sites/${plan.site.id}/floors`} className={text.link}>
          all floors, and the runs on them
        </RouterLink>
      </Flex>
      {actionData && <Notice tone="blocked">{actionData.problem}</Notice>}
      <FloorEditor key={floor.id} floor={floor} plan={plan} failed={actionData?.failed} areasOf={index} />
    </>
  )
}

function FloorEditor({
  floor,
  plan,
  failed,
  areasOf: index,
}: {
  floor: Floor
  plan: Plan
  failed: string | undefined
  areasOf: ReturnType<typeof useSite>['index']
}) {
  const [params, setParams] = useSearchParams()
  const { send, undo, redo, busy } = useUndoing(`/sites/${plan.site.id}/floors/${floor.id}`, failed)
  const [marking, setMarking] = useState<Marking | null>(null)
  const [marked, setMarked] = useState<readonly Spot[]>([])
  const [moved, setMoved] = useState<{ from: Spot; to: Spot } | null>(null)
  const shape = useMemo(() => floorShape(plan, floor), [plan, floor])
  const noise = useMemo(() => noiseOn(plan, floor.id), [plan, floor.id])
  const areas = useMemo(() => shape.places.flatMap((place) => areaReach(index, place)), [shape.places, index])
  const run = index.runs.get(params.get('run') ?? '')
  const way = useMemo(() => (run ? pathwaysOf(run) : new Set<string>()), [run])
  const pathway = index.pathways.get(params.get('pathway') ?? '')
  const place = index.places.get(params.get('place') ?? '')
  const pick = (name: 'place' | 'pathway', id: string) =>
    setParams({ [name]: id, ...(run ? { run: run.id } : {}) }, { replace: true, preventScrollReset: true })
  const hand: Hand = marking ? 'mark' : 'move'
  const begin = (what: Marking | null) => {
    setMarking(marking === what ? null : what)
    setMarked([])
  }
  const most = marking === 'scale' ? 2 : marking === 'place' ? 1 : Number.POSITIVE_INFINITY
  // what was marked for a change that is saved has done its work
  const did = params.get('did')
  // biome-ignore lint/correctness/useExhaustiveDependencies: each change begins anew
  useEffect(() => {
    setMarking(null)
    setMarked([])
  }, [did])
  const form = (fields: Readonly<Record<string, string>>): FormData => {
    const made = new FormData()
    for (const [name, value] of Object.entries(fields)) made.set(name, value)
    return made
  }
  return (
    <>
      <div className={look.tools} role="toolbar" aria-label="Work on the floor">
        <QuietButton type="button" small aria-pressed={marking === 'pathway'} onClick={() => begin('pathway')}>
          Lay a pathway
        </QuietButton>
        <QuietButton type="button" small aria-pressed={marking === 'place'} onClick={() => begin('place')}>
          Stand a place
        </QuietButton>
        {floor.drawing && (
          <QuietButton type="button" small aria-pressed={marking === 'scale'} onClick={() => begin('scale')}>
            Scale the drawing
          </QuietButton>
        )}
        <QuietButton type="button" small disabled={!undo} onClick={() => undo?.()} aria-keyshortcuts="Control+Z">
          Undo
        </QuietButton>
        <QuietButton type="button" small disabled={!redo} onClick={() => redo?.()} aria-keyshortcuts="Control+Shift+Z">
          Redo
        </QuietButton>
        <WayChoice
          floor={floor}
          run={run?.id ?? ''}
          choose={(id) => setParams(id ? { run: id } : {}, { replace: true, preventScrollReset: true })}
        />
      </div>
      <div className={look.page}>
        <div>
          <FloorMap
            siteId={plan.site.id}
            floor={floor}
            shape={shape}
            hand={hand}
            marked={marked}
            way={way}
            noise={noise.sources}
            areas={areas}
            mark={(spot) => setMarked(marked.length >= most ? [...marked.slice(0, most - 1), spot] : [...marked, spot])}
            pick={(joint) => {
              if (joint.place) pick('place', joint.place.id)
              else {
                const own = shape.lines.find(({ pathway }) => pathway.name === joint.names[0])
                if (own) pick('pathway', own.pathway.id)
              }
            }}
            pickPathway={(id) => pick('pathway', id)}
            moving={(from, to) => setMoved(to && { from, to })}
            move={(from, to) =>
              send(
                form({
                  intent: 'move',
                  fromX: String(from.x),
                  fromY: String(from.y),
                  x: String(to.x),
                  y: String(to.y),
                }),
              )
            }
          />
          <MovedLine moved={moved} run={run ?? null} busy={busy} />
          <Text fontSize="sm" color="quiet" mt="1">
            Drag a spot and all that meets there goes along; with the keys, arrows move it 10 cm, with shift 1 m, with
            alt 1 cm.
          </Text>
          <PathwayTable floor={floor} lines={shape.lines} />
        </div>
        <div className={look.side}>
          {marking === 'pathway' || (pathway && !marking) ? (
            <PathwayPanel
              key={pathway && !marking ? pathway.id : `new ${marked.length}`}
              floor={floor}
              pathway={marking ? null : (pathway ?? null)}
              marked={marked}
              send={send}
              busy={busy}
            />
          ) : null}
          {place?.at?.floor === floor.id && !marking && (
            <PlacePanel key={`${place.id} ${place.at.x} ${place.at.y}`} place={place} send={send} busy={busy} />
          )}
          <StandPanel
            key={`stand ${marked.length} ${marking} ${did}`}
            floor={floor}
            open={marking === 'place'}
            spot={marking === 'place' ? (marked[0] ?? null) : null}
            send={send}
            busy={busy}
          />
          <FloorPanel
            floor={floor}
            scaling={marking === 'scale'}
            marked={marking === 'scale' ? marked : []}
            send={send}
            busy={busy}
          />
          <NoisePanel noise={noise} />
          <AreaPanel areas={areas} />
        </div>
      </div>
    </>
  )
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  return <RouteErrorView error={error} />
}
