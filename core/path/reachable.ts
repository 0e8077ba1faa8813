import { type Device, passesThrough } from '../plan/device'
import type { SiteIndex } from '../plan/site-index'

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
