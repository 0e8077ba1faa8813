import { goneOrSame, type TryKind } from '../try'

const TAKES_AWAY = {
  'loose plug': 0.95,
  'hung port': 0.4,
  'worn socket': 0.25,
  'wrong input': 0.1,
  'stale driver': 0.04,
  'worn lead': 0.08,
}

/** Every plug out and in again. */
export const reseat: TryKind = {
  *of() {
    yield {
      how: 'Pull every plug of the run, look into it, and push it home until it clicks.',
      minutes: 1,
      trouble: 0,
      outcomes: goneOrSame(TAKES_AWAY),
    }
  },
}
