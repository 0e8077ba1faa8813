import { floorDrawing } from '../floor-drawing'
import type { Section } from '../section'

/** Each floor to scale, with its pathways, what stands on it, and its runs. */
export const floors: Section = {
  name: 'floors',
  title: 'The floors, to scale',
  says: 'Each floor with its pathways, what stands on it, and the tags of its runs.',
  *blocks({ site, room }) {
    const { index } = site
    if (index.plan.floors.length === 0)
      yield { sort: 'words', text: 'No floor was drawn. The lists by place say what runs where.' }
    for (const [at, floor] of index.plan.floors.entries()) {
      if (at > 0) yield { sort: 'page' }
      const drawing = floorDrawing(index, floor, room)
      yield { sort: 'heading', id: `floor-${floor.id}`, text: `${floor.name}, 1:${drawing.scale}` }
      if (!floor.drawing)
        yield { sort: 'words', text: 'There is no drawing under it; spots are as they were measured.', quiet: true }
      yield { sort: 'drawing', drawing, alt: `${floor.name} from above, to scale, with its pathways and runs` }
      yield {
        sort: 'words',
        text: 'A run that follows no pathway is a straight dashed line between its ends, whatever way it takes.',
        quiet: true,
      }
    }
  },
}
