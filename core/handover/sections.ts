import type { SectionName } from '../vocabulary/handover'
import type { Section } from './section'
import { cards } from './sections/cards'
import { cautions } from './sections/cautions'
import { changes } from './sections/changes'
import { conditions } from './sections/conditions'
import { desks } from './sections/desks'
import { devices } from './sections/devices'
import { floors } from './sections/floors'
import { places } from './sections/places'
import { runs } from './sections/runs'
import { spares } from './sections/spares'
import { tags } from './sections/tags'
import { worksWith } from './sections/works-with'

/** The parts of a book in their order, each by its name. */
export const sections: Readonly<Record<SectionName, Section>> = {
  desks,
  cards,
  'works-with': worksWith,
  places,
  devices,
  floors,
  runs,
  conditions,
  cautions,
  changes,
  spares,
  tags,
}
