import { goneOrSame, type TryKind } from '../try'

const TAKES_AWAY = {
  'turned lead': 0.96,
  'loose plug': 0.6,
  'worn lead': 0.05,
  'worn socket': 0.1,
}

/** The lead the other way round. */
export const turnRound: TryKind = {
  *of(scene) {
    if (!scene.laid.leads.some(({ cable }) => cable.oneWay)) return
    yield {
      how: 'Turn the lead round: swap its two ends.',
      minutes: 2,
      trouble: 0,
      outcomes: goneOrSame(TAKES_AWAY),
    }
  },
}
