import type { ReactNode } from 'react'
import { Link as RouterLink, useSearchParams } from 'react-router'
import { needNames } from '../../../core/checks/sentences'
import { NEED_KINDS } from '../../../core/plan/need'
import { useSite } from '../../ui/site-context'
import look from './board.module.css'
import { type BoardLook, GROUPINGS, groupingWords, SORTINGS, sortingWords } from './board-rows'

/** How the board is looked at: by verdict, by what flows, grouped, sorted. Every choice is an address. */
export function BoardFilters({ look: asked }: { look: BoardLook }) {
  const { assessment } = useSite()
  const counts = { blocked: 0, tight: 0, clear: 0 }
  const flows = new Set<string>()
  for (const { grade, flows: own } of assessment.runs) {
    counts[grade] += 1
    for (const { kind } of own) flows.add(kind)
  }
  return (
    <div className={look.filters}>
      <nav aria-label="Show runs by verdict" className={look.grades}>
        <Choice name="grade" value={null} on={asked.grade === null}>
          all {assessment.runs.length}
        </Choice>
        {(['blocked', 'tight', 'clear'] as const).map((grade) => (
          <Choice key={grade} name="grade" value={grade} on={asked.grade === grade}>
            {grade} {counts[grade]}
          </Choice>
        ))}
      </nav>
      <Menu label="What flows" name="flow" value={asked.flow ?? ''}>
        <option value="">whatever flows</option>
        {NEED_KINDS.filter((kind) => flows.has(kind)).map((kind) => (
          <option key={kind} value={kind}>
            {needNames[kind]}
          </option>
        ))}
      </Menu>
      <Menu label="Group" name="by" value={asked.by}>
        {GROUPINGS.map((each) => (
          <option key={each} value={each === 'none' ? '' : each}>
            {groupingWords[each]}
          </option>
        ))}
      </Menu>
      <Menu label="Order" name="sort" value={asked.sort}>
        {SORTINGS.map((each) => (
          <option key={each} value={each === 'list' ? '' : each}>
            {sortingWords[each]}
          </option>
        ))}
      </Menu>
    </div>
  )
}

/** The address with one choice made otherwise; what happened before is not told again. */
function chosen(params: URLSearchParams, name: string, value: string | null): string {
  const next = new URLSearchParams(params)
  for (const told of ['removed', 'restored', 'tag', 'took', 'from']) next.delete(told)
  if (value) next.set(name, value)
  else next.delete(name)
  return next.toString()
}

function Choice({
  name,
  value,
  on,
  children,
}: {
  name: string
  value: string | null
  on: boolean
  children: ReactNode
}) {
  const [params] = useSearchParams()
  return (
    <RouterLink
      to={{ search: chosen(params, name, value) }}
      aria-current={on ? 'true' : undefined}
      className={look.choice}
      preventScrollReset
    >
      {children}
    </RouterLink>
  )
}

function Menu({ label, name, value, children }: { label: string; name: string; value: string; children: ReactNode }) {
  const [params, setParams] = useSearchParams()
  return (
    <select
      aria-label={label}
      value={value === 'none' || value === 'list' ? '' : value}
      onChange={({ currentTarget }) =>
        setParams(chosen(params, name, currentTarget.value), { preventScrollReset: true, replace: true })
      }
      className={look.menu}
    >
      {children}
    </select>
  )
}
