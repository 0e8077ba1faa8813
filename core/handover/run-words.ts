import { listed } from '../checks/wording'
import { abilitiesOf } from '../link/abilities'
import { formatNeedSize } from '../needs/need-text'
import { leadCable, type SiteIndex } from '../plan/site-index'
import { shortCode } from '../tags/short-code'
import { needLabel } from '../vocabulary/need'
import type { PortAddress, Run } from '../vocabulary/run'
import type { BookOf } from './section'

/** The leads of a run by their tags; of those that are yet to be had the kind. */
export const leadTags = (index: SiteIndex, { leads }: Run): string =>
  leads.map((lead) => leadCable(index, lead).tag).join(' + ') || 'its own lead'

/** What a run is for: what crosses it, each with its size. */
export function usesOf({ site }: Pick<BookOf, 'site'>, run: Run): string[] {
  const { index, walks } = site
  return (walks.crossings.get(run.id) ?? []).map(
    ({ need }) => `${needLabel(need, index.devices)} (${formatNeedSize(need)})`,
  )
}

/** What each lead of a run may be used for by itself, as it stands on its tag. */
export const codesOf = (index: SiteIndex, run: Run): string[] =>
  run.leads.map((lead) => shortCode(abilitiesOf(index, leadCable(index, lead))))

export const usesWords = (of: Pick<BookOf, 'site'>, run: Run): string => listed(usesOf(of, run)) || 'no need crosses it'

/** The ends of a run as somebody at a device sees them: this one, and where it goes. */
export const endsFrom = ({ from, to }: Run, device: string): readonly [here: PortAddress, there: PortAddress] =>
  from.device === device ? [from, to] : [to, from]
