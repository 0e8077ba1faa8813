import type { RunVerdict } from '../../../core/checks/assess'
import { marginOf, narrowestOf } from '../../../core/checks/finding'
import { sentence } from '../../../core/checks/sentences'
import { openingOf } from '../../../core/link/doors'
import type { Choice } from '../../../core/match/together'
import { formatLength } from '../../../core/quantity/length'
import { formatRate } from '../../../core/quantity/rate'
import { formatWatts } from '../../../core/quantity/watts'
import { gradeFacts } from '../../../core/standards/grades'
import type { CableKind } from '../../../core/vocabulary/cable'
import { DoorStrip } from '../../ui/door-strip'
import { GradeMark } from '../../ui/grade'
import { RuledTable } from '../../ui/ruled-table'
import { useSite } from '../../ui/site-context'
import { SqueezeBar } from '../../ui/squeeze-bar'
import { useUnit } from '../../ui/units'
import type { RunDraft } from './use-draft'

/** Weight, stiffness, straps and plugs, where somebody has said. */
const handWords = (hand: CableKind['hand']): string =>
  [
    hand?.gramsPerMetre === undefined ? '' : `${hand.gramsPerMetre} g/m`,
    hand?.feel ?? '',
    hand?.strap ? 'with a strap' : '',
    hand?.angled ? 'a plug at a right angle' : '',
  ]
    .filter(Boolean)
    .join(', ') || 'not said'

type Column = { name: string; verdict: RunVerdict; made?: string; hand?: string; price?: string }

/** Door by door: what each lead passes here, beside the one that is planned now. */
export function SideBySide({ draft, choices }: { draft: RunDraft; choices: readonly Choice[] }) {
  const unit = useUnit()
  const { plan, index } = useSite()
  const columns: Column[] = [
    { name: draft.run.leads.length > 0 ? 'As planned' : 'Without', verdict: draft.verdict },
    ...choices.map((choice): Column => {
      if (choice.from === 'drawer') {
        const { cable, verdict } = choice
        const kind = index.kinds.get(cable.kind ?? '')
        const made = [kind ? gradeFacts[kind.grade].name : '', cable.construction].filter(Boolean).join(', ')
        return { name: cable.tag, verdict, made, hand: handWords(kind?.hand), price: 'in the drawer' }
      }
      const { kind, length, verdict, price } = choice
      return {
        name: `${kind.name}, ${formatLength(length, unit)}`,
        verdict,
        made: `${gradeFacts[kind.grade].name}, ${kind.construction}`,
        hand: handWords(kind.hand),
        price: price === null ? 'to be asked' : `${price} ${plan.policy.currency}`,
      }
    }),
  ]
  const row = (label: string, cell: (column: Column) => React.ReactNode) => (
    <tr>
      <th scope="row">{label}</th>
      {columns.map((column) => (
        <td key={column.name}>{cell(column)}</td>
      ))}
    </tr>
  )
  return (
    <RuledTable
      wide
      label="Side by side"
      columns={['', ...columns.map(({ name }) => name)]}
      widths={['8.5rem', ...columns.map(() => `${100 / columns.length}%`)]}
    >
      {row('Verdict', ({ verdict }) => (
        <GradeMark grade={verdict.grade} size="xs" />
      ))}
      {row('Doors', ({ verdict }) => (
        <DoorStrip verdict={verdict} />
      ))}
      {row('The lead passes', ({ verdict }) => {
        const leads = verdict.doors.filter(({ kind }) => kind === 'lead')
        const least = leads.length > 0 ? Math.min(...leads.map(openingOf)) : 0
        return least > 0 ? formatRate(least) : 'nothing'
      })}
      {row('Need against door', ({ verdict }) => {
        const squeeze = narrowestOf(verdict.findings)
        return squeeze ? <SqueezeBar squeeze={squeeze} /> : ''
      })}
      {row('Power', ({ verdict }) => {
        const watts = verdict.doors.filter(({ kind }) => kind === 'lead').map((door) => door.watts)
        return watts.length > 0 ? formatWatts(Math.min(...watts)) : ''
      })}
      {row('Made', ({ made }) => made ?? '')}
      {row('In the hand', ({ hand }) => hand ?? '')}
      {row('Price', ({ price }) => price ?? '')}
      {row('What is short', ({ verdict }) => {
        const short = verdict.findings.find((finding) => finding.grade === 'blocked' && (marginOf(finding) ?? 0) < 0)
        return short ? sentence(short, unit) : ''
      })}
    </RuledTable>
  )
}
