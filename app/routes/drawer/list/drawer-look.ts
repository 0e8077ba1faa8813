/** Widths of the columns, the box to choose a row before them; on a phone the cells flow. */
const COLUMN_WIDTHS = '34px 92px 132px 108px 66px 76px minmax(150px, 1.5fr) minmax(96px, 1fr) 124px 104px'

/** Rows are all of one height, so that where each stands needs no measuring; on a phone they have a line more. */
export const ROW_HEIGHT = { wide: 46, narrow: 70 } as const

/**
 * How the drawer's table looks, said once for all of its cells: a style for each cell by itself is what makes a long list slow to draw.
 * On a phone a row has tag, what it is good for and its length, below them power, ends and where it is.
 */
export const drawerLook = {
  '--row': { base: `${ROW_HEIGHT.narrow}px`, md: `${ROW_HEIGHT.wide}px` },
  '& [role=row]': {
    display: 'grid',
    gridTemplateColumns: { base: '34px 1fr 1fr auto', md: COLUMN_WIDTHS },
    alignItems: 'center',
    columnGap: '8px',
    paddingInline: '8px',
  },
  '& [role=gridcell], & [role=columnheader]': {
    minWidth: 0,
    fontSize: '14px',
    lineHeight: 1.25,
    overflow: 'hidden',
  },
  '& [data-row]': {
    position: 'absolute',
    insetInline: 0,
    height: 'var(--row)',
    overflow: 'hidden',
    background: 'card',
    borderBottom: '1px solid',
    borderColor: 'line',
  },
  '& [data-row]:hover': { background: 'paper' },
  '& [data-row][aria-selected=true]': { background: 'noteFloor' },
  '& small': { display: 'block', fontSize: '13px', color: 'quiet', overflow: 'hidden', textOverflow: 'ellipsis' },
  '& [data-column=ends]': { maxHeight: '2.5em' },
  '& [data-open]': { color: 'tight', fontWeight: 600 },
  '& [data-column=tag] a': {
    fontFamily: 'mono',
    fontWeight: 700,
    color: 'brassInk',
    textDecoration: 'underline',
    whiteSpace: 'nowrap',
  },
  '& [data-column=tag] a[data-retired]': { color: 'quiet', textDecoration: 'line-through' },
  '& [data-column=watts], & [data-column=length]': { textAlign: 'end', whiteSpace: 'nowrap' },
  '& [role=gridcell][data-column=watts], & [role=gridcell][data-column=length]': { fontFamily: 'mono' },
  '& [role=columnheader] button': { minHeight: '24px', fontWeight: 700, cursor: 'pointer', whiteSpace: 'nowrap' },
  '& [role=columnheader] button span': { display: 'inline-block', width: '12px', color: 'brassInk' },
  '&:focus-visible [data-active]': { boxShadow: 'inset 4px 0 0 var(--hw-colors-brass)' },
  mdDown: {
    '& [data-column=choose]': { gridArea: '1 / 1' },
    '& [data-column=tag]': { gridArea: '1 / 2' },
    '& [data-column=data]': { gridArea: '1 / 3' },
    '& [data-column=length]': { gridArea: '1 / 4' },
    '& [data-column=ends]': { gridArea: '2 / 2', color: 'quiet' },
    '& [data-column=where]': { gridArea: '2 / 3' },
    '& [data-column=watts]': { gridArea: '2 / 4' },
    '& [data-column=picture], & [data-column=basis], & [data-column=last]': { display: 'none' },
    '& [role=columnheader]:is([data-column=ends], [data-column=where], [data-column=watts])': { display: 'none' },
  },
}
