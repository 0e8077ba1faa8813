import type { Metres } from '../quantity/length'
import { atLeast } from '../quantity/limit'
import { leadFor } from '../route/legs'
import { span } from './aspects'
import { check, reason } from './check'
import { craft, metresField } from './finding'
import type { RemedyOf } from './remedies'
import { leadPart, runPart, type Situation } from './situation'

/** The leads together span the route, and the slack the site keeps at both ends. */
export const lengthCheck = check({
  name: 'length',
  reasons: {
    'no-way': reason(
      { route: metresField },
      ({ route }, { metres }) =>
        `No pathway leads from one end to the other any more; the length is the last that was known, ${metres(route)}.`,
    ),
    'too-short': reason(
      { route: metresField },
      ({ route }, { have, metres }) => `${metres(have)} of lead does not span a route of ${metres(route)}.`,
    ),
    'little-slack': reason(
      { route: metresField },
      ({ route }, { have, metres }) =>
        `${metres(have)} of lead spans the ${metres(route)} but leaves less slack than this site keeps.`,
    ),
    'long-enough': reason(
      { route: metresField },
      ({ route }, { have, metres }) => `${metres(have)} of lead spans the ${metres(route)} with slack.`,
    ),
  },
  remedies: ['join-pathways', 'longer', 'extend-own-lead', 'swap-own-lead'],
  reads: [span],
  source: craft,
  *find({ laid, policy }) {
    const { route } = laid.run
    if (route.follows && !route.legs)
      yield {
        grade: 'tight',
        part: runPart(laid.run),
        reason: { code: 'no-way', route: route.length },
        remedies: [{ code: 'join-pathways' }],
      }
    if (laid.leads.length === 0) return
    const [only] = laid.leads
    const have = laid.leads.reduce((sum, lead) => sum + lead.cable.length, 0)
    const need = leadFor(route.length, policy)
    const code = !atLeast(have, route.length) ? 'too-short' : !atLeast(have, need) ? 'little-slack' : 'long-enough'
    yield {
      grade: code === 'too-short' ? 'blocked' : code === 'little-slack' ? 'tight' : 'clear',
      part: laid.leads.length === 1 && only ? leadPart(only) : runPart(laid.run),
      measured: { have, need, unit: 'm' },
      reason: { code, route: route.length },
      remedies: code === 'long-enough' ? [] : [...longerWays(laid, need)],
    }
  },
})

/** A longer lead or an extension, and another in the place of a device's own where that can be swapped. */
function* longerWays(
  { from, to, leads }: Situation['laid'],
  need: Metres,
): Iterable<RemedyOf<'longer' | 'extend-own-lead' | 'swap-own-lead'>> {
  const span = leads.reduce((sum, { cable }) => sum + cable.length, 0)
  const captive = leads.reduce((sum, { cable, captive: end }) => (end === undefined ? sum : sum + cable.length), 0)
  // beside a lead of the device's own the others span the rest
  if (captive < span || captive === 0) yield { code: 'longer', length: need - captive }
  else yield { code: 'extend-own-lead', length: need - captive }
  for (const { device, port } of [from, to])
    if (port.captive?.swappable)
      yield { code: 'swap-own-lead', device: device.name, length: need - (span - port.captive.length) }
}
