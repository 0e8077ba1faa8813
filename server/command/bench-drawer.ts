import { orderBench } from '../../core/bench/order'
import { readCableTable } from '../../core/drawer/cable-table'
import { drawerRows, rowsForJob } from '../../core/drawer/drawer-rows'
import { parseJob } from '../../core/match/job-text'
import { emptyPlan } from '../../core/plan/plan'
import { indexPlan } from '../../core/plan/site-index'
import { repeated } from './timing'

const CABLES = 5000
const MARKS = ['charge only', '2.0', '5', '10', '20', '40', '80', 'Thunderbolt 4']
const LENGTHS = ['0.3 m', '0.5 m', '0.8 m', '1 m', '1.5 m', '2 m', '3 m']
const HEADERS = ['tag', 'first end', 'second end', 'length', 'mark', 'power', 'note']

/** A table of many cables, as a shop might bring it: marks and lengths in every mixture. */
const rows = Array.from({ length: CABLES }, (_, at) => [
  `N-${at}`,
  'USB-C',
  'USB-C',
  LENGTHS[at % LENGTHS.length] ?? '',
  MARKS[at % MARKS.length] ?? '',
  at % 3 === 0 ? '100 W' : '60 W',
  `box ${at % 40}`,
])

/** Milliseconds for what a technician waits for at the drawer. */
export function benchDrawer() {
  const empty = emptyPlan({ id: 'drawer', name: 'Drawer' })
  const mapping = { tag: 0, 'first end': 1, 'second end': 2, length: 3, mark: 4, power: 5, note: 6 }
  const readTable = () =>
    readCableTable(HEADERS, rows, mapping, { plan: empty, unit: 'm', idOf: (tag) => tag.toLowerCase() })
  const plan = { ...empty, cables: readTable().good.map(({ cable }) => cable) }
  const worked = () => {
    const fresh = drawerRows(indexPlan(plan))
    for (const row of fresh) void row.text
    return fresh
  }
  const ready = worked()
  const job = parseJob('40 Gb/s, at least 0.5 m, 100 W, box')
  return {
    tableRead: repeated(5, () => void readTable()),
    workedOut: repeated(5, () => void worked()),
    picked: repeated(9, () => void rowsForJob(ready, job)),
    sessionOrdered: repeated(5, () => void orderBench(heap)),
  }
}

const port = (device: string) => ({ device, port: '1' })
const warmth = (id: string, from: string, to: string) => ({
  id,
  kind: 'warmth' as const,
  from: port(from),
  to: port(to),
})
const soak = { id: 't1', kind: 'link' as const, soak: 60, from: port('pc'), to: port('disk') }

/** Two hundred leads through a soak and three more setups. */
const heap = Array.from({ length: 200 }, (_, at) => ({
  id: `c${at}`,
  setups: [
    { from: soak.from, to: soak.to, tests: [soak] },
    ...[warmth('t2', 'pc', 'hub'), warmth('t3', 'charger', 'laptop'), warmth('t4', 'laptop', 'disk')].map((test) => ({
      from: test.from,
      to: test.to,
      tests: [test],
    })),
  ],
}))
