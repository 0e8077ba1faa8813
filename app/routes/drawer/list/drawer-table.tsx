// biome-ignore-all lint/a11y/useSemanticElements: rows that are placed by hand lie in no table box, so their roles are said outright
// biome-ignore-all lint/a11y/useFocusableInteractive: the grid itself holds the focus and names its active row
import { Box, Flex } from '@chakra-ui/react'
import { type SortingState, useTable } from '@tanstack/react-table'
import { useVirtualizer } from '@tanstack/react-virtual'
import { type KeyboardEvent, memo, useEffect, useId, useMemo, useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import type { DrawerRow } from '../../../../core/drawer/drawer-rows'
import { columns, features } from './drawer-columns'
import { drawerLook, ROW_HEIGHT } from './drawer-look'

/** Ids of the cables that are chosen. */
export type Chosen = Readonly<Record<string, true>>

/** What the server draws, which cannot know how high the window is; the browser then draws what it has room for. */
const FIRST_VIEW = { width: 1080, height: 620 }

const chosenFrom = (ids: readonly { id: string }[]): Chosen => Object.fromEntries(ids.map(({ id }) => [id, true]))
const sortWords = { asc: 'ascending', desc: 'descending' } as const

type Props = {
  /** Every cable of the drawer; it stays the same while `shown` follows what is typed. */
  rows: readonly DrawerRow[]
  shown: readonly DrawerRow[]
  chosen: Chosen
  choose: (chosen: Chosen) => void
}

/**
 * The drawer as a table of which only the rows in view are drawn. Rows are walked with the arrow keys, chosen with the space bar, and opened
 * with Enter.
 */
export const DrawerTable = memo(function DrawerTable({ rows, shown, chosen, choose }: Props) {
  const id = useId()
  const [sorting, setSorting] = useState<SortingState>([])
  const table = useTable({
    features,
    columns,
    data: rows as DrawerRow[],
    getRowId: ({ cable }) => cable.id,
    state: { sorting },
    onSortingChange: setSorting,
  })
  // all rows are sorted once; what a job leaves of them is only picked out
  const sorted = table.getRowModel().rows
  const listed = useMemo(() => {
    if (shown.length === sorted.length) return sorted
    const wanted = new Set(shown)
    return sorted.filter((row) => wanted.has(row.original))
  }, [sorted, shown])
  const frame = useRef<HTMLDivElement>(null)
  const rowHeight = useRowHeight()
  const virtual = useVirtualizer({
    count: listed.length,
    getScrollElement: () => frame.current,
    estimateSize: () => rowHeight,
    getItemKey: (at) => listed[at]?.id ?? at,
    initialRect: FIRST_VIEW,
    overscan: 8,
  })
  // biome-ignore lint/correctness/useExhaustiveDependencies: another height makes all that was reckoned with the old one void
  useEffect(() => virtual.measure(), [rowHeight])
  const [active, setActive] = useState(0)
  const here = Math.min(active, listed.length - 1)
  const idAt = (at: number): string => listed[at]?.id ?? ''
  const navigate = useNavigate()

  const go = (to: number, extend: boolean) => {
    const next = Math.max(0, Math.min(listed.length - 1, to))
    setActive(next)
    virtual.scrollToIndex(next)
    if (extend) choose({ ...chosen, ...chosenFrom(listed.slice(Math.min(here, next), Math.max(here, next) + 1)) })
  }
  const toggle = (cable: string) => {
    const { [cable]: was, ...others } = chosen
    choose(was ? others : { ...chosen, [cable]: true })
  }
  const onKey = (event: KeyboardEvent) => {
    if (event.target !== event.currentTarget) return
    const page = Math.max(1, Math.floor((frame.current?.clientHeight ?? 400) / rowHeight) - 2)
    const moves: Record<string, number> = {
      ArrowDown: here + 1,
      ArrowUp: here - 1,
      PageDown: here + page,
      PageUp: here - page,
      Home: 0,
      End: listed.length - 1,
    }
    const to = moves[event.key]
    if (to !== undefined) go(to, event.shiftKey)
    else if (event.key === ' ') toggle(idAt(here))
    else if (event.key === 'Enter') navigate(`../cables/${encodeURIComponent(idAt(here))}`, { relative: 'path' })
    else if (event.key === 'Escape') choose({})
    else if (event.key === 'a' && (event.ctrlKey || event.metaKey)) choose(chosenFrom(listed))
    else return
    event.preventDefault()
  }
  const allChosen = listed.every((row) => chosen[row.id])
  // another list starts again at its top
  // biome-ignore lint/correctness/useExhaustiveDependencies: the list itself is the reason
  useEffect(() => {
    setActive(0)
    // asking the frame itself where it stands would lay the page out
    if (virtual.scrollOffset) virtual.scrollToOffset(0)
  }, [shown])

  return (
    <Box border="1px solid" borderColor="line" borderRadius="2px" bg="card">
      <Box
        ref={frame}
        role="grid"
        aria-label="Cables"
        aria-multiselectable
        aria-rowcount={listed.length + 1}
        aria-activedescendant={`${id}-${idAt(here)}`}
        aria-describedby={`${id}-keys`}
        tabIndex={0}
        onKeyDown={onKey}
        h={{ base: 'calc(100vh - 330px)', md: 'calc(100vh - 236px)' }}
        minH="260px"
        overflowY="auto"
        position="relative"
        css={drawerLook}
      >
        <Box role="rowgroup" position="sticky" top="0" zIndex="1" bg="floor" py="2">
          <div role="row" aria-rowindex={1}>
            <div role="columnheader" data-column="choose">
              <input
                type="checkbox"
                aria-label="Choose all that are listed"
                checked={allChosen}
                onChange={() => choose(allChosen ? {} : chosenFrom(listed))}
              />
            </div>
            {table.getFlatHeaders().map((header) => {
              const order = header.column.getIsSorted()
              return (
                <div
                  key={header.id}
                  role="columnheader"
                  data-column={header.id}
                  aria-sort={order ? sortWords[order] : 'none'}
                >
                  <button type="button" onClick={header.column.getToggleSortingHandler()}>
                    <table.FlexRender header={header} />
                    <span aria-hidden="true">{order === 'asc' ? '↑' : order === 'desc' ? '↓' : ''}</span>
                  </button>
                </div>
              )
            })}
          </div>
        </Box>
        <div role="rowgroup" style={{ position: 'relative', height: `calc(var(--row) * ${listed.length})` }}>
          {virtual.getVirtualItems().map(({ index, key }) => {
            const row = listed[index]
            if (!row) return null
            const picked = chosen[row.id] === true
            return (
              <div
                key={key}
                id={`${id}-${row.id}`}
                data-row=""
                data-active={index === here ? '' : undefined}
                role="row"
                aria-rowindex={index + 2}
                aria-selected={picked}
                style={{ top: `calc(var(--row) * ${index})` }}
                onMouseDown={() => setActive(index)}
              >
                <div role="gridcell" data-column="choose">
                  <input
                    type="checkbox"
                    tabIndex={-1}
                    aria-label={`Choose ${row.original.cable.tag}`}
                    checked={picked}
                    onChange={() => toggle(row.id)}
                  />
                </div>
                {row.getAllCells().map((each) => (
                  <div key={each.id} role="gridcell" data-column={each.column.id}>
                    <table.FlexRender cell={each} />
                  </div>
                ))}
              </div>
            )
          })}
        </div>
      </Box>
      <Flex id={`${id}-keys`} fontSize="xs" color="quiet" px="3" py="1.5" gap="4" wrap="wrap" hideBelow="md">
        <span>↑ ↓ walk</span>
        <span>space chooses, with shift a stretch</span>
        <span>Enter opens</span>
        <span>Ctrl A all</span>
        <span>Esc none</span>
      </Flex>
    </Box>
  )
})

/** The height of a row as the style sheet has it, for reckoning which rows are in view. */
function useRowHeight(): number {
  const [height, setHeight] = useState<number>(ROW_HEIGHT.wide)
  useEffect(() => {
    const narrow = window.matchMedia('(max-width: 47.99rem)')
    const follow = () => setHeight(narrow.matches ? ROW_HEIGHT.narrow : ROW_HEIGHT.wide)
    follow()
    narrow.addEventListener('change', follow)
    return () => narrow.removeEventListener('change', follow)
  }, [])
  return height
}
