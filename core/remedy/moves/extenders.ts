import { nextRunTag } from '../../plan/direct-needs'
import { freeIds } from '../../plan/free-id'
import { put } from '../../plan/put'
import { socketAt } from '../../plan/site-index'
import { atMost } from '../../quantity/limit'
import { linkModeFacts } from '../../standards/link-modes'
import type { Device, Port } from '../../vocabulary/device'
import { mostAsked } from '../../vocabulary/need'
import { type Run, withLength } from '../../vocabulary/run'
import { priceWith, withBestLeads, withKindsOf } from '../best-lead'
import type { Move, Scene } from '../move'

/** A lead at each end of the category cable. */
const SHORT = 1
/** Over category cable USB goes to 100 m with better extenders (common practice). */
const FURTHEST = 100

/** Two extender ends with category cable between them, where data alone crosses and the way is longer than leads are. */
export function* extenderPair({ index, site, run, crossings }: Scene): Iterable<Move> {
  const { length } = run.route
  const pictures = crossings.some(({ need }) => need.kind === 'picture' || need.kind === 'power')
  const { device: host, port } = socketAt(index, run.from)
  const usb = port.connector === 'type-a' || port.connector === 'type-c'
  if (pictures || crossings.length === 0 || !usb || length < 3 * SHORT || length > FURTHEST) return
  const asked = crossings.reduce((sum, { need }) => sum + mostAsked(need), 0)
  const mode: Port['usb'] = atMost(asked, linkModeFacts.usb2.payload) ? 'usb2' : 'gen2x1'
  const freeDevice = freeIds(site.plan.devices.map(({ id }) => id))
  const freeRun = freeIds(site.plan.runs.map(({ id }) => id))
  const socket = (id: string, name: string, rest: Partial<Port>): Port => ({
    id,
    name,
    connector: 'type-c',
    gender: 'socket',
    role: 'either',
    usb: mode,
    ...rest,
  })
  const placeOf = (id: string) => {
    const place = index.devices.get(id)?.place
    return place ? { place } : {}
  }
  const near: Device = {
    id: freeDevice(`${run.id.slice(0, 40)}-near-end`),
    name: `Extender of ${run.tag}, host end`,
    kind: 'extender',
    ...placeOf(host.id),
    busPowered: false,
    ports: [socket('in', 'In', { role: 'device' }), socket('link', 'Link', { connector: '8p8c', role: 'host' })],
  }
  const far: Device = {
    id: freeDevice(`${run.id.slice(0, 40)}-far-end`),
    name: `Extender of ${run.tag}, far end`,
    kind: 'extender',
    ...placeOf(run.to.device),
    busPowered: false,
    ports: [
      socket('link', 'Link', { connector: '8p8c', role: 'device' }),
      socket('out', 'Out', { connector: port.connector, role: 'host', gives: port.connector === 'type-c' ? 15 : 7.5 }),
    ],
  }
  const tag = nextRunTag(site.plan)
  const nextTag = tag.replace(/\d{1,9}$/, (digits) => String(Number(digits) + 1).padStart(digits.length, '0'))
  const first: Run = {
    id: freeRun(`${run.id.slice(0, 40)}-near`),
    tag,
    from: run.from,
    to: { device: near.id, port: 'in' },
    leads: [],
    route: { length: SHORT },
  }
  const between: Run = {
    id: freeRun(`${run.id.slice(0, 40)}-between`),
    tag: nextTag,
    from: { device: near.id, port: 'link' },
    to: { device: far.id, port: 'link' },
    leads: [],
    route: withLength(run.route, length - SHORT),
  }
  const last: Run = { ...run, from: { device: far.id, port: 'out' }, leads: [], route: { length: SHORT } }
  const runs = [first, between, last]
  const laid = runs.reduce(
    (made, each) => put(made, 'runs', each),
    put(put(index.plan, 'devices', near), 'devices', far),
  )
  const made = withBestLeads(
    laid,
    runs.map(({ id }) => id),
    site.runOf,
  )
  const ids = new Set(runs.map(({ id }) => id))
  const led = made.plan.runs.filter(({ id }) => ids.has(id))
  yield {
    family: 'extender pair',
    words: { code: 'extender pair', run: run.tag, length },
    effort: 'device',
    price: priceWith(site, 'extender pair', made.price),
    apply: (plan) => ({
      ...led.reduce((sum, each) => put(sum, 'runs', each), put(put(plan, 'devices', near), 'devices', far)),
      kinds: withKindsOf(plan, made.plan),
    }),
  }
}
