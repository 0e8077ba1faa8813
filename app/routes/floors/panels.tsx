import { Heading, Text } from '@chakra-ui/react'
import { type FormEvent, type ReactNode, useState } from 'react'
import { Form, Link as RouterLink } from 'react-router'
import type { AreaReach } from '../../../core/headset/area'
import type { Chair, NoiseSource } from '../../../core/placement/floor-noise'
import type { Floor, Pathway, PathwayKind, Spot } from '../../../core/plan/floor'
import { PATHWAY_KINDS } from '../../../core/plan/floor'
import type { Place } from '../../../core/plan/plan'
import type { Run } from '../../../core/plan/run'
import { SURROUNDINGS } from '../../../core/plan/surroundings'
import { formatLength } from '../../../core/quantity/length'
import { decimal } from '../../../core/quantity/parsed'
import { pathwayFill } from '../../../core/route/fill'
import { USUAL_HEIGHT } from '../../../core/route/follow'
import { offsetText, pointsExample, pointsText, pointWords } from '../../../core/survey/points-text'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { MainButton, QuietButton } from '../../ui/controls'
import { FileField, LabelledField, PlainSelect, PlainTextArea, plainField, TextField, tiedTo } from '../../ui/field'
import { GradeMark } from '../../ui/grade'
import { LongTable } from '../../ui/long-table'
import { useSite } from '../../ui/site-context'
import { Length, useUnit } from '../../ui/units'
import { useAsked } from '../../ui/use-asked'
import look from './floor.module.css'
import type { FloorLine } from './floor-shape'
import { RouteWords } from './route-words'

type Sends = { send: (form: FormData) => void; busy: boolean }

/** A form of the page: sent as one change that can be undone here, and by itself where there are no scripts. */
function PanelForm({ send, children }: { send: Sends['send']; children: ReactNode }) {
  const submitted = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault()
    send(new FormData(event.currentTarget, (event.nativeEvent as SubmitEvent).submitter))
  }
  return (
    <Form method="post" encType="multipart/form-data" onSubmit={submitted}>
      <MadeFrom />
      {children}
    </Form>
  )
}

/** Which run's way is shown. */
export function WayChoice({ floor, run, choose }: { floor: Floor; run: string; choose: (id: string) => void }) {
  const { index, plan } = useSite()
  const here = new Set(
    plan.pathways
      .filter(({ points }) => points.some((point) => point.floor === floor.id))
      .flatMap(({ id }) => index.runsAlong.get(id) ?? []),
  )
  if (here.size === 0) return null
  return (
    // biome-ignore lint/a11y/noLabelWithoutControl: the choice within is a control
    <label className={look.way}>
      Show the way of{' '}
      <PlainSelect value={run} onChange={({ currentTarget }) => choose(currentTarget.value)}>
        <option value="">no run</option>
        {[...here].map(({ id, tag }) => (
          <option key={id} value={id}>
            {tag}
          </option>
        ))}
      </PlainSelect>
    </label>
  )
}

const RUNS_TOLD = 4

/** What moving a spot does, while it is moved; otherwise the way that is shown, as a sum. */
export function MovedLine({
  moved,
  run,
  busy,
}: {
  moved: { from: Spot; to: Spot } | null
  run: Run | null
  busy: boolean
}) {
  const unit = useUnit()
  const asked = useAsked('moved', moved, 40)
  const effects = moved ? (asked.last ?? []) : []
  return (
    <div className={look.moved} role="status" aria-live="polite" aria-busy={busy}>
      {moved ? (
        <>
          <b>{pointWords(moved.to, unit)}</b>
          {effects.length === 0 && asked.step === 'answered' && ' No run becomes longer or shorter.'}
          {effects.slice(0, RUNS_TOLD).map(({ run: each, before, after, was, is }) => (
            <span key={each.id}>
              {' '}
              <span className={text.mono}>{each.tag}</span> {formatLength(before, unit)} → {formatLength(after, unit)}
              {was !== is && `, becomes ${is}`}.
            </span>
          ))}
          {effects.length > RUNS_TOLD && ` and ${effects.length - RUNS_TOLD} more runs`}
        </>
      ) : run ? (
        <>
          <b className={text.mono}>{run.tag}</b>: <RouteWords legs={run.route.legs ?? []} /> ={' '}
          <Length metres={run.route.length} />
        </>
      ) : (
        <span className={text.quiet}>Nothing is being moved.</span>
      )}
    </div>
  )
}

/** Cables are laid about so high in each (common practice); it is typed where it is otherwise. */
const USUAL: Readonly<Record<PathwayKind, number>> = {
  tray: 2.6,
  conduit: 2.6,
  trunking: 1,
  'raised floor': -0.1,
  desk: 0.65,
  'open floor': 0,
  drop: 2.6,
  riser: 0,
}

/** A pathway to be laid over the spots that were marked, or one to be changed. */
export function PathwayPanel({
  floor,
  pathway,
  marked,
  send,
  busy,
}: Sends & { floor: Floor; pathway: Pathway | null; marked: readonly Spot[] }) {
  const { plan } = useSite()
  const unit = useUnit()
  const [kind, setKind] = useState<PathwayKind>(pathway?.kind ?? 'tray')
  const context = { floor: floor.id, floors: plan.floors, unit }
  const markedText = (height: number) =>
    pointsText(
      marked.map((spot) => ({ ...spot, height })),
      context,
    )
  const [points, setPoints] = useState(pathway ? pointsText(pathway.points, context) : markedText(USUAL.tray))
  const field = plainField('points')
  return (
    <details open>
      <summary>{pathway ? pathway.name : 'A new pathway'}</summary>
      {!pathway && (
        <Text fontSize="sm" color="quiet">
          Mark its points on the floor one after the other, or type them.
        </Text>
      )}
      <PanelForm send={send}>
        {pathway && <input type="hidden" name="pathway" value={pathway.id} />}
        <div className={look.pair}>
          <TextField field={plainField('name', pathway?.name)} label="Name" required maxLength={120} />
          <LabelledField field={plainField('kind')} label="What it is">
            <PlainSelect
              id="field-kind"
              name="kind"
              value={kind}
              onChange={({ currentTarget }) => {
                const chosen = currentTarget.value as PathwayKind
                setKind(chosen)
                if (!pathway && marked.length > 0) setPoints(markedText(USUAL[chosen]))
              }}
            >
              {PATHWAY_KINDS.map((each) => (
                <option key={each}>{each}</option>
              ))}
            </PlainSelect>
          </LabelledField>
          <div className={look.wide}>
            <LabelledField
              field={field}
              label="Points, a line each: right, down, height"
              hint={`like “${pointsExample}”, or “Desk 1, 0.7”; “Upper floor:” before a point goes on upon that floor`}
            >
              <PlainTextArea
                {...tiedTo({ field, hint: true })}
                name="points"
                value={points}
                onChange={({ currentTarget }) => setPoints(currentTarget.value)}
                rows={Math.min(10, Math.max(3, points.split('\n').length))}
                spellCheck={false}
                mono
              />
            </LabelledField>
          </div>
          <TextField
            field={plainField('inner', numberText(pathway?.inner))}
            label="Inner diameter, mm"
            inputMode="decimal"
          />
          <TextField
            field={plainField('free', numberText(pathway?.free))}
            label="Free section, mm²"
            inputMode="decimal"
          />
          <div className={look.wide}>
            <TextField
              field={plainField('beside', (pathway?.beside ?? []).join(' '))}
              label="Cables that lay there before, mm each"
              hint="like 5 5 6.5"
            />
          </div>
        </div>
        <fieldset className={look.ticks}>
          <legend className={text.small}>What it passes</legend>
          {SURROUNDINGS.map((what) => (
            <label key={what}>
              <input type="checkbox" name="through" value={what} defaultChecked={pathway?.through?.includes(what)} />
              {what.replaceAll('-', ' ')}
            </label>
          ))}
          <label>
            <input type="checkbox" name="closed" defaultChecked={pathway?.closed} /> <b>closed: no lead goes here</b>
          </label>
        </fieldset>
        <div className={look.tools}>
          <MainButton name="intent" value="pathway" loading={busy}>
            {pathway ? 'Save the pathway' : 'Lay the pathway'}
          </MainButton>
          {pathway && (
            <QuietButton name="intent" value="no pathway" formNoValidate grave>
              Take it away
            </QuietButton>
          )}
        </div>
      </PanelForm>
    </details>
  )
}

const numberText = (value: number | undefined): string => (value === undefined ? '' : String(value))

/** How a place stands on the floor. */
export function PlacePanel({ place, send, busy }: Sends & { place: Place }) {
  const { index } = useSite()
  const unit = useUnit()
  const devices = index.plan.devices.filter((device) => device.place === place.id)
  return (
    <details open>
      <summary>{place.name}</summary>
      <Text fontSize="sm">
        {devices.length === 0 ? 'Nothing stands here yet.' : devices.map(({ name }) => name).join(', ')}
      </Text>
      <PanelForm send={send}>
        <input type="hidden" name="place" value={place.id} />
        <div className={look.pair}>
          <SpotFields spot={place.at ?? null} />
          <StandingFields place={place} unit={unit} />
        </div>
        <div className={look.tools}>
          <MainButton name="intent" value="stand" loading={busy}>
            Save the place
          </MainButton>
          <QuietButton name="intent" value="lift" formNoValidate>
            Take it off the floor
          </QuietButton>
        </div>
      </PanelForm>
    </details>
  )
}

function SpotFields({ spot }: { spot: Spot | null }) {
  const unit = useUnit()
  return (
    <>
      <TextField
        field={plainField('x', spot ? offsetText(spot.x, unit) : '')}
        label={`Right of the corner, ${unit}`}
        required
      />
      <TextField
        field={plainField('y', spot ? offsetText(spot.y, unit) : '')}
        label={`Down from it, ${unit}`}
        required
      />
    </>
  )
}

function StandingFields({ place, unit }: { place: Place | null; unit: 'm' | 'ft' }) {
  const length = (metres: number | undefined) => (metres === undefined ? '' : offsetText(metres, unit))
  return (
    <>
      <TextField
        field={plainField('height', length(place?.height))}
        label={`Height of its ports, ${unit}`}
        placeholder={formatLength(USUAL_HEIGHT, unit)}
      />
      <TextField field={plainField('quiet', numberText(place?.quiet))} label="Chair: dB wanted" inputMode="decimal" />
      <TextField field={plainField('width', length(place?.area?.width))} label={`Play area, width, ${unit}`} />
      <TextField field={plainField('depth', length(place?.area?.depth))} label={`Play area, depth, ${unit}`} />
    </>
  )
}

/** Places that stand on no floor yet, and where one of them is to stand. */
export function StandPanel({
  floor,
  open,
  spot,
  send,
  busy,
}: Sends & { floor: Floor; open: boolean; spot: Spot | null }) {
  const { plan } = useSite()
  const unit = useUnit()
  const loose = plan.places.filter(({ at }) => !at)
  if (plan.places.length === 0)
    return (
      <Text fontSize="sm" color="quiet">
        There are no places yet:{' '}
        <RouterLink to={`/sites/${plan.site.id}/survey`} className={text.link}>
          add them in the survey
        </RouterLink>
        .
      </Text>
    )
  return (
    <details open={open || (loose.length > 0 && loose.length === plan.places.length)}>
      <summary>Stand a place on {floor.name}</summary>
      <PanelForm send={send}>
        <div className={look.pair}>
          <div className={look.wide}>
            <LabelledField field={plainField('place')} label={`Place (${loose.length} on no floor yet)`}>
              <PlainSelect id="field-place" name="place" required>
                {[...loose, ...plan.places.filter(({ at }) => at)].map(({ id, name, at }) => (
                  <option key={id} value={id}>
                    {name}
                    {at ? ', moves here' : ''}
                  </option>
                ))}
              </PlainSelect>
            </LabelledField>
          </div>
          <SpotFields spot={spot} />
          <StandingFields place={null} unit={unit} />
        </div>
        <MainButton name="intent" value="stand" loading={busy}>
          Stand it there
        </MainButton>
      </PanelForm>
    </details>
  )
}

/** The floor itself: its name and level, the drawing under it, and its scale. */
export function FloorPanel({
  floor,
  scaling,
  marked,
  send,
  busy,
}: Sends & { floor: Floor; scaling: boolean; marked: readonly Spot[] }) {
  const unit = useUnit()
  const { drawing } = floor
  const pixel = (metres: number | undefined) =>
    metres === undefined || !drawing ? '' : decimal(metres / drawing.metresPerPixel, 2)
  const [one, other] = marked
  return (
    <details open={scaling}>
      <summary>The floor and its drawing</summary>
      <PanelForm send={send}>
        <div className={look.pair}>
          <TextField field={plainField('name', floor.name)} label="Name" required maxLength={120} />
          <TextField
            field={plainField('level', offsetText(floor.level, unit))}
            label={`Its surface lies at, ${unit}`}
          />
        </div>
        <div className={look.tools}>
          <QuietButton name="intent" value="floor" loading={busy}>
            Save the floor
          </QuietButton>
          <QuietButton name="intent" value="no floor" formNoValidate grave>
            Delete the floor
          </QuietButton>
        </div>
      </PanelForm>
      <PanelForm send={send}>
        <FileField
          label={drawing ? 'Another drawing' : 'A drawing (PNG, JPEG, WebP, SVG)'}
          name="drawing"
          accept="image/png,image/jpeg,image/webp,image/svg+xml"
        />
        <div className={look.tools}>
          <QuietButton name="intent" value="drawing" loading={busy}>
            Lay it under the floor
          </QuietButton>
          {drawing && (
            <QuietButton name="intent" value="no drawing" formNoValidate>
              Take it away
            </QuietButton>
          )}
        </div>
      </PanelForm>
      {drawing && (
        <PanelForm send={send}>
          <Text fontSize="sm" mb="1">
            {scaling
              ? `${['Mark one end of something you know the length of', 'Now its other end', 'Both ends are marked'][marked.length] ?? ''}.`
              : 'To scale it, choose “Scale the drawing” and mark both ends of something you know the length of.'}{' '}
            The whole drawing is now {formatLength(drawing.width * drawing.metresPerPixel, unit)} wide.
          </Text>
          <input type="hidden" name="px1" value={pixel(one?.x)} />
          <input type="hidden" name="py1" value={pixel(one?.y)} />
          <input type="hidden" name="px2" value={pixel(other?.x)} />
          <input type="hidden" name="py2" value={pixel(other?.y)} />
          <div className={look.pair}>
            <TextField field={plainField('distance')} label={`It is so long, ${unit}`} required />
            <QuietButton name="intent" value="scale" loading={busy} disabled={marked.length < 2}>
              Scale by it
            </QuietButton>
          </div>
        </PanelForm>
      )}
    </details>
  )
}

/** What is heard at each chair of the floor. */
export function NoisePanel({ noise: { sources, chairs } }: { noise: { sources: NoiseSource[]; chairs: Chair[] } }) {
  if (sources.length === 0 && chairs.length === 0) return null
  return (
    <details>
      <summary>Noise: {sources.length === 1 ? 'one box' : `${sources.length} boxes`}</summary>
      <ul className={text.small}>
        {chairs.map(({ place, heard, wanted }) => (
          <li key={place.id}>
            {place.name}:{' '}
            {heard === null
              ? 'nothing measured makes noise here'
              : `${decimal(heard, 1)} dB where ${wanted} dB are wanted`}{' '}
            {heard !== null && <GradeMark grade={heard <= wanted ? 'clear' : 'blocked'} size="xs" />}
          </li>
        ))}
      </ul>
      <Text fontSize="sm" color="quiet">
        In the open, by the inverse square law; walls make it louder, doors quieter.
      </Text>
    </details>
  )
}

/** How far headset leads reach in their areas. */
export function AreaPanel({ areas }: { areas: readonly AreaReach[] }) {
  const unit = useUnit()
  if (areas.length === 0) return null
  return (
    <details>
      <summary>Headset areas</summary>
      <ul className={text.small}>
        {areas.map(({ run, radius, corners }) => {
          const short = Math.max(...corners.map((corner) => corner.short))
          return (
            <li key={run.id}>
              <span className={text.mono}>{run.tag}</span> reaches {formatLength(radius, unit)} from its port at head
              height
              {short > 0
                ? `; the far corner is ${formatLength(short, unit)} beyond it.`
                : ', every corner of the area.'}{' '}
              <GradeMark grade={short > 0 ? 'blocked' : 'clear'} size="xs" />
            </li>
          )
        })}
      </ul>
    </details>
  )
}

/** The pathways of a floor, with what lies in them. */
export function PathwayTable({ floor, lines }: { floor: Floor; lines: readonly FloorLine[] }) {
  const { plan, index } = useSite()
  if (lines.length === 0) return null
  return (
    <section aria-labelledby="pathways-heading" className={look.block}>
      <Heading as="h2" size="md" mb="2" id="pathways-heading">
        Pathways
      </Heading>
      <LongTable
        label="Pathways of this floor"
        columns={['Pathway', 'What it is', 'Runs in it', 'How full']}
        rows={lines}
        keyOf={({ pathway }) => pathway.id}
      >
        {({ pathway, leaves }, props) => {
          const { runs, fill, unmeasured } = pathwayFill(index, pathway)
          return (
            <tr {...props} key={pathway.id}>
              <td className={text.wide}>
                <RouterLink
                  to={`/sites/${plan.site.id}/floors/${floor.id}?pathway=${pathway.id}`}
                  replace
                  preventScrollReset
                  className={text.link}
                >
                  {pathway.name}
                </RouterLink>
                {leaves && <span className={text.quiet}> goes to another floor</span>}
              </td>
              <td>
                {pathway.kind}
                {pathway.closed ? ', closed' : ''}
              </td>
              <td>{runs.length === 0 ? '' : `${runs.length} ${runs.length === 1 ? 'run' : 'runs'}`}</td>
              <td>
                {fill ? (
                  <>
                    {decimal(fill.share * 100, 0)} % of {decimal(fill.limit * 100, 0)} %{' '}
                    <GradeMark grade={fill.allowed ? 'clear' : 'blocked'} size="xs" />
                  </>
                ) : (
                  <span className={text.quiet}>section not measured</span>
                )}
                {unmeasured > 0 && (
                  <span className={text.quiet}>
                    {' '}
                    {unmeasured} {unmeasured === 1 ? 'lead' : 'leads'} of unknown thickness
                  </span>
                )}
              </td>
            </tr>
          )
        }}
      </LongTable>
    </section>
  )
}
