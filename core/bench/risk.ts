import { cautionsOf } from '../drawer/cable-cautions'
import { knownOf } from '../link/lay'
import { ranHotOfKind } from '../link/record'
import type { SiteIndex } from '../plan/site-index'
import type { Cable } from '../vocabulary/cable'

/** Whether a lead is suspected of getting hot: such leads are tried last, when least is plugged in (common practice). */
export function isRisky(index: SiteIndex, cable: Cable): boolean {
  const known = knownOf(index, cable)
  if (known.hot !== null || (cable.kind !== undefined && ranHotOfKind(index, cable.kind) > 0)) return true
  for (const { code } of cautionsOf(cable, known)) if (code === 'thin-wire') return true
  // it promises a current that its chip does not know
  return known.conflicts.some(({ about }) => about === 'amps')
}
