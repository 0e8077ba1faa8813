import { Fragment, memo } from 'react'
import { Link as RouterLink } from 'react-router'
import { leadingFinding } from '../../../core/checks/assess'
import { sentence } from '../../../core/checks/sentences'
import { needNames } from '../../../core/checks/wording'
import { captiveLength } from '../../../core/link/captive'
import { formatNeedSize } from '../../../core/needs/need-text'
import { leadCable } from '../../../core/plan/site-index'
import { keptProofOf } from '../../../core/prove/proof'
import { stateWords } from '../../../core/prove/test-words'
import text from '../../theme/text.module.css'
import { DoorStrip } from '../../ui/door-strip'
import { GradeMark } from '../../ui/grade'
import { type RowProps, standsAlike } from '../../ui/long-table'
import { useSite } from '../../ui/site-context'
import { SqueezeBar } from '../../ui/squeeze-bar'
import { Length, useUnit } from '../../ui/units'
import look from './board.module.css'
import type { GroupRow, RunRow } from './board-rows'

export const COLUMNS = [
  'Chosen',
  'Run',
  'Verdict',
  'From and to',
  'Cable',
  'Doors, the narrowest named',
  'Needs, against their door',
]

export const WIDTHS = ['4.25rem', '5.25rem', '7.5rem', '18%', '11%', '9.25rem', 'auto']

/** The head of a group: what its runs have in common, and how many of them wait. */
export function GroupLine({ row, props }: { row: GroupRow; props: RowProps }) {
  const { plan } = useSite()
  return (
    <tr {...props} className={look.group}>
      <th colSpan={COLUMNS.length} scope="rowgroup">
        {row.dock ? (
          <RouterLink to={`/sites/${plan.site.id}/docks/${row.dock}`} className={text.link}>
            {row.name}
          </RouterLink>
        ) : (
          row.name
        )}{' '}
        <span className={text.quiet}>
          {row.count} {row.count === 1 ? 'run' : 'runs'}
          {row.waiting > 0 ? `, ${row.waiting} not clear` : ', all clear'}
        </span>
      </th>
    </tr>
  )
}

/** A run as a row. What is clear says little: its margin as a bar; a sentence stands only where something is wrong. */
export const RunLine = memo(
  DrawnLine,
  (one, other) =>
    one.row === other.row &&
    one.chosen === other.chosen &&
    one.choose === other.choose &&
    standsAlike(one.props, other.props),
)

type LineProps = {
  row: RunRow
  props: RowProps
  chosen: boolean
  choose: (run: string, on: boolean) => void
}

function DrawnLine({ row: { run, verdict, squeeze }, props, chosen, choose }: LineProps) {
  const { plan, index, assessed } = useSite()
  const unit = useUnit()
  const state = keptProofOf(assessed, verdict)?.state ?? 'planned'
  const leading = verdict.grade === 'clear' ? null : leadingFinding(verdict.findings)
  const nameOf = (id: string) => index.devices.get(id)?.name ?? id
  return (
    <tr {...props}>
      <td className={look.tick}>
        <input
          type="checkbox"
          checked={chosen}
          onChange={({ currentTarget }) => choose(run.id, currentTarget.checked)}
          aria-label={`Choose ${run.tag}`}
        />
      </td>
      <td className={text.whole}>
        <RouterLink
          to={`/sites/${plan.site.id}/runs/${run.id}`}
          data-run-link=""
          className={`${text.link} ${text.mono} ${text.strong}`}
        >
          {run.tag}
        </RouterLink>
        <span className={`${text.block} ${text.tiny} ${text.quiet}`}>
          <Length metres={run.route.length} brief />
        </span>
      </td>
      <td>
        <GradeMark grade={verdict.grade} />
        {state !== 'planned' && (
          <RouterLink
            to={`/sites/${plan.site.id}/prove/${run.id}`}
            className={`${text.block} ${text.tiny} ${text.link}`}
          >
            {stateWords[state].name.toLowerCase()}
          </RouterLink>
        )}
      </td>
      <td>
        {nameOf(run.from.device)}
        <span className={`${text.block} ${text.quiet}`}>to {nameOf(run.to.device)}</span>
      </td>
      <td className={`${text.mono} ${text.tiny} ${look.leads}`}>
        {run.leads.map((lead) => {
          const cable = leadCable(index, lead)
          return (
            <span key={cable.id} className={text.block}>
              {cable.tag} <Length metres={cable.length} brief />
            </span>
          )
        })}
        {run.leads.length === 0 && (
          <span className={text.quiet}>{captiveLength(index, run) > 0 ? 'its own' : 'none yet'}</span>
        )}
      </td>
      <td>
        <DoorStrip verdict={verdict} />
      </td>
      <td>
        {verdict.flows.map(({ needId }) => {
          const need = index.needs.get(needId)
          return (
            need && (
              <Fragment key={needId}>
                <span className={`${text.tiny} ${look.need}`}>
                  {needNames[need.kind]} <span className={text.mono}>{formatNeedSize(need)}</span>
                </span>{' '}
              </Fragment>
            )
          )
        })}
        {verdict.flows.length === 0 && <span className={text.quiet}>none stated</span>}
        {squeeze && <SqueezeBar squeeze={squeeze} />}
        {leading && <p>{sentence(leading, unit)}</p>}
      </td>
    </tr>
  )
}
