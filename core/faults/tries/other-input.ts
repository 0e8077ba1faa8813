import { runPart } from '../../checks/situation'
import { farPart } from '../scene'
import { goneOrSame, type TryKind } from '../try'

const TAKES_AWAY = {
  'wrong input': 0.9,
  'worn socket': 0.92,
  'lesser port': 0.8,
  'loose plug': 0.4,
}

/** Another input of the far device, with the display told to look at it. */
export const otherInput: TryKind = {
  *of(scene) {
    const { freeFar } = scene
    yield {
      how: `Move the far end to ${freeFar?.name ?? 'another port'} of ${scene.laid.to.device.name}, and choose that input there.`,
      ...(freeFar ? { with: freeFar.name } : { lacks: `a free port of ${scene.laid.to.device.name}` }),
      minutes: 2,
      trouble: 0,
      outcomes: goneOrSame(TAKES_AWAY, [farPart(scene).id, runPart(scene.run).id, scene.laid.to.device.id]),
    }
  },
}
