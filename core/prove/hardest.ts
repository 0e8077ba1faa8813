import { besideAt } from '../bench/where'
import type { Crossing } from '../checks/situation'
import { formatNeedSize } from '../needs/need-text'
import type { SiteIndex } from '../plan/site-index'
import { needLabel } from '../vocabulary/need'
import type { Run } from '../vocabulary/run'

/** Names of neighbours told at most; the rest are counted. */
const NAMED = 4

/**
 * What goes on at once on a run in its hardest case, from the plan: all its pictures, copies both ways, charging at the lowest battery, the highest refresh, bus
 * power, and what else is plugged into its computer. Empty where one thing alone crosses it and nothing is beside it.
 */
export function hardestOf(index: SiteIndex, run: Run, crossings: readonly Crossing[]): string[] {
  const named = (crossing: Crossing): string => needLabel(crossing.need, index.devices)
  const all: string[] = []
  const pictures = crossings.filter(({ need }) => need.kind === 'picture')
  if (pictures.length > 0)
    all.push(
      `Pictures up: ${pictures.map(({ need }) => `${needLabel(need, index.devices)} at ${formatNeedSize(need)}`).join(', ')}`,
    )
  for (const crossing of crossings) {
    const { need } = crossing
    if (need.kind === 'storage') all.push(`Copy both ways at once: ${named(crossing)}`)
    if (need.kind === 'headset')
      all.push(`Headset in use${need.refresh === undefined ? '' : ` at ${need.refresh} Hz`}: ${named(crossing)}`)
    if (need.kind === 'power') all.push(`Charge from the lowest battery: ${named(crossing)}`)
    if (['camera', 'sensor', 'audio', 'data', 'own screen'].includes(need.kind)) all.push(`In use: ${named(crossing)}`)
  }
  const beside = besideAt(index, run.from, run.id).beside ?? []
  if (beside.length > 0) {
    const more = beside.length - NAMED
    all.push(`Plugged in beside it: ${beside.slice(0, NAMED).join(', ')}${more > 0 ? ` and ${more} more` : ''}`)
  }
  return crossings.length + Number(beside.length > 0) > 1 ? all : []
}
