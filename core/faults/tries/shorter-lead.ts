import { goneOrSame, type TryKind } from '../try'

const TAKES_AWAY = {
  'worn lead': 0.96,
  'lesser lead': 0.93,
  'long lead': 0.96,
  'turned lead': 0.9,
  'no feed': 0.9,
  'adapter limit': 0.4,
  'short circuit': 0.9,
  'loose plug': 0.88,
  noise: 0.93,
  'controller falls back': 0.35,
  'worn socket': 0.15,
  'plan blocked': 0.4,
}

/** The far device brought to the host on a short lead that is known good: the whole laid run is out of the way. */
export const shorterLead: TryKind = {
  *of(scene) {
    const [spare] = [...scene.spares].sort((one, other) => one.length - other.length)
    const longest = Math.max(0, ...scene.laid.leads.map(({ cable }) => cable.length))
    const short = spare && spare.length < longest ? spare : null
    if (longest === 0) return
    yield {
      how: `Bring the far device to the host, and join the two with ${short?.tag ?? 'a short lead that is known good'}. Leave the laid run alone.`,
      ...(short ? { with: short.tag } : { lacks: 'a shorter lead of the drawer that would do this job' }),
      minutes: 6,
      trouble: 1,
      outcomes: goneOrSame(TAKES_AWAY),
    }
  },
}
