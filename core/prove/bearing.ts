import { formatLength } from '../quantity/length'
import { atLeast, atMost } from '../quantity/limit'
import { formatRate } from '../quantity/rate'
import { formatWatts } from '../quantity/watts'
import { DISPLAYPORT_LINKS, HDMI_LEVELS } from '../standards/picture-links'
import { CABLE_STANDINGS, type Cable } from '../vocabulary/cable'
import { type Device, INSTALLED, type Port } from '../vocabulary/device'
import { CHROMAS, type Need, type PictureMode } from '../vocabulary/need'
import type { Place } from '../vocabulary/place'
import type { Run, RunLead } from '../vocabulary/run'
import { keptWith } from '../work/kept'

/**
 * How a figure may change without taking anything from a proof: not at all, not upwards, not downwards, or nothing of it may go. A figure that was not noted on
 * one side is not compared.
 */
type Rule =
  | { may: 'not change' | 'not rise' | 'not fall' }
  /** The same of what has no number: the order from least to most. */
  | { may: 'not rise' | 'not fall'; order: readonly string[] }
  /** A list in one text: what was in it is still in it. */
  | { may: 'not lose' }

/**
 * One figure of a thing that a proof rests on; `of` answers null where nobody noted it, and `say` writes it for people. What is `usual` is left out of the text,
 * so that this stays short: a figure that comes to this list later has none, or proofs of before would seem to have noted it.
 */
type Figure<T> = {
  name: string
  rule: Rule
  of(value: T): string | number | null | undefined
  say?: (figure: number) => string
  usual?: string
}

/** Of each field of a thing the figures in it that a proof rests on; none where it may change as it likes. */
type Bearing<T> = { readonly [Field in keyof T]-?: readonly Figure<T>[] }

const figure = <T>(name: string, rule: Rule, of: Figure<T>['of'], say?: Figure<T>['say']): readonly Figure<T>[] => [
  { name, rule, of, ...(say ? { say } : {}) },
]
/** The same, of which one value is usual. */
const usually = <T>(usual: string, figures: readonly Figure<T>[]): readonly Figure<T>[] =>
  figures.map((each) => ({ ...each, usual }))
const metres = (length: number): string => formatLength(length)
const hertz = (refresh: number): string => `${refresh} Hz`
const same: Rule = { may: 'not change' }
const noMore: Rule = { may: 'not rise' }
const noLess: Rule = { may: 'not fall' }
const none: readonly never[] = []

const upTo = (order: readonly string[]): Rule => ({ may: 'not rise', order })
const downTo = (order: readonly string[]): Rule => ({ may: 'not fall', order })
const yes = (is: boolean | undefined): string => (is ? 'yes' : 'no')
const YES = ['no', 'yes']

/** A mode is as hard as its figures. */
const modeFigures: readonly Figure<PictureMode>[] = [
  ...figure<PictureMode>('width', noMore, ({ width }) => width),
  ...figure<PictureMode>('height', noMore, ({ height }) => height),
  ...figure<PictureMode>('refresh', noMore, ({ refresh }) => refresh, hertz),
  ...usually(
    '8',
    figure<PictureMode>('bits', noMore, ({ bits }) => bits),
  ),
  ...usually(
    '444',
    figure<PictureMode>('chroma', upTo(CHROMAS.toReversed()), ({ chroma }) => chroma),
  ),
  ...usually(
    'no',
    figure<PictureMode>('high dynamic range', upTo(YES), ({ hdr }) => yes(hdr)),
  ),
]

type FieldOf<T> = T extends unknown ? keyof T : never
type ValueOf<T, Field> = T extends unknown ? (Field extends keyof T ? T[Field] : never) : never
/** A need of any kind, with every field that one of them has. */
type AnyNeed = { [Field in FieldOf<Need>]?: ValueOf<Need, Field> | undefined }

const portFigures: Bearing<Port> = {
  id: none,
  name: none,
  connector: figure('connector', same, ({ connector }) => connector),
  gender: usually(
    'socket',
    figure('gender', same, ({ gender }) => gender),
  ),
  role: usually(
    'either',
    figure('role', same, ({ role }) => role),
  ),
  usb: usually(
    'none',
    figure('USB', downTo(['none', 'usb2', 'gen1x1', 'gen2x1', 'gen2x2']), ({ usb = 'none' }) => usb),
  ),
  usb4: usually(
    '0',
    figure('USB4', noLess, ({ usb4 = 0 }) => usb4),
  ),
  thunderbolt: usually(
    '0',
    figure('Thunderbolt', noLess, ({ thunderbolt = 0 }) => thunderbolt),
  ),
  displayport: [
    ...usually(
      'none',
      figure<Port>('DisplayPort', same, ({ displayport }) => displayport?.direction ?? 'none'),
    ),
    ...figure<Port>('DisplayPort link', downTo(DISPLAYPORT_LINKS), ({ displayport }) => displayport?.link),
    ...figure<Port>('DisplayPort lanes', noLess, ({ displayport }) => displayport?.lanes),
    ...figure<Port>('DisplayPort compression', downTo(YES), ({ displayport }) =>
      displayport ? yes(displayport.compression) : null,
    ),
  ],
  hdmi: [
    ...usually(
      'none',
      figure<Port>('HDMI', same, ({ hdmi }) => hdmi?.direction ?? 'none'),
    ),
    ...figure<Port>('HDMI level', downTo(HDMI_LEVELS), ({ hdmi }) => hdmi?.level),
    ...figure<Port>('HDMI compression', downTo(YES), ({ hdmi }) => (hdmi ? yes(hdmi.compression) : null)),
  ],
  gives: figure('power it gives', noLess, ({ gives }) => gives, formatWatts),
  // what a device could take is asked by a need; how it is written on a plate is for Match
  takes: none,
  levels: none,
  accepts: none,
  ownPlug: figure('plug', same, ({ ownPlug }) => ownPlug),
  lacksResistors: none,
  captive: figure('own lead', noMore, ({ captive }) => captive?.length, metres),
  sits: none,
  reserves: none,
  controller: figure('controller', same, ({ controller }) => controller),
}

const deviceFigures: Bearing<Device> = {
  id: none,
  name: none,
  kind: figure('sort', same, ({ kind }) => kind),
  // a run lies between devices, wherever they stand
  place: none,
  at: none,
  height: none,
  noise: none,
  installed: INSTALLED.flatMap((what) =>
    figure<Device>(what, { may: 'not lose' }, ({ installed }) => {
      const versions = (installed ?? []).flatMap((each) => (each.what === what ? [each.version] : []))
      return versions.length > 0 ? versions.toSorted().join(', ') : null
    }),
  ),
  screen: [
    ...figure<Device>('screen', same, ({ screen }) => screen?.name),
    ...figure<Device>('pixels it shows a second', noLess, ({ screen }) =>
      screen && screen.modes.length > 0
        ? Math.max(...screen.modes.map(({ width, height, refresh }) => width * height * refresh))
        : null,
    ),
    ...figure<Device>('bits per colour it takes', noLess, ({ screen }) => screen?.bits),
    ...figure<Device>('high dynamic range', downTo(YES), ({ screen }) =>
      screen?.hdr === undefined ? null : yes(screen.hdr),
    ),
  ],
  seen: none,
  visits: none,
  battery: [
    ...figure<Device>('power it draws', noMore, ({ battery }) => battery?.draw, formatWatts),
    ...figure<Device>('watt hours of its battery', noLess, ({ battery }) => battery?.wattHours),
  ],
  disk: [
    ...figure<Device>('write of its drive', noLess, ({ disk }) => disk?.write, formatRate),
    ...figure<Device>('read of its drive', noLess, ({ disk }) => disk?.read, formatRate),
  ],
  decoder: figure('rate it decodes', noLess, ({ decoder }) => decoder, formatRate),
  pictureOverUsb: figure('rate of a picture over USB', noMore, ({ pictureOverUsb }) => pictureOverUsb, formatRate),
  // judged by Match: what was seen over it stays seen
  rated: none,
  drivers: none,
  pool: figure('power it shares', noLess, ({ pool }) => (pool?.kind === 'shared' ? pool.total : null), formatWatts),
  keeps: figure('power it keeps', noMore, ({ keeps }) => keeps, formatWatts),
  controllers: none,
  busPowered: usually(
    'no',
    figure('lives on its uplink', upTo(YES), ({ busPowered }) => yes(busPowered)),
  ),
  // each port by itself
  ports: none,
  note: none,
}

const needFigures: Bearing<AnyNeed> = {
  id: none,
  kind: figure('sort', same, ({ kind }) => kind),
  name: none,
  from: figure('from', same, ({ from }) => from),
  to: figure('to', same, ({ to }) => to),
  // who is served first is judged by Match, and seen in a soak
  priority: none,
  through: none,
  variants: none,
  said: none,
  note: none,
  mode: modeFigures.map((each) => ({ ...each, of: ({ mode }: AnyNeed) => mode && each.of(mode) })),
  uncompressed: usually(
    'no',
    figure('uncompressed', upTo(YES), ({ uncompressed }) => yes(uncompressed)),
  ),
  rate: figure('rate', noMore, ({ rate }) => rate, formatRate),
  // left out it is what is written
  back: figure('rate back', noMore, ({ back, rate }) => back ?? rate, formatRate),
  watts: usually(
    '0',
    figure('power', noMore, ({ watts = 0 }) => watts, formatWatts),
  ),
  hours: figure('hours in use', noMore, ({ hours }) => hours),
  refresh: figure('refresh in use', noMore, ({ refresh }) => refresh, hertz),
  link: usually(
    'none',
    figure('link it asks for', upTo(['none', 'gen1x1', 'gen2x1']), ({ link = 'none' }) => link),
  ),
  volts: figure('volts', same, ({ volts }) => volts),
  feed: figure('its supply', downTo(['missing', 'there']), ({ feed }) => feed),
  delay: figure(
    'delay it allows',
    noLess,
    ({ delay }) => delay,
    (delay) => `${delay} ms`,
  ),
}

const cableFigures: Bearing<Cable> = {
  id: none,
  tag: none,
  // what it is called, and how it is built: it is the same lead, and it was seen to hold
  kind: none,
  ends: figure('plugs', same, ({ ends }) => ends.map(({ connector, gender }) => `${connector} ${gender}`).join(' to ')),
  // a lead that runs one way says in its run which way it lies
  oneWay: none,
  length: figure('length', noMore, ({ length }) => length, metres),
  construction: none,
  awg: none,
  thickness: none,
  feed: none,
  feedEnd: none,
  pair: none,
  copper: none,
  passesBack: none,
  passesOn: none,
  suppliedWith: none,
  standing: usually(
    'drawer',
    figure('standing', downTo(CABLE_STANDINGS.toReversed()), ({ standing }) => standing),
  ),
  note: none,
}

/** Its ends and its leads are facts of their own. */
const runFigures: Bearing<Run> = {
  id: none,
  tag: none,
  name: none,
  from: none,
  to: none,
  leads: none,
  // only what somebody measured: what the plan works out moves nothing that lies
  route: [
    ...figure<Run>('measured length', noMore, ({ route }) => (route.seen === undefined ? null : route.length), metres),
    ...figure<Run>(
      'tightest bend',
      noLess,
      ({ route }) => route.bend,
      (bend) => `${bend} mm`,
    ),
  ],
  waits: none,
  note: none,
}

/** How a lead that runs one way lies. */
const leadFigures: Bearing<Pick<RunLead, 'reversed'>> = {
  reversed: figure('turned round', same, ({ reversed }) => yes(reversed)),
}

const placeFigures: Bearing<Place> = {
  id: none,
  name: none,
  mains: figure('mains', downTo(['gone', 'there']), ({ mains }) =>
    mains === 'not known' ? null : mains ? 'there' : 'gone',
  ),
  outlet: none,
  at: none,
  height: none,
  area: none,
  quiet: none,
  seen: none,
  photos: none,
  note: none,
}

/** Every field of what a proof may rest on, with the figures in it that it rests on: a new field has to be named here before it compiles. */
export const bearing = {
  runs: runFigures,
  leads: leadFigures,
  cables: cableFigures,
  devices: deviceFigures,
  ports: portFigures,
  needs: needFigures,
  places: placeFigures,
} as const
export type BearingName = keyof typeof bearing

type Told<Name extends BearingName> = (typeof bearing)[Name] extends Bearing<infer T> ? T : never

const all = Object.fromEntries(
  Object.entries(bearing).map(([name, fields]) => [name, Object.values<readonly Figure<never>[]>(fields).flat()]),
) as unknown as { [Name in BearingName]: readonly Figure<Told<Name>>[] }

/** Each figure of a thing by its name. */
const named = Object.fromEntries(
  Object.entries(all).map(([name, figures]) => [name, new Map(figures.map((each) => [each.name, each]))]),
) as unknown as { [Name in BearingName]: ReadonlyMap<string, Figure<never>> }

/** The texts of things as they stand, each worked out once: a site asks for the same devices and leads with every proof. */
const texts = new Map<BearingName, (value: object) => string>()

/** The figures of a thing as one text that compares: "length: 12.5; standing: lent". */
export function figuresText<Name extends BearingName>(name: Name, value: Told<Name> & object): string {
  const known = texts.get(name) ?? keptWith((thing: object) => textOf(name, thing as Told<Name>))
  texts.set(name, known)
  return known(value)
}

const textOf = <Name extends BearingName>(name: Name, value: Told<Name>): string =>
  all[name]
    .flatMap(({ name: of, of: told, usual }) => {
      const is = told(value)
      return is === null || is === undefined || String(is) === usual
        ? []
        : [`${of}: ${String(is).replaceAll(';', ',')}`]
    })
    .join('; ')

/** The same again, by name. */
export const figuresIn = (text: string): ReadonlyMap<string, string> =>
  new Map(
    text.split('; ').flatMap((part) => {
      const at = part.indexOf(': ')
      return at < 0 ? [] : [[part.slice(0, at), part.slice(at + 2)] as const]
    }),
  )

/** A figure that is not as a proof needs it, as it was and as it is. */
export type FigureChange = { figure: string; was: string; is: string }

/** The figures of a thing that a proof does not allow to be as they are now. Only what was noted on both sides is compared. */
export function figuresChanged(name: BearingName, was: string, is: string): FigureChange[] {
  if (was === is) return []
  const [before, now] = [figuresIn(was), figuresIn(is)]
  return [...named[name].values()].flatMap(({ name: figure, rule, usual }) => {
    const [old, here] = [before.get(figure) ?? usual, now.get(figure) ?? usual]
    return old === undefined || here === undefined || allows(rule, old, here) ? [] : [{ figure, was: old, is: here }]
  })
}

/** A figure as people write it: "12.5 m", "60 Hz". */
export function figureSaid(name: BearingName, figure: string, told: string): string {
  const say = named[name].get(figure)?.say
  return say && Number.isFinite(Number(told)) ? say(Number(told)) : told
}

function allows(rule: Rule, was: string, is: string): boolean {
  if (was === is) return true
  if (rule.may === 'not change') return false
  if (rule.may === 'not lose') {
    const now = is.split(', ')
    return was.split(', ').every((each) => now.includes(each))
  }
  const rank = 'order' in rule ? (text: string) => rule.order.indexOf(text) : Number
  return rule.may === 'not rise' ? atMost(rank(is), rank(was)) : atLeast(rank(is), rank(was))
}

/** Whether a picture is no harder than another. */
export const isNoHarder = (mode: PictureMode, than: PictureMode): boolean =>
  modeFigures.every(({ rule, of }) => allows(rule, String(of(than)), String(of(mode))))
