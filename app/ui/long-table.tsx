import { useWindowVirtualizer } from '@tanstack/react-virtual'
import { type ReactNode, type Ref, startTransition, useEffect, useLayoutEffect, useRef, useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import text from '../theme/text.module.css'
import { RuledTable } from './ruled-table'

/** Up to so many rows are simply drawn: the browser's own search finds them all, and they print. */
const FEW = 60
/** What the server draws, which cannot know how high the window is. */
const FIRST_VIEW = { width: 1280, height: 800 }
/** A row of two lines; each that comes into view is measured. */
const USUAL_HEIGHT = 58

/** So many rows beyond the view stand ready to be scrolled to. */
const BEYOND = 6

/** What a row of a long table carries: where it stands among all of them, and how high it is. */
export type RowProps = { ref?: Ref<HTMLTableRowElement>; 'data-index'?: number; 'aria-rowindex'?: number }

/** Whether a row stands where it stood, so that it need not be drawn again while others come into view. */
export const standsAlike = (one: RowProps, other: RowProps): boolean =>
  one.ref === other.ref && one['data-index'] === other['data-index'] && one['aria-rowindex'] === other['aria-rowindex']

type Props<Row> = {
  label: string
  columns: readonly string[]
  widths?: readonly string[]
  rows: readonly Row[]
  keyOf: (row: Row) => string
  children: (row: Row, props: RowProps) => ReactNode
}

/**
 * A table of any length, of which the page holds what is in view. Before scripts have loaded the rows are turned over a page at a time, by an address
 * that says where to begin.
 */
export function LongTable<Row>(props: Props<Row>) {
  const { label, columns, widths, rows, children: draw } = props
  if (rows.length > FEW) return <RowsInView {...props} />
  return (
    <RuledTable label={label} columns={columns} widths={widths} cards>
      {rows.map((row) => draw(row, {}))}
    </RuledTable>
  )
}

function RowsInView<Row>({ label, columns, widths, rows, keyOf, children: draw }: Props<Row>) {
  const [params] = useSearchParams()
  const asked = Number(params.get('from') ?? 0)
  const from = Number.isInteger(asked) && asked > 0 && asked < rows.length ? asked : 0
  const frame = useRef<HTMLDivElement>(null)
  const [above, setAbove] = useState(0)
  // notices above come and go; what is above the rows is where they begin
  useLayoutEffect(() => {
    const top = (frame.current?.getBoundingClientRect().top ?? 0) + window.scrollY
    setAbove(Math.round(top))
  })
  // other rows: those in view are shown at once, those beyond it when there is time
  const [ample, setAmple] = useState(rows)
  useEffect(() => startTransition(() => setAmple(rows)), [rows])
  const virtual = useWindowVirtualizer({
    count: rows.length - from,
    estimateSize: () => USUAL_HEIGHT,
    overscan: ample === rows ? BEYOND : 0,
    initialRect: FIRST_VIEW,
    scrollMargin: above,
    getItemKey: (at) => {
      const row = rows[from + at]
      return row === undefined ? at : keyOf(row)
    },
  })
  const items = virtual.getVirtualItems()
  const first = items[0]
  const last = items.at(-1)
  const before = first ? first.start - above : 0
  const after = last ? virtual.getTotalSize() - (last.end - above) : 0
  const next = from + items.length
  return (
    <div ref={frame}>
      <RuledTable label={label} columns={columns} widths={widths} cards count={rows.length}>
        <Gap height={before} columns={columns.length} />
        {items.map(({ index }) => {
          const row = rows[from + index]
          return row === undefined
            ? null
            : draw(row, { ref: virtual.measureElement, 'data-index': index, 'aria-rowindex': from + index + 2 })
        })}
        <Gap height={after} columns={columns.length} />
      </RuledTable>
      <noscript>
        <p>
          Rows {from + 1} to {next} of {rows.length}.{' '}
          {next < rows.length && <Turn params={params} from={next} words="Next rows" />}
        </p>
      </noscript>
      {from > 0 && (
        <p>
          <Turn params={params} from={0} words="Back to the first row" />
        </p>
      )}
    </div>
  )
}

function Turn({ params, from, words }: { params: URLSearchParams; from: number; words: string }) {
  const search = new URLSearchParams(params)
  search.set('from', String(from))
  if (from === 0) search.delete('from')
  return (
    <Link to={{ search: search.toString() }} className={text.link}>
      {words}
    </Link>
  )
}

/** The room of the rows that are not drawn. */
const Gap = ({ height, columns }: { height: number; columns: number }) =>
  height > 0 ? (
    <tr data-gap="">
      <td colSpan={columns} style={{ height }} />
    </tr>
  ) : null
