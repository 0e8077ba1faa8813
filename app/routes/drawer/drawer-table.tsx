import { Box, Flex } from '@chakra-ui/react'
import { type SortingState, useTable } from '@tanstack/react-table'
import { useVirtualizer } from '@tanstack/react-virtual'
import { type KeyboardEvent, type ReactNode, useCallback, useEffect, useId, useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import type { DrawerRow } from '../../../core/drawer/drawer-rows'
import { COLUMN_WIDTHS, columns, features } from './drawer-columns'

/** Ids of the cables that are chosen. */
export type Chosen = Readonly<Record<string, true>>

const ROW_HEIGHT = 44
/** What the server draws, which cannot know how high the window is; the browser then draws what it has room for. */
const FIRST_VIEW = { width: 1080, height: 620 }

const grid = {
  display: 'grid',
  gridTemplateColumns: { base: '34px 1fr 1fr auto', md: COLUMN_WIDTHS },
  alignItems: 'center',
  columnGap: '2',
  px: '2',
} as const
const cell = { minW: 0, fontSize: 'sm', lineHeight: '1.25', overflow: 'hidden' } as const
/** On a phone: tag, what it is good for and its length; below them power, ends and where it is. */
const onPhone: Record<string, object> = {
  picture: { display: { base: 'none', md: 'block' } },
  watts: { gridColumn: { base: '4', md: 'auto' } },
  length: { gridRow: { base: '1', md: 'auto' }, gridColumn: { base: '4', md: 'auto' } },
  ends: {
    gridColumn: { base: '2', md: 'auto' },
    gridRow: { base: '2', md: 'auto' },
    color: { base: 'quiet', md: 'ink' },
  },
  basis: { display: { base: 'none', md: 'block' } },
  where: { gridColumn: { base: '3', md: 'auto' }, gridRow: { base: '2', md: 'auto' } },
  last: { display: { base: 'none', md: 'block' } },
}
const aligned: Record<string, object> = {
  tag: { gridColumn: { base: '2', md: 'auto' } },
  watts: { textAlign: 'end', fontFamily: 'mono' },
  length: { textAlign: 'end', fontFamily: 'mono' },
}

/**
 * The drawer as a table of which only the rows in view are drawn. Rows are walked with the arrow keys, chosen with the space bar, and opened
 * with Enter.
 */
export function DrawerTable({
  rows,
  chosen,
  choose,
}: {
  rows: DrawerRow[]
  chosen: Chosen
  choose: (chosen: Chosen) => void
}) {
  const id = useId()
  const [sorting, setSorting] = useState<SortingState>([])
  const table = useTable({
    features,
    columns,
    data: rows,
    getRowId: ({ cable }) => cable.id,
    state: { sorting },
    onSortingChange: setSorting,
  })
  const sorted = table.getRowModel().rows
  const frame = useRef<HTMLDivElement>(null)
  const virtual = useVirtualizer({
    count: sorted.length,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW_HEIGHT,
    getItemKey: (at) => sorted[at]?.id ?? at,
    initialRect: FIRST_VIEW,
    overscan: 10,
  })
  const [active, setActive] = useState(0)
  const here = Math.min(active, sorted.length - 1)
  const idAt = useCallback((at: number) => sorted[at]?.id ?? '', [sorted])
  const navigate = useNavigate()

  const go = (to: number, extend: boolean) => {
    const next = Math.max(0, Math.min(sorted.length - 1, to))
    setActive(next)
    virtual.scrollToIndex(next)
    if (extend) {
      const [from, until] = [Math.min(here, next), Math.max(here, next)]
      const added = sorted.slice(from, until + 1).map((row) => [row.id, true] as const)
      choose({ ...chosen, ...Object.fromEntries(added) })
    }
  }
  const toggle = (cable: string) => {
    const { [cable]: was, ...others } = chosen
    choose(was ? others : { ...chosen, [cable]: true })
  }
  const onKey = (event: KeyboardEvent) => {
    if (event.target !== event.currentTarget) return
    const page = Math.max(1, Math.floor((frame.current?.clientHeight ?? 400) / ROW_HEIGHT) - 2)
    const moves: Record<string, number> = {
      ArrowDown: here + 1,
      ArrowUp: here - 1,
      PageDown: here + page,
      PageUp: here - page,
      Home: 0,
      End: sorted.length - 1,
    }
    const to = moves[event.key]
    if (to !== undefined) go(to, event.shiftKey)
    else if (event.key === ' ') toggle(idAt(here))
    else if (event.key === 'Enter') navigate(`../cables/${encodeURIComponent(idAt(here))}`, { relative: 'path' })
    else if (event.key === 'Escape') choose({})
    else if (event.key === 'a' && (event.ctrlKey || event.metaKey))
      choose(Object.fromEntries(sorted.map((row) => [row.id, true] as const)))
    else return
    event.preventDefault()
  }
  const allChosen = sorted.length > 0 && sorted.every((row) => chosen[row.id])
  // a narrower list starts again at its top
  useEffect(() => {
    if (rows.length >= 0) setActive(0)
  }, [rows])

  return (
    <Box border="1px solid" borderColor="line" borderRadius="2px" bg="card">
      <Box
        ref={frame}
        role="grid"
        aria-label="Cables"
        aria-multiselectable
        aria-rowcount={sorted.length + 1}
        aria-activedescendant={`${id}-${idAt(here)}`}
        aria-describedby={`${id}-keys`}
        tabIndex={0}
        onKeyDown={onKey}
        h={{ base: 'calc(100vh - 330px)', md: 'calc(100vh - 236px)' }}
        minH="260px"
        overflowY="auto"
        position="relative"
        css={{ '&:focus-visible [data-active]': { boxShadow: 'inset 4px 0 0 var(--hw-colors-brass)' } }}
      >
        <Box role="rowgroup" position="sticky" top="0" zIndex="1" bg="floor">
          <Box role="row" aria-rowindex={1} {...grid} minH="36px">
            <Box role="columnheader" {...cell}>
              <input
                type="checkbox"
                aria-label="Choose all that are listed"
                checked={allChosen}
                onChange={() =>
                  choose(allChosen ? {} : Object.fromEntries(sorted.map((row) => [row.id, true] as const)))
                }
              />
            </Box>
            {table.getFlatHeaders().map((header) => {
              const order = header.column.getIsSorted()
              return (
                <Box
                  key={header.id}
                  role="columnheader"
                  aria-sort={order === 'asc' ? 'ascending' : order === 'desc' ? 'descending' : 'none'}
                  {...cell}
                  {...onPhone[header.id]}
                  {...aligned[header.id]}
                  fontFamily="body"
                  display={{ base: SORTS_ON_PHONE.has(header.id) ? 'block' : 'none', md: 'block' }}
                  gridRow={{ base: '1', md: 'auto' }}
                >
                  <SortButton order={order} onClick={header.column.getToggleSortingHandler()}>
                    <table.FlexRender header={header} />
                  </SortButton>
                </Box>
              )
            })}
          </Box>
        </Box>
        <Box role="rowgroup" position="relative" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map(({ index, start, key }) => {
            const row = sorted[index]
            if (!row) return null
            const picked = chosen[row.id] === true
            return (
              <Box
                key={key}
                id={`${id}-${row.id}`}
                ref={virtual.measureElement}
                data-index={index}
                data-active={index === here ? '' : undefined}
                role="row"
                aria-rowindex={index + 2}
                aria-selected={picked}
                {...grid}
                minH={`${ROW_HEIGHT}px`}
                py="1"
                position="absolute"
                top="0"
                left="0"
                right="0"
                bg={picked ? 'noteFloor' : 'card'}
                borderBottom="1px solid"
                borderColor="line"
                _hover={{ bg: picked ? 'noteFloor' : 'paper' }}
                style={{ transform: `translateY(${start}px)` }}
                onMouseDown={() => setActive(index)}
              >
                <Box role="gridcell" {...cell}>
                  <input
                    type="checkbox"
                    tabIndex={-1}
                    aria-label={`Choose ${row.original.cable.tag}`}
                    checked={picked}
                    onChange={() => toggle(row.id)}
                  />
                </Box>
                {row.getAllCells().map((each) => (
                  <Box
                    key={each.id}
                    role="gridcell"
                    {...cell}
                    {...onPhone[each.column.id]}
                    {...aligned[each.column.id]}
                  >
                    <table.FlexRender cell={each} />
                  </Box>
                ))}
              </Box>
            )
          })}
        </Box>
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
}

const SORTS_ON_PHONE = new Set(['tag', 'data', 'length'])

function SortButton({
  order,
  onClick,
  children,
}: {
  order: false | 'asc' | 'desc'
  onClick: ((event: unknown) => void) | undefined
  children: ReactNode
}) {
  return (
    <Box
      as="button"
      {...({ type: 'button' } as object)}
      onClick={onClick}
      fontWeight="700"
      fontSize="sm"
      cursor="pointer"
      whiteSpace="nowrap"
    >
      {children}
      <Box as="span" aria-hidden="true" color="brassInk" display="inline-block" w="12px">
        {order === 'asc' ? '↑' : order === 'desc' ? '↓' : ''}
      </Box>
    </Box>
  )
}
