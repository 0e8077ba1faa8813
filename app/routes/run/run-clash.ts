import { leadTag } from '../../../core/change/differences'
import { needNames } from '../../../core/checks/wording'
import { formatNeedSize } from '../../../core/needs/need-text'
import type { Plan } from '../../../core/plan/plan'
import { formatLengthBoth } from '../../../core/quantity/length'
import type { Need } from '../../../core/vocabulary/need'
import type { Run } from '../../../core/vocabulary/run'
import type { ClashWith } from '../../../server/sites/change-site'
import type { ClashLine } from '../../ui/clash-notice'

/** A clash as it is told to whoever lost: what each made of what both changed. */
export type ToldClash = { by: string; deleted: boolean; lines: ClashLine[] }

/** What two people made of one run and its needs, in words. */
export function tellRunClash(plan: Plan, clashes: readonly ClashWith[]): ToldClash {
  const lines = clashes.flatMap((clash): ClashLine[] => {
    if (clash.list === 'needs') return [needLine(clash.mine as Need | null, clash.theirs as Need | null)]
    const mine = clash.mine as Run | null
    const theirs = clash.theirs as Run | null
    if (!mine || !theirs) return []
    return [...new Set(clash.fields.map((field) => field.split('.')[0] as keyof Run))].map((field) => ({
      name: fieldNames[field] ?? field,
      mine: inWords(plan, mine, field),
      theirs: inWords(plan, theirs, field),
    }))
  })
  return {
    by: clashes.flatMap(({ by }) => by ?? [])[0] ?? 'Somebody else',
    deleted: clashes.some(({ list, theirs }) => list === 'runs' && theirs === null),
    lines,
  }
}

const fieldNames: Partial<Record<keyof Run, string>> = {
  tag: 'Tag',
  from: 'Host port',
  to: 'Device port',
  leads: 'Cable',
  route: 'Route length',
  note: 'Note',
}

function inWords(plan: Plan, run: Run, field: keyof Run): string {
  const end = ({ device, port }: Run['from']) =>
    `${plan.devices.find(({ id }) => id === device)?.name ?? device}, ${port}`
  switch (field) {
    case 'from':
    case 'to':
      return end(run[field])
    case 'leads':
      return run.leads.map((lead) => leadTag(plan, lead)).join(' + ')
    case 'route':
      return formatLengthBoth(run.route.length)
    default:
      return String(run[field] ?? '')
  }
}

const needLine = (mine: Need | null, theirs: Need | null): ClashLine => {
  const words = (need: Need | null) => (need ? `${needNames[need.kind]} ${formatNeedSize(need)}` : 'it is gone')
  return { name: 'Need', mine: words(mine), theirs: words(theirs) }
}
