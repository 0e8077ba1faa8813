import { Table } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import type { Grade } from '../../core/checks/finding'

type Props = {
  /** What the table is of, for whoever hears it. */
  label: string
  columns: readonly string[]
  children: ReactNode
  /** Higher than this it scrolls under its heads. */
  maxH?: string
  /** A table of what is wrong has the edge of it. */
  tone?: Grade
}

/** A table with a rule round it, whose cells wrap rather than run off the side. */
export function RuledTable({ label, columns, children, maxH, tone }: Props) {
  return (
    <Table.ScrollArea
      border="1px solid"
      borderColor={tone ?? 'line'}
      borderRadius="2px"
      {...(maxH ? { maxH, tabIndex: 0, role: 'group', 'aria-label': label } : {})}
    >
      <Table.Root
        size="sm"
        bg="card"
        stickyHeader={maxH !== undefined}
        aria-label={label}
        css={{
          // no weightier than what a cell says of itself
          '& :where(td)': { verticalAlign: 'top', whiteSpace: 'normal', px: '2' },
          '& :where(th)': { whiteSpace: 'normal', px: '2' },
        }}
      >
        <Table.Header>
          <Table.Row bg={tone ? `${tone}Floor` : 'floor'}>
            {columns.map((column) => (
              <Table.ColumnHeader key={column}>{column}</Table.ColumnHeader>
            ))}
          </Table.Row>
        </Table.Header>
        <Table.Body>{children}</Table.Body>
      </Table.Root>
    </Table.ScrollArea>
  )
}
