import { type SiteIndex, socketAt } from '../plan/site-index'
import { givenWatts } from '../power/negotiate'
import { type Port, passesThrough } from '../vocabulary/device'
import type { Need } from '../vocabulary/need'
import type { Run } from '../vocabulary/run'

/** One run of a path and the way it is walked: down is from its host end to its far end. */
export type Step = { run: Run; way: 'down' | 'up' }

/**
 * The way of a need through the site: the fewest runs from one device to the other, through docks, hubs and extender ends
 * only, and over no run twice. Runs whose ports can carry that sort of need are preferred; where there are none, any way is taken so that the verdict can
 * say what is wrong with it. `through` pins runs the path must take, in order. Ties fall to the run that comes first in the list. Null: no way.
 */
export function findPath(index: SiteIndex, need: Need): Step[] | null {
  return walkThrough(index, need, (run) => canCarry(index, run, need)) ?? walkThrough(index, need, () => true)
}

function walkThrough(index: SiteIndex, need: Need, usable: (run: Run) => boolean): Step[] | null {
  const steps: Step[] = []
  let at = need.from
  for (const id of need.through ?? []) {
    const run = index.runs.get(id)
    if (!run) return null
    const nearer = shortest(index, at, new Set([run.from.device, run.to.device]), usable)
    if (!nearer) return null
    steps.push(...nearer.steps)
    const way = nearer.reached === run.from.device ? 'down' : 'up'
    steps.push({ run, way })
    at = way === 'down' ? run.to.device : run.from.device
  }
  const rest = shortest(index, at, new Set([need.to]), usable)
  if (!rest) return null
  steps.push(...rest.steps)
  // there and back over one run is no way
  return new Set(steps.map(({ run }) => run)).size === steps.length ? steps : null
}

function shortest(
  index: SiteIndex,
  start: string,
  goals: ReadonlySet<string>,
  usable: (run: Run) => boolean,
): { steps: Step[]; reached: string } | null {
  if (goals.has(start)) return { steps: [], reached: start }
  // most needs cross one run
  for (const run of index.runsAt.get(start) ?? []) {
    const way = run.from.device === start ? 'down' : 'up'
    const next = way === 'down' ? run.to.device : run.from.device
    if (goals.has(next) && usable(run)) return { steps: [{ run, way }], reached: next }
  }
  const cameBy = new Map<string, Step | null>([[start, null]])
  const waiting = [start]
  for (let at = waiting.shift(); at !== undefined; at = waiting.shift()) {
    for (const run of index.runsAt.get(at) ?? []) {
      if (!usable(run)) continue
      const way = run.from.device === at ? 'down' : 'up'
      const next = way === 'down' ? run.to.device : run.from.device
      if (cameBy.has(next)) continue
      cameBy.set(next, { run, way })
      if (goals.has(next)) return { steps: stepsBack(cameBy, next), reached: next }
      const device = index.devices.get(next)
      if (device && passesThrough(device)) waiting.push(next)
    }
  }
  return null
}

function stepsBack(cameBy: ReadonlyMap<string, Step | null>, end: string): Step[] {
  const steps: Step[] = []
  for (
    let step = cameBy.get(end);
    step;
    step = cameBy.get(step.way === 'down' ? step.run.from.device : step.run.to.device)
  )
    steps.unshift(step)
  return steps
}

const speaksData = (port: Port): boolean =>
  port.usb !== undefined || port.usb4 !== undefined || port.thunderbolt !== undefined
const speaksPicture = (port: Port): boolean =>
  port.displayport !== undefined || port.hdmi !== undefined || port.usb4 !== undefined || port.thunderbolt !== undefined
const speaksPower = (port: Port): boolean => givenWatts(port) > 0 || port.takes !== undefined

function canCarry(index: SiteIndex, run: Run, need: Need): boolean {
  const [from, to] = [socketAt(index, run.from), socketAt(index, run.to)]
  // a dock that makes its pictures over plain USB takes them as data
  if (need.kind === 'picture' && to.device.pictureOverUsb !== undefined)
    return speaksData(from.port) && speaksData(to.port)
  const speaks = need.kind === 'picture' ? speaksPicture : need.kind === 'power' ? speaksPower : speaksData
  return speaks(from.port) && speaks(to.port)
}
