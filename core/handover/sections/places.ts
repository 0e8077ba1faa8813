import { workList } from '../../install/work-list'
import { socketName } from '../../plan/site-index'
import { leadTags } from '../run-words'
import type { Section } from '../section'

/** What runs where, place by place in the order of the building. */
export const places: Section = {
  name: 'places',
  title: 'What runs where, by place',
  says: 'Each run at the place where it begins, in the order of the building.',
  *blocks({ site, length }) {
    const { index } = site
    for (const { place, floor, jobs } of workList(index, site.assessment)) {
      if (jobs.length === 0) continue
      const name = place?.name ?? 'On no place yet'
      yield { sort: 'heading', id: `place-${place?.id ?? ''}`, text: floor ? `${name}, ${floor.name}` : name }
      yield {
        sort: 'table',
        heads: ['Run', 'From', 'To', 'Leads', 'Route'],
        shares: [2, 4, 4, 3, 2],
        rows: jobs.map(({ run }) => [
          run.tag,
          socketName(index.devices, run.from),
          socketName(index.devices, run.to),
          leadTags(index, run),
          length(run.route.length),
        ]),
      }
    }
  },
}
