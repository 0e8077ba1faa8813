import type { SiteIndex } from '../../../core/plan/site-index'
import { lengthOfLeg } from '../../../core/quantity/along'
import { formatLength } from '../../../core/quantity/length'
import type { NoWay } from '../../../core/route/follow'
import type { Leg } from '../../../core/route/legs'
import text from '../../theme/text.module.css'
import { useSite } from '../../ui/site-context'
import { useUnit } from '../../ui/units'

/** The legs of a route as a sum, each with what it goes along. */
export function RouteWords({ legs }: { legs: readonly Leg[] }) {
  const unit = useUnit()
  const { index } = useSite()
  return (
    <span className={text.small}>
      {legs.map((leg, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a leg is its turn
        <span key={at}>
          {at > 0 && ' + '}
          {(leg.pathway && index.pathways.get(leg.pathway)?.name) || leg.by}{' '}
          <span className={text.mono}>{formatLength(lengthOfLeg(leg), unit)}</span>
        </span>
      ))}
    </span>
  )
}

/** Why no way is found, and what would mend it. */
export function noWayWords(way: NoWay, { devices }: SiteIndex): string {
  const name = way.device === null ? '' : (devices.get(way.device)?.name ?? way.device)
  switch (way.why) {
    case 'not on a floor':
      return `${name} stands on no floor yet: put its place on one.`
    case 'off the pathways':
      return `No pathway comes to where ${name} stands: lay one that ends there.`
    case 'one place':
      return 'Both ends stand at one spot: type the length.'
    case 'cut off':
      return 'No pathway leads from one end to the other: lay the piece that is missing.'
    case 'too far':
      return 'The route over the pathways is longer than any route may be.'
  }
}
