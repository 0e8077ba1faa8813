import { nextRunTag } from '../../plan/direct-needs'
import { freeIds } from '../../plan/free-id'
import { put } from '../../plan/put'
import { portKey, socketAt } from '../../plan/site-index'
import { atLeast } from '../../quantity/limit'
import type { Watts } from '../../quantity/watts'
import type { Device } from '../../vocabulary/device'
import type { Run } from '../../vocabulary/run'
import { priceWith, withBestLeads, withKindsOf } from '../best-lead'
import type { Move, Scene } from '../move'

/** Ratings that chargers are sold at (common practice). */
const RATINGS: readonly Watts[] = [30, 45, 65, 100, 140, 180, 240]
const ratingFor = (watts: Watts): Watts | undefined => RATINGS.find((rating) => atLeast(rating, watts))
/** A charger stands beside what it feeds. */
const BESIDE = 1.5

/** More power: a larger charger, a second lead that carries power alone, mains where a lead or a device has to be fed. */
export function* powerMoves(scene: Scene): Iterable<Move> {
  const { index, run, verdict } = scene
  const short = verdict.findings.filter(({ check, grade }) => check === 'current' && grade !== 'clear')
  for (const { needId, need: watts } of short) {
    const need = index.needs.get(needId ?? '')
    const rating = watts === null ? undefined : ratingFor(watts)
    if (!need || rating === undefined) continue
    const giver = [run.from, run.to].map((end) => socketAt(index, end)).find(({ device }) => device.id === need.from)
    if (giver?.device.kind === 'charger' && (giver.port.gives ?? 0) < rating) {
      const { levels: _, ...port } = giver.port
      const charger: Device = {
        ...giver.device,
        ports: giver.device.ports.map((each) => (each.id === port.id ? { ...port, gives: rating } : each)),
      }
      yield {
        family: 'larger charger',
        words: { code: 'larger charger', charger: charger.name, watts: rating },
        effort: 'device',
        price: priceWith(index, 'charger', 0),
        apply: (plan) => put(plan, 'devices', charger),
      }
    }
    if (need.kind === 'power') yield* secondLead(scene, need, rating)
  }
  for (const end of [run.from, run.to]) {
    const place = index.places.get(index.devices.get(end.device)?.place ?? '')
    const hungry = verdict.findings.some(({ remedies }) =>
      remedies.some(({ code }) => code === 'feed-lead' || code === 'powered-far-end'),
    )
    const unfed = verdict.findings.some(({ check, grade }) => check === 'far-end power' && grade !== 'clear')
    if (!place || place.mains || !(hungry || unfed)) continue
    yield {
      family: 'mains',
      words: { code: 'mains at', place: place.name },
      effort: 'building',
      price: null,
      apply: (plan) => put(plan, 'places', { ...place, mains: true }),
    }
  }
}

/** The device takes its power from a charger of its own, over a port that is free, beside what it has. */
function* secondLead(
  { index, site }: Scene,
  need: Extract<Scene['crossings'][number]['need'], { kind: 'power' }>,
  rating: Watts,
): Iterable<Move> {
  const sink = index.devices.get(need.to)
  const port = sink?.ports.find(
    ({ id, connector, takes = 0 }) =>
      connector === 'type-c' && takes > 0 && !index.runsIn.has(portKey({ device: sink.id, port: id })),
  )
  if (!sink || !port) return
  const { plan } = site
  const charger: Device = {
    id: freeIds(plan.devices.map(({ id }) => id))(`${sink.id.slice(0, 40)}-charger`),
    name: `Charger at ${sink.name}`.slice(0, 120),
    kind: 'charger',
    ...(sink.place ? { place: sink.place } : {}),
    busPowered: false,
    ports: [{ id: 'c-1', name: 'C 1', connector: 'type-c', gender: 'socket', role: 'either', gives: rating }],
  }
  const run: Run = {
    id: freeIds(plan.runs.map(({ id }) => id))(`${sink.id.slice(0, 40)}-power`),
    tag: nextRunTag(plan),
    from: { device: charger.id, port: 'c-1' },
    to: { device: sink.id, port: port.id },
    leads: [],
    route: { length: BESIDE },
  }
  const { through: _, ...rest } = need
  const laid = put(put(put(index.plan, 'devices', charger), 'runs', run), 'needs', { ...rest, from: charger.id })
  const made = withBestLeads(laid, [run.id], site.runOf)
  const leads = made.plan.runs.find(({ id }) => id === run.id)?.leads ?? []
  yield {
    family: 'power lead',
    few: true,
    words: { code: 'power lead', sink: sink.name, watts: rating, length: BESIDE },
    effort: 'device',
    price: priceWith(site, 'charger', made.price),
    apply: (onto) => ({
      ...put(put(put(onto, 'devices', charger), 'runs', { ...run, leads }), 'needs', { ...rest, from: charger.id }),
      kinds: withKindsOf(onto, made.plan),
    }),
  }
}
