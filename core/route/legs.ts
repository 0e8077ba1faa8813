import type { Metres } from '../quantity/length'

/** One stretch of a route as it is measured on site. */
export type Leg =
  | { kind: 'along' | 'up' | 'down'; length: Metres }
  /** Straight across a wall or floor of which only the two sides were measured. */
  | { kind: 'diagonal'; across: Metres; along: Metres }

export type RouteAllowance = {
  /** Slack kept at each of the two ends. */
  slackEachEnd?: Metres
  /** Loops left so that equipment can be pulled out, and what each takes. */
  serviceLoops?: { count: number; length: Metres }
}

const lengthOf = (leg: Leg): Metres => (leg.kind === 'diagonal' ? Math.hypot(leg.across, leg.along) : leg.length)

/** The length a lead must have for a route: every leg along the real way, never the straight line, plus slack and loops. */
export function routeLength(legs: readonly Leg[], { slackEachEnd = 0, serviceLoops }: RouteAllowance = {}): Metres {
  const way = legs.reduce((sum, leg) => sum + lengthOf(leg), 0)
  return way + 2 * slackEachEnd + (serviceLoops ? serviceLoops.count * serviceLoops.length : 0)
}
