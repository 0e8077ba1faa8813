import type { ReactNode } from 'react'
import { Link as RouterLink, useSearchParams } from 'react-router'
import type { RunVerdict } from '../../../core/checks/assess'
import { needNames } from '../../../core/checks/wording'
import { NEED_KINDS } from '../../../core/vocabulary/need'
import { keptWith } from '../../../core/work/kept'
import { InlineSelect } from '../../ui/field'
import { useSite } from '../../ui/site-context'
import look from './board.module.css'
import { type BoardLook, GROUPINGS, groupingWords, SORTINGS, sortingWords } from './board-rows'

/** How many runs have each verdict, and what flows over any of them. */
const contentsOf = keptWith((runs: readonly RunVerdict[]) => {
  const counts = { blocked: 0, tight: 0, clear: 0 }
  const flows = new Set<string>()
  for (const { grade, flows: own } of runs) {
    counts[grade] += 1
    for (const { kind } of own) flows.add(kind)
  }
  return { counts, flows }
})

/** What is shown now, which the address may only be on its way to, and how another look is asked for. */
type Looking = { search: string; show: (search: string) => void }

/** How the board is looked at: by verdict, by what flows, grouped, sorted. Every choice is an address; `show` is told of it before the address is reached. */
export function BoardFilters({ look: asked, ...looking }: { look: BoardLook } & Looking) {
  const { assessment } = useSite()
  const { counts, flows } = contentsOf(assessment.runs)
  return (
    <div className={look.filters} data-paper="no">
      <nav aria-label="Show runs by verdict" className={look.grades}>
        <Choice {...looking} name="grade" value={null} on={asked.grade === null}>
          all {assessment.runs.length}
        </Choice>
        {(['blocked', 'tight', 'clear'] as const).map((grade) => (
          <Choice key={grade} {...looking} name="grade" value={grade} on={asked.grade === grade}>
            {grade} {counts[grade]}
          </Choice>
        ))}
      </nav>
      <Menu {...looking} label="Kind of need" name="flow" value={asked.flow ?? ''}>
        <option value="">all kinds</option>
        {NEED_KINDS.filter((kind) => flows.has(kind)).map((kind) => (
          <option key={kind} value={kind}>
            {needNames[kind]}
          </option>
        ))}
      </Menu>
      <Menu {...looking} label="Group" name="by" value={asked.by}>
        {GROUPINGS.map((each) => (
          <option key={each} value={each === 'none' ? '' : each}>
            {groupingWords[each]}
          </option>
        ))}
      </Menu>
      <Menu {...looking} label="Order" name="sort" value={asked.sort}>
        {SORTINGS.map((each) => (
          <option key={each} value={each === 'worst' ? '' : each}>
            {sortingWords[each]}
          </option>
        ))}
      </Menu>
    </div>
  )
}

/** What is shown with one choice made otherwise; what happened before is not told again. */
function chosen(shown: string, name: string, value: string | null): string {
  const next = new URLSearchParams(shown)
  for (const told of ['removed', 'restored', 'tag', 'took', 'from']) next.delete(told)
  if (value) next.set(name, value)
  else next.delete(name)
  return next.toString()
}

function Choice({
  search: shown,
  show,
  name,
  value,
  on,
  children,
}: {
  name: string
  value: string | null
  on: boolean
  children: ReactNode
} & Looking) {
  const search = chosen(shown, name, value)
  return (
    <RouterLink
      to={{ search }}
      onClick={({ button, altKey, ctrlKey, metaKey, shiftKey }) => {
        if (button === 0 && !(altKey || ctrlKey || metaKey || shiftKey)) show(search)
      }}
      aria-current={on ? 'true' : undefined}
      className={look.choice}
      preventScrollReset
    >
      {children}
    </RouterLink>
  )
}

function Menu({
  search: shown,
  show,
  label,
  name,
  value,
  children,
}: {
  label: string
  name: string
  value: string
  children: ReactNode
} & Looking) {
  const [, setParams] = useSearchParams()
  return (
    <InlineSelect
      aria-label={label}
      value={value === 'none' || value === 'worst' ? '' : value}
      onChange={({ currentTarget }) => {
        const search = chosen(shown, name, currentTarget.value)
        show(search)
        setParams(search, { preventScrollReset: true, replace: true })
      }}
    >
      {children}
    </InlineSelect>
  )
}
