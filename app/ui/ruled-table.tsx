import type { ReactNode } from 'react'
import look from './ruled-table.module.css'

type Frame = {
  /** What the table is of, for whoever hears it. */
  label: string
  columns: readonly string[]
  /** How wide each column is: then no row moves the columns of the others, as a long table that is scrolled would. */
  widths?: readonly string[] | undefined
  /** Higher than this it scrolls under its heads. */
  maxH?: string
  /** A table of what is wrong has the edge of it. */
  tone?: 'blocked'
  /** On a phone each row is a card, so that what matters is not off the edge. */
  cards?: true
  /** It may be wider than a phone: then it scrolls sideways, by keys as well. */
  wide?: true
  /** What stands over it where its heads would say nothing new; they are still heard. */
  caption?: ReactNode
  /** How many rows there are, where not all of them are drawn. */
  count?: number
}

/** A table with a rule round it, whose cells wrap rather than run off the side. */
export function RuledTable({
  label,
  columns,
  widths,
  children,
  maxH,
  tone,
  cards,
  wide,
  caption,
  count,
}: Frame & { children: ReactNode }) {
  return (
    <div
      className={look.frame}
      data-tone={tone}
      {...(maxH
        ? { style: { maxHeight: maxH }, 'data-scrolls': '', tabIndex: 0, role: 'group', 'aria-label': label }
        : wide
          ? { tabIndex: 0, role: 'group', 'aria-label': label }
          : {})}
    >
      <table
        className={look.table}
        data-cards={cards}
        data-set={widths ? '' : undefined}
        aria-label={label}
        aria-rowcount={count === undefined ? undefined : count + 1}
      >
        {caption && <caption className={look.caption}>{caption}</caption>}
        {widths && (
          <colgroup>
            {columns.map((column, at) => (
              <col key={column} style={{ width: widths[at] }} />
            ))}
          </colgroup>
        )}
        <thead data-heard={caption ? '' : undefined}>
          <tr>
            {columns.map((column) => (
              <th key={column} scope="col">
                {column}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>{children}</tbody>
      </table>
    </div>
  )
}
