import { devicesByPlace, socketName } from '../../plan/site-index'
import { walkOf } from '../../survey/walk'
import type { Device } from '../../vocabulary/device'
import type { Run } from '../../vocabulary/run'
import type { Block } from '../block'
import { endsFrom, leadTags, usesWords } from '../run-words'
import type { BookOf, Section } from '../section'

/** What somebody does who is no technician (common practice). */
const WHEN_IT_FAILS = [
  'Look whether both plugs sit fully in their sockets, and whether the tag on each end is the one named here.',
  'Do not put another lead in its place: plugs that look alike carry different things.',
  'If a plug or lead is hot: switch the supply off, let it cool, do not use it again, and tell whoever looks after it.',
  'If a disk asks to be formatted: say no, and tell whoever looks after it.',
  'Restart once. If it fails again, write down what you see and the tag of the run, and send both.',
]

/** A page for whoever sits there: what to plug where, what for, and what to do when it fails. */
export const desks: Section = {
  name: 'desks',
  title: 'A page for each desk and rack',
  says: 'What to plug where and what to do when it fails: to hang up where people sit.',
  *blocks(of) {
    const { index } = of.site
    const there = devicesByPlace(index.plan.devices)
    for (const { place, floor } of walkOf(index)) {
      const devices = there.get(place.id) ?? []
      const rows = devices.flatMap((device) => rowsAt(of, device))
      if (rows.length === 0) continue
      yield { sort: 'heading', id: `desk-${place.id}`, text: floor ? `${place.name}, ${floor.name}` : place.name }
      yield { sort: 'table', heads: ['Plug', 'Into', 'Goes to', 'For'], shares: [2, 3, 3, 4], rows }
      yield { sort: 'words', text: 'When it fails:' }
      yield { sort: 'list', items: WHEN_IT_FAILS } satisfies Block
      yield { sort: 'page' }
    }
  },
}

const rowsAt = (of: BookOf, { id }: Device): string[][] =>
  (of.site.index.runsAt.get(id) ?? []).flatMap((run) => (run.leads.length > 0 ? [rowOf(of, run, id)] : []))

function rowOf(of: BookOf, run: Run, device: string): string[] {
  const { index } = of.site
  const [here, there] = endsFrom(run, device)
  return [
    `${run.tag}: ${leadTags(index, run)}`,
    socketName(index.devices, here),
    socketName(index.devices, there),
    usesWords(of, run),
  ]
}
