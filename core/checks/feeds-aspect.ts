import { needsMains } from '../link/mains'
import { besideWatts, drawnBy, fedBy } from '../link/power-link'
import { devicesByPlace, portsInUse, type SiteIndex, type Socket } from '../plan/site-index'
import type { Run } from '../vocabulary/run'
import { type Aspect, either, endsOf, runsAt, withKind } from './aspect'

/** Devices that live on what others bring them: whoever hangs on one hears of what feeds it, and of what else does. */
const passesPower = (index: SiteIndex, id: string): boolean => {
  const device = index.devices.get(id)
  return device?.busPowered === true || device?.keeps !== undefined
}

/** The runs at some devices, and on through those that live on what they are fed. */
function fedTogether(index: SiteIndex, devices: Iterable<string>): Run[] {
  const seen = new Set<string>()
  const runs = new Set<Run>()
  const waiting = [...devices]
  for (let at = waiting.pop(); at !== undefined; at = waiting.pop()) {
    if (seen.has(at)) continue
    seen.add(at)
    for (const run of runsAt(index, at)) {
      runs.add(run)
      for (const { device } of [run.from, run.to])
        if (passesPower(index, at) || passesPower(index, device)) waiting.push(device)
    }
  }
  return [...runs]
}
const fedBeside = (index: SiteIndex, runs: Iterable<Run | undefined>): Run[] =>
  fedTogether(
    index,
    [...runs].flatMap((run) => (run ? [run.from.device, run.to.device] : [])),
  )

/** What devices feed: the runs at them, and at whatever they are joined to, which may have another supply. */
const fedFrom = (index: SiteIndex, devices: readonly string[]): Run[] =>
  fedBeside(
    index,
    devices.flatMap((id) => runsAt(index, id)),
  )

/** What feeds the devices at both ends beside the run: a hub that has no supply, and a second charger. */
export const feeds: Aspect = {
  name: 'feeds',
  ofRun: ({ index, run, crossed }) => [
    ...[run.from, run.to].map(({ device }) => {
      const hub = passesPower(index, device) ? index.devices.get(device) : undefined
      return hub ? [hub.keeps, hub.busPowered, fedBy(index, run, hub), drawnBy(index, hub)] : null
    }),
    crossed.map(({ need }) => (need.kind === 'power' ? besideWatts(index, run, need.to) : null)),
    endsOf(index, run).map((end) => [needsMains(end.device), portsBeside(index, end)]),
  ],
  bears: {
    run: either((index, id) => fedBeside(index, [index.runs.get(id)])),
    runSeen: either((index, id) => fedBeside(index, [index.runs.get(id)])),
    joined: either((index, id) => fedBeside(index, [index.runs.get(id)])),
    device: either((index, id) => fedFrom(index, [id])),
    place: either((index, id) =>
      fedFrom(
        index,
        (devicesByPlace(index.plan.devices).get(id) ?? []).map((device) => device.id),
      ),
    ),
    cable: either((index, id) => fedBeside(index, [index.runOf.get(id)])),
    kind: either((index, id) => fedBeside(index, withKind(index, id))),
    need: either((index, id) => {
      const need = index.needs.get(id)
      return need ? fedTogether(index, [need.from, need.to]) : []
    }),
  },
}

/** The names of the ports that share a pool with one. */
const portsBeside = (index: SiteIndex, { device }: Socket): unknown =>
  device.pool ? portsInUse(index, device).map(({ name }) => name) : null
