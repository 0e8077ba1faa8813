import { Flex, Heading, Text } from '@chakra-ui/react'
import { useEffect, useMemo, useState } from 'react'
import { data, Link as RouterLink, useSearchParams, useSubmit } from 'react-router'
import { storedOf } from '../../../core/files/storage'
import { areaReach } from '../../../core/headset/area'
import { noiseOn } from '../../../core/placement/floor-noise'
import { byId } from '../../../core/plan/lookup'
import type { Plan } from '../../../core/plan/plan'
import { floorShape } from '../../../core/route/floor-shape'
import type { Floor, Spot } from '../../../core/vocabulary/floor'
import { pathwaysOf } from '../../../core/vocabulary/run'
import { filesSize } from '../../../server/files/files'
import { load, loadSite } from '../../stored.server'
import text from '../../theme/text.module.css'
import { Notice, QuietButton } from '../../ui/controls'
import { ErrorView, RouteErrorView } from '../../ui/error-view'
import { newChangeId } from '../../ui/own-changes'
import { useSite } from '../../ui/site-context'
import { useUndoing } from '../../ui/undoing'
import { NearlyFull } from '../files/stored-line'
import type { Route } from './+types/floor'
import look from './floor.module.css'
import { FloorMap, type Hand } from './floor-map'
import { FloorPanel } from './floor-panel'
import { AreaPanel, NoisePanel } from './follows-panel'
import { PathwayPanel, PathwayTable } from './pathway-panel'
import { PlacePanel, StandPanel } from './place-panel'
import { MovedLine, WayChoice } from './way'

export async function loader({ params }: Route.LoaderArgs) {
  const { copy } = await loadSite(params.site)
  if (!byId(copy.plan.floors).has(params.floor)) throw data(null, { status: 404 })
  const files = await load((knex) => filesSize(knex, params.site))
  return { stored: storedOf({ ...copy, files }) }
}

export { action } from './floor-action.server'

/** What marking spots on the floor is for. */
export type Marking = 'pathway' | 'scale' | 'place'

/** One floor to scale: what stands on it, the pathways over it, and what follows from where they are. */
export default function FloorPage({ params, actionData, loaderData }: Route.ComponentProps) {
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
      <NearlyFull stored={loaderData.stored} />
      {actionData && <Notice tone="blocked">{actionData.problem}</Notice>}
      <FloorEditor key={floor.id} floor={floor} plan={plan} areasOf={index} />
    </>
  )
}

function FloorEditor({
  floor,
  plan,
  areasOf: index,
}: {
  floor: Floor
  plan: Plan
  areasOf: ReturnType<typeof useSite>['index']
}) {
  const [params, setParams] = useSearchParams()
  const did = params.get('did')
  const { undo, redo, busy } = useUndoing()
  const send = useSend()
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
          Put a place on the floor
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

/** Sends a change that is made by hand on the drawing. */
function useSend() {
  const { place } = useSite()
  const submit = useSubmit()
  return (form: FormData): void => {
    form.set('change', newChangeId())
    form.set('base', String(place))
    submit(form, { method: 'post', preventScrollReset: true, replace: true, encType: 'multipart/form-data' })
  }
}

export function ErrorBoundary({ error }: Route.ErrorBoundaryProps) {
  return <RouteErrorView error={error} />
}
