import { leadTag } from '../../change/differences'
import { mainsAt } from '../../link/mains'
import { nextRunTag } from '../../plan/direct-needs'
import { freeIds } from '../../plan/free-id'
import type { Plan } from '../../plan/plan'
import { put } from '../../plan/put'
import { devicesByPlace, portKey, socketAt } from '../../plan/site-index'
import { givenWatts } from '../../power/negotiate'
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
    if (need.kind === 'power') {
      yield* chargerThatIsThere(scene, need, watts ?? rating)
      yield* secondLead(scene, need, rating)
    }
  }
  yield* poweredHub(scene)
  for (const end of [run.from, run.to]) {
    const place = index.places.get(index.devices.get(end.device)?.place ?? '')
    const hungry = verdict.findings.some(({ remedies }) =>
      remedies.some(({ code }) => code === 'feed-lead' || code === 'powered-far-end' || code === 'mains-there'),
    )
    const unfed = verdict.findings.some(({ check, grade }) => check === 'far-end power' && grade !== 'clear')
    if (place?.mains !== false || !(hungry || unfed)) continue
    yield {
      family: 'mains',
      words: { code: 'mains at', place: place.name },
      effort: 'building',
      price: null,
      apply: (plan) => put(plan, 'places', { ...place, mains: true }),
    }
  }
}

/** A hub with a supply in the place of one that lives on the bus, where it or its volts are not enough. */
function* poweredHub({ index, run, verdict }: Scene): Iterable<Move> {
  const short = verdict.findings.some(
    ({ check, grade, remedies }) =>
      (check === 'bus budget' || check === 'current' || check === 'volts lost') &&
      grade !== 'clear' &&
      remedies.some(({ code }) => code === 'powered-hub' || code === 'stronger-supply'),
  )
  if (!short) return
  for (const end of [run.from, run.to]) {
    const hub = index.devices.get(end.device)
    if (!hub?.busPowered || hub.kind !== 'hub' || mainsAt(index, { device: hub }) === 'none') continue
    yield {
      family: 'powered hub',
      words: { code: 'powered hub', hub: hub.name },
      effort: 'device',
      price: null,
      apply: (plan) => put(plan, 'devices', { ...hub, busPowered: false }),
    }
  }
}

/** A charger that stands at the same place already and has a port free that gives enough, over a free port of the device. */
function* chargerThatIsThere(
  { index, site }: Scene,
  need: Extract<Scene['crossings'][number]['need'], { kind: 'power' }>,
  watts: Watts,
): Iterable<Move> {
  const sink = index.devices.get(need.to)
  const free = freePortOf(index, sink)
  if (!sink?.place || !free) return
  for (const charger of devicesByPlace(site.plan.devices).get(sink.place) ?? []) {
    if (charger.kind !== 'charger' || charger.id === need.from || mainsAt(site, { device: charger }) === 'none')
      continue
    const port = charger.ports.find(
      (each) =>
        each.connector === free.connector &&
        atLeast(givenWatts(each), watts) &&
        !site.runsIn.has(portKey({ device: charger.id, port: each.id })),
    )
    if (!port) continue
    const { leads, named, price, apply } = chargedFrom({ index, site }, sink, charger, port.id, free.id, need)
    if (leads.length === 0) continue
    yield {
      family: 'charger that is there',
      words: {
        code: 'other charger',
        charger: charger.name,
        port: port.name,
        sink: sink.name,
        watts: givenWatts(port),
        lead: named,
        bought: leads.some((lead) => 'kind' in lead),
      },
      effort: price === 0 ? 'lead' : 'bought',
      price,
      apply,
    }
  }
}

const freePortOf = (index: Scene['index'], sink: Device | undefined) =>
  sink?.ports.find(
    ({ id, connector, takes = 0 }) =>
      connector === 'type-c' && takes > 0 && !index.runsIn.has(portKey({ device: sink.id, port: id })),
  )

/** A device charged over a run that carries power alone, from a charger beside it: the best leads for it, what they cost, and the plan with it. */
function chargedFrom(
  { index, site }: Pick<Scene, 'index' | 'site'>,
  sink: Device,
  charger: Device,
  from: string,
  to: string,
  need: Extract<Scene['crossings'][number]['need'], { kind: 'power' }>,
) {
  const { plan } = site
  const run: Run = {
    id: freeIds(plan.runs.map(({ id }) => id))(`${sink.id.slice(0, 40)}-power`),
    tag: nextRunTag(plan),
    from: { device: charger.id, port: from },
    to: { device: sink.id, port: to },
    leads: [],
    route: { length: BESIDE },
  }
  const { through: _, ...rest } = need
  const laid = (onto: Plan, leads: Run['leads']): Plan =>
    put(put(put(onto, 'devices', charger), 'runs', { ...run, leads }), 'needs', { ...rest, from: charger.id })
  const made = withBestLeads(laid(index.plan, []), [run.id], site.runOf)
  const leads = made.plan.runs.find(({ id }) => id === run.id)?.leads ?? []
  return {
    leads,
    named: leads.map((lead) => leadTag(made.plan, lead)).join(' + '),
    price: made.price,
    apply: (onto: Plan): Plan => ({ ...laid(onto, leads), kinds: withKindsOf(onto, made.plan) }),
  }
}

/** The device takes its power from a charger of its own, over a port that is free, beside what it has. */
function* secondLead(
  { index, site }: Scene,
  need: Extract<Scene['crossings'][number]['need'], { kind: 'power' }>,
  rating: Watts,
): Iterable<Move> {
  const sink = index.devices.get(need.to)
  const port = freePortOf(index, sink)
  // a charger wants mains where it stands
  if (!sink || !port || mainsAt(index, { device: sink }) === 'none') return
  const charger: Device = {
    id: freeIds(site.plan.devices.map(({ id }) => id))(`${sink.id.slice(0, 40)}-charger`),
    name: `Charger at ${sink.name}`.slice(0, 120),
    kind: 'charger',
    ...(sink.place ? { place: sink.place } : {}),
    busPowered: false,
    ports: [{ id: 'c-1', name: 'C 1', connector: 'type-c', gender: 'socket', role: 'either', gives: rating }],
  }
  const { price, apply } = chargedFrom({ index, site }, sink, charger, 'c-1', port.id, need)
  yield {
    family: 'power lead',
    few: true,
    words: { code: 'power lead', sink: sink.name, watts: rating, length: BESIDE },
    effort: 'device',
    price: priceWith(site, 'charger', price),
    apply,
  }
}
