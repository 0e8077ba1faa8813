import type { Part } from '../checks/finding'
import { runPart } from '../checks/situation'
import { talliesOf } from '../observe/links'
import { portKey } from '../plan/site-index'
import { commonPractice, type Source } from '../standards/source'
import { hostPart, type Scene } from './scene'

/** The controller behind the host port as a part; where nobody noted it, that of the port. */
export function controllerPart({ laid: { from } }: Scene): Part {
  const { device, port } = from
  return {
    kind: 'port',
    id: `${portKey({ device: device.id, port: port.id })} controller`,
    label: `the controller behind ${device.name}, ${port.name}${port.controller ? ` (${port.controller})` : ''}`,
  }
}

/** How likely the controller is to blame: what this run and its leads have shown on it before says more than where the port sits. */
export function controllerOdds({ laid, planned }: Scene): { odds: number; source: Source } {
  const here = laid.leads.flatMap(({ known }) =>
    talliesOf(known.links).filter(
      ({ mode, controller }) => mode === planned && controller === (laid.from.port.controller ?? null),
    ),
  )
  const tries = here.reduce((sum, { tried }) => sum + tried, 0)
  const held = here.reduce((sum, { passed }) => sum + passed, 0)
  if (tries > 0)
    return {
      odds: 0.15 + (0.9 * (tries - held)) / tries,
      source: commonPractice(`the record of this site: ${held} of ${tries} tries held on it`),
    }
  return {
    odds: SITS[laid.from.port.sits ?? 'board'] ?? 0.4,
    source: commonPractice('add-in cards and front ports differ'),
  }
}

const SITS: Partial<Record<string, number>> = {
  board: 0.3,
  front: 0.6,
  'add-in card': 0.5,
  'graphics card': 0.4,
  hub: 0.6,
}

/** All that another host takes out of the way: the port, its controller, the plugs of the run, and the device itself. */
export const hostSide = (scene: Scene): readonly string[] => [
  hostPart(scene).id,
  controllerPart(scene).id,
  runPart(scene.run).id,
  scene.laid.from.device.id,
]
