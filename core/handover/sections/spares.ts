import { drawerRows } from '../../drawer/drawer-rows'
import { shortCode } from '../../tags/short-code'
import type { Section } from '../section'

/** Spares: what lies in the drawer, what each is good for, and what must not be used. */
export const spares: Section = {
  name: 'spares',
  title: 'Spares',
  says: 'The leads in the drawer, what each may be used for, and those that are retired.',
  *blocks({ site, length }) {
    const rows = drawerRows(site.index)
    const spare = rows.filter(({ where }) => where.at === 'drawer')
    const retired = rows.filter(({ where }) => where.at === 'retired')
    yield { sort: 'words', text: 'These lie in the drawer; a note says where else.' }
    if (spare.length === 0) yield { sort: 'words', text: 'The drawer is empty.' }
    else
      yield {
        sort: 'table',
        heads: ['Lead', 'Kind', 'Length', 'May be used for', 'Note'],
        shares: [2, 4, 2, 3, 4],
        rows: spare.map(({ cable, abilities }) => [
          cable.tag,
          (cable.kind && site.index.kinds.get(cable.kind)?.name) ?? '',
          length(cable.length),
          shortCode(abilities),
          cable.note ?? '',
        ]),
      }
    if (retired.length > 0)
      yield { sort: 'caution', text: `Retired, do not use: ${retired.map(({ cable }) => cable.tag).join(', ')}.` }
  },
}
