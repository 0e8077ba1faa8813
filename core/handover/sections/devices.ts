import { socketName } from '../../plan/site-index'
import { endsFrom, leadTags } from '../run-words'
import type { Section } from '../section'

/** Rows of one table: a screen shows some at a time. */
const AT_ONCE = 120

/** What runs where, device by device. */
export const devices: Section = {
  name: 'devices',
  title: 'What runs where, by device',
  says: 'Each device with the run in each of its ports.',
  *blocks({ site }) {
    const { index } = site
    const rows = index.plan.devices.flatMap((device) =>
      (index.runsAt.get(device.id) ?? []).map((run) => {
        const [here, there] = endsFrom(run, device.id)
        const port = device.ports.find(({ id }) => id === here.port)?.name ?? here.port
        return [device.name, port, run.tag, socketName(index.devices, there), leadTags(index, run)]
      }),
    )
    if (rows.length === 0) yield { sort: 'words', text: 'No run ends at any device yet.' }
    for (let from = 0; from < rows.length; from += AT_ONCE)
      yield {
        sort: 'table',
        heads: ['Device', 'Port', 'Run', 'Goes to', 'Leads'],
        shares: [3, 3, 2, 4, 3],
        rows: rows.slice(from, from + AT_ONCE),
      }
  },
}
