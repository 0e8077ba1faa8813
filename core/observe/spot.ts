import type { Where } from './every'

/** Where something was seen, in keys that compare: the sockets of both ends, the controller, what was installed, and whether the neighbours were out. */
export type Spot = {
  /** `device/port` of the host end. */
  port?: string
  far?: string
  controller?: string
  /** What was installed on the computer, in one text; left out where nobody noted it. */
  setup?: string
  /** All else was unplugged. */
  alone?: true
  /** Everything went on at once, as the plan has it. */
  hard?: true
}

type Installed = readonly { what: string; version: string }[]

/** What is installed as one text that compares, whatever the order it is listed in. */
export const setupText = (installed: Installed): string =>
  installed
    .map(({ what, version }) => `${what} ${version}`)
    .sort()
    .join('; ')

const portText = ({ device, port }: { device: string; port: string }): string => `${device}/${port}`

/** The spot that an observation was made at. */
export function spotOf({
  where,
  circumstances,
}: {
  where?: Where | undefined
  circumstances?: { alone?: boolean | undefined; hard?: boolean | undefined } | undefined
}): Spot {
  // written out: it is made for each of all that was ever seen
  const spot: Spot = {}
  if (where?.port) spot.port = portText(where.port)
  if (where?.far) spot.far = portText(where.far)
  if (where?.controller !== undefined) spot.controller = where.controller
  if (where?.installed !== undefined) spot.setup = setupText(where.installed)
  if (circumstances?.alone) spot.alone = true
  if (circumstances?.hard) spot.hard = true
  return spot
}

/** The pair of sockets something was measured between; null where one of them is not known. */
export const pairOf = ({ port, far }: Spot): string | null =>
  port === undefined || far === undefined ? null : `${port} > ${far}`

/** Of a run as it lies all was seen in one place; only what was installed then still tells. */
export const inOnePlace = <S extends { spot: Spot }>(series: S): S => ({
  ...series,
  spot: series.spot.setup === undefined ? {} : { setup: series.spot.setup },
})

/** One text for a spot: two of one text are one. */
export const spotKey = ({ port = '', far = '', controller = '', setup = '', alone, hard }: Spot): string =>
  `${port}|${far}|${controller}|${setup}|${alone ? 'alone' : ''}|${hard ? 'hard' : ''}`

/** The same with whether it was seen before somebody set it right. */
export const placeKey = ({ spot, before }: { spot: Spot; before?: boolean }): string =>
  before ? `${spotKey(spot)} before` : spotKey(spot)

/** A socket as it stands in the survey now, with what is installed and whether anything else is plugged in beside it. */
export type Here = { port: string; controller?: string | undefined; setup: string; neighbours: boolean }

/** Whether what was seen at a spot speaks of a socket: it was made there, or nobody noted more than its controller, or nothing at all. */
export function isHere(spot: Spot, here: Here): boolean {
  if (spot.alone && here.neighbours) return false
  if (spot.port !== undefined) return spot.port === here.port
  return spot.controller === undefined || spot.controller === here.controller
}

/** Whether the computer or its socket has changed since: what was seen before that is to be seen again. */
export const isStale = (spot: Spot, here: Here): boolean =>
  (spot.setup !== undefined && spot.setup !== here.setup) ||
  (spot.port === here.port &&
    spot.controller !== undefined &&
    here.controller !== undefined &&
    spot.controller !== here.controller)
