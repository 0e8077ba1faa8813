import { useCallback } from 'react'
import { knownOf } from '../../../core/link/lay'
import { cableToBuy, type SiteIndex } from '../../../core/plan/site-index'
import { formatLength, type LengthUnit } from '../../../core/quantity/length'
import { connectorNames } from '../../../core/standards/connectors'
import { gradeFacts } from '../../../core/standards/grades'
import type { Cable } from '../../../core/vocabulary/cable'
import { laidCables, leadFrom, type Run } from '../../../core/vocabulary/run'
import { ChoiceField, type Option, type OptionGroup } from '../../ui/choice'
import type { Known } from '../../ui/field'
import { useSite } from '../../ui/site-context'
import { useUnit } from '../../ui/units'

/** Every cable that may be chosen: those in the drawer first, then those laid elsewhere; the retired are left out. */
export function LeadField({ field, label, run }: { field: Known; label: string; run: Run | null }) {
  const { index } = useSite()
  const unit = useUnit()
  const groups = useCallback(() => leadGroups(index, run, unit), [index, run, unit])
  return (
    <ChoiceField
      field={field}
      label={label}
      none="No cable yet"
      count={index.plan.cables.length + index.plan.kinds.length}
      groups={groups}
      one={(value) => {
        const named = leadFrom(value)
        if ('cable' in named) {
          const cable = index.cables.get(named.cable)
          return cable ? leadOption(index, run, unit, cable) : null
        }
        const kind = index.kinds.get(named.kind)
        return kind && named.length > 0 ? leadOption(index, run, unit, cableToBuy(kind, named.length)) : null
      }}
    />
  )
}

/** The run a cable lies in, if that is another one. */
const laidIn = (index: SiteIndex, run: Run | null, cable: Cable): Run | undefined => {
  const laid = index.runOf.get(cable.id)
  return laid?.id === run?.id ? undefined : laid
}

function leadGroups(index: SiteIndex, run: Run | null, unit: LengthUnit): OptionGroup[] {
  const usable = index.plan.cables.filter(
    ({ id, standing }) => standing !== 'retired' || (run && laidCables(run).includes(id)),
  )
  const optionsOf = (cables: readonly Cable[]): Option[] => cables.map((cable) => leadOption(index, run, unit, cable))
  const isLaid = (cable: Cable): boolean => laidIn(index, run, cable) !== undefined
  return [
    { label: 'In the drawer', options: optionsOf(usable.filter((cable) => !isLaid(cable))) },
    { label: 'Laid in other runs', options: optionsOf(usable.filter(isLaid)) },
    { label: 'To be bought', options: optionsOf(cablesToBuy(index, run)) },
  ]
}

/** What the catalogue has at the lengths it is sold in, and what lies in the run as yet to be had. */
function cablesToBuy({ plan, kinds }: SiteIndex, run: Run | null): Cable[] {
  const sold = plan.kinds.flatMap((kind) => kind.stock.map(({ length }) => cableToBuy(kind, length)))
  const laid = (run?.leads ?? []).flatMap((lead) => {
    const kind = 'kind' in lead ? kinds.get(lead.kind) : undefined
    return kind && 'length' in lead ? cableToBuy(kind, lead.length) : []
  })
  return [...new Set([...sold, ...laid])]
}

function leadOption(index: SiteIndex, run: Run | null, unit: LengthUnit, cable: Cable): Option {
  const grade = knownOf(index, cable).grade.value
  const ends = cable.ends
    .map((end) => connectorNames[end.connector] + (end.gender === 'socket' ? ' socket' : ''))
    .join(' to ')
  const other = laidIn(index, run, cable)
  const where = !index.cables.has(cable.id)
    ? ' (to be bought)'
    : other
      ? ` (lies in ${other.tag})`
      : cable.standing === 'drawer'
        ? ''
        : ` (${cable.standing})`
  return {
    value: cable.id,
    words: `${cable.tag}: ${ends}, ${formatLength(cable.length, unit)}, ${grade ? gradeFacts[grade].name : 'unknown'} ${cable.construction}${where}`,
  }
}
