import type { SiteIndex } from '../plan/site-index'
import { type Device, passesThrough } from '../vocabulary/device'

/** The devices that runs join to one, straight or through docks, hubs and extender ends, the nearest first. What only passes on is among them where it feeds what is joined to it. */
export function reachableFrom({ devices, runsAt }: SiteIndex, from: string): Device[] {
  const seen = new Set([from])
  const found: Device[] = []
  const waiting = [from]
  for (let at = waiting.shift(); at !== undefined; at = waiting.shift()) {
    for (const run of runsAt.get(at) ?? []) {
      for (const { device: id } of [run.from, run.to]) {
        if (seen.has(id)) continue
        seen.add(id)
        const device = devices.get(id)
        if (!device) continue
        found.push(device)
        if (passesThrough(device)) waiting.push(id)
      }
    }
  }
  return found
}

/** The computer that a dock hangs on, through whatever passes on between; null where none does. */
export function hostBehind({ devices, runsAt }: SiteIndex, dock: string): string | null {
  const seen = new Set<string>()
  for (let at: string | undefined = dock; at !== undefined && !seen.has(at); ) {
    seen.add(at)
    const here: string = at
    const up = runsAt.get(here)?.find(({ to }) => to.device === here)
    const device = up && devices.get(up.from.device)
    if (!up || !device) return null
    if (!passesThrough(device)) return device.id
    at = device.id
  }
  return null
}
