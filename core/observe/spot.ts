import type { Where } from './every'

/** Where something was seen, in keys that compare: the sockets of both ends, the controller, what was installed, and whether the neighbours were out. */
export type Spot = {
  /** `device/port` of the host end. */
  port?: string
  far?: string
  controller?: string
  /** What was installed on the computer, in one text; left out where nobody noted it. */
  setup?: string
  /** The same of the other end. */
  farSetup?: string
  /** All else was unplugged. */
  alone?: true
  /** Everything went on at once, as the plan has it. */
  hard?: true
  /** Which of the facts that were noted of a run what was seen there rests on. */
  rests?: number
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
  if (where?.farInstalled !== undefined) spot.farSetup = setupText(where.farInstalled)
  if (circumstances?.alone) spot.alone = true
  if (circumstances?.hard) spot.hard = true
  return spot
}

/** The pair of sockets something was measured between; null where one of them is not known. */
export const pairOf = ({ port, far }: Spot): string | null =>
  port === undefined || far === undefined ? null : `${port} > ${far}`

/** Of a run as it lies all was seen in one place; only what was installed then still tells. */
export function inOnePlace<S extends { spot: Spot }>(series: S): S {
  const { setup, farSetup } = series.spot
  return {
    ...series,
    spot: { ...(setup === undefined ? {} : { setup }), ...(farSetup === undefined ? {} : { farSetup }) },
  }
}

/** One text for a spot: two of one text are one. */
export const spotKey = ({
  port = '',
  far = '',
  controller = '',
  setup = '',
  farSetup = '',
  alone,
  hard,
  rests = 0,
}: Spot): string =>
  `${port}|${far}|${controller}|${setup}|${farSetup}|${alone ? 'alone' : ''}|${hard ? 'hard' : ''}|${rests}`

/** The same with whether it was seen before somebody set it right. */
export const placeKey = ({ spot, before }: { spot: Spot; before?: boolean }): string =>
  before ? `${spotKey(spot)} before` : spotKey(spot)

/** A socket as it stands in the survey now, with what is installed at both ends and whether anything else is plugged in beside it. */
export type Here = {
  port: string
  controller?: string | undefined
  setup: string
  farSetup?: string | undefined
  neighbours: boolean
}

/** Whether what was seen at a spot speaks of a socket: it was made there, or nobody noted more than its controller, or nothing at all. */
export function isHere(spot: Spot, here: Here): boolean {
  if (spot.alone && here.neighbours) return false
  if (spot.port !== undefined) return spot.port === here.port
  return spot.controller === undefined || spot.controller === here.controller
}

/** Something that is not as it was: what it is, what it was then, and what it is now. */
export type Changed = { what: string; was: string; is: string }

/** The versions of each sort of thing that a text of what is installed names. */
function versionsIn(setup: string): ReadonlyMap<string, readonly string[]> {
  const versions = new Map<string, string[]>()
  for (const part of setup.split('; ')) {
    const [, what = '', version = ''] = /^(\S+) (.*)$/.exec(part) ?? []
    if (what !== '') versions.set(what, [...(versions.get(what) ?? []), version])
  }
  return versions
}

/**
 * What is installed otherwise than it was. Only what was noted on both sides is compared: noting a driver for the first time changes nothing, and a second one
 * beside it does not either.
 */
export function setupChanges(was: string | undefined, is: string | undefined): Changed[] {
  if (was === undefined || is === undefined || was === is) return []
  const now = versionsIn(is)
  return [...versionsIn(was)].flatMap(([what, versions]) => {
    const here = now.get(what)
    if (!here || versions.every((version) => here.includes(version))) return []
    return [{ what, was: versions.join(', '), is: here.join(', ') }]
  })
}

/** Whether something else is installed at either end than what was seen at a spot was seen with. */
export const isOtherSetup = (spot: Spot, here: Pick<Here, 'setup' | 'farSetup'>): boolean =>
  setupChanges(spot.setup, here.setup).length > 0 || setupChanges(spot.farSetup, here.farSetup).length > 0

/** The socket hangs on another controller than it did. */
export const isOtherController = (spot: Spot, here: Here): boolean =>
  spot.port === here.port &&
  spot.controller !== undefined &&
  here.controller !== undefined &&
  spot.controller !== here.controller

/** Whether an end or the socket has changed since: what was seen before that is to be seen again. */
export const isStale = (spot: Spot, here: Here): boolean => isOtherSetup(spot, here) || isOtherController(spot, here)
