import { cautionsOf } from '../drawer/cable-cautions'
import { knownOf } from '../link/lay'
import { ranHotOfKind } from '../link/record'
import type { SiteIndex } from '../plan/site-index'
import type { Cable } from '../vocabulary/cable'
import type { Setup } from './setup'

/** Whether a lead is suspected of getting hot: such leads are tried last, on the equipment that matters least (common practice). */
export function isRisky(index: SiteIndex, cable: Cable): boolean {
  const known = knownOf(index, cable)
  if (known.hot !== null || (cable.kind !== undefined && ranHotOfKind(index, cable.kind) > 0)) return true
  for (const { code } of cautionsOf(cable, known)) if (code === 'thin-wire') return true
  // it promises a current that its chip does not know
  return known.conflicts.some(({ about }) => about === 'amps')
}

/** The setup on the equipment that matters least: the devices with the fewest runs laid to them, the first of those that have as few. */
export function leastAtStake(index: SiteIndex, setups: readonly Setup[]): Setup | null {
  const runs = ({ from, to }: Setup): number =>
    [from, to].reduce((sum, { device }) => sum + (index.runsAt.get(device)?.length ?? 0), 0)
  return setups.reduce<Setup | null>((least, each) => (least && runs(least) <= runs(each) ? least : each), null)
}
