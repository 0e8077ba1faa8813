import { freeIds, slugOf } from '../../../core/plan/free-id'
import { byId } from '../../../core/plan/lookup'
import type { Place, Plan } from '../../../core/plan/plan'
import { type LengthUnit, parseLength, parseOffset } from '../../../core/quantity/length'
import { type Parsed, parsed, unreadable } from '../../../core/quantity/parsed'
import { parsePoints } from '../../../core/survey/points-text'
import { nameField } from '../../../core/vocabulary/fields'
import {
  type Floor,
  PATHWAY_KINDS,
  type Pathway,
  pathwaySchema,
  type Spot,
  toMillimetre,
} from '../../../core/vocabulary/floor'
import { SURROUNDINGS, type Surrounding } from '../../../core/vocabulary/surroundings'

const textOf = (form: FormData, name: string): string => {
  const value = form.get(name)
  return typeof value === 'string' ? value.trim() : ''
}

/** A field that may be left empty; null where it is. */
function maybe<T>(text: string, read: (text: string) => Parsed<T>): Parsed<T | null> {
  return text === '' ? parsed(null) : read(text)
}

const figure =
  (name: string, lowest: number, highest: number, unit: string) =>
  (text: string): Parsed<number> => {
    const value = Number(text.replace(',', '.').replace(/ ?(mm²|mm2|mm|dB)$/i, ''))
    return Number.isFinite(value) && value >= lowest && value <= highest
      ? parsed(value)
      : unreadable(`${name} lies between ${lowest} and ${highest} ${unit}.`)
  }

/** Where something is to stand: how far right and down from the corner of the floor. */
export function readSpot(form: FormData, floor: string, unit: LengthUnit, [right, down] = ['x', 'y']): Parsed<Spot> {
  const x = parseOffset(textOf(form, right as string), unit)
  if (!x.ok) return unreadable(`How far right: ${x.problem}`)
  const y = parseOffset(textOf(form, down as string), unit)
  if (!y.ok) return unreadable(`How far down: ${y.problem}`)
  return parsed({ floor, x: toMillimetre(x.value), y: toMillimetre(y.value) })
}

/** The floor that a form describes: what it is called, and how high it lies. */
export function readFloor(form: FormData, before: Floor | null, plan: Plan, unit: LengthUnit): Parsed<Floor> {
  const name = nameField.safeParse(textOf(form, 'name'))
  if (!name.success) return unreadable('Give the floor a name.')
  const level = maybe(textOf(form, 'level'), (text) => parseOffset(text, unit))
  if (!level.ok) return unreadable(`How high it lies: ${level.problem}`)
  const own = before ?? { id: freeIds(plan.floors.map(({ id }) => id))(slugOf(name.data, 'floor')) }
  return parsed({ ...own, name: name.data, level: toMillimetre(level.value ?? 0) })
}

/** A place as a form puts it on a floor. */
export function readStanding(form: FormData, place: Place, floor: string, unit: LengthUnit): Parsed<Place> {
  const at = readSpot(form, floor, unit)
  if (!at.ok) return at
  const height = maybe(textOf(form, 'height'), (text) => parseOffset(text, unit))
  if (!height.ok) return unreadable(`Height of its ports: ${height.problem}`)
  const width = maybe(textOf(form, 'width'), (text) => parseLength(text, unit))
  if (!width.ok) return unreadable(`Width of the play area: ${width.problem}`)
  const depth = maybe(textOf(form, 'depth'), (text) => parseLength(text, unit))
  if (!depth.ok) return unreadable(`Depth of the play area: ${depth.problem}`)
  const quiet = maybe(textOf(form, 'quiet'), figure('The level wanted at a chair', 0, 100, 'dB'))
  if (!quiet.ok) return quiet
  const { height: _, area: __, quiet: ___, ...rest } = place
  return parsed({
    ...rest,
    at: at.value,
    ...(height.value === null ? {} : { height: toMillimetre(height.value) }),
    ...(width.value === null || depth.value === null ? {} : { area: { width: width.value, depth: depth.value } }),
    ...(quiet.value === null ? {} : { quiet: quiet.value }),
  })
}

/** The pathway that a form describes. */
export function readPathway(
  form: FormData,
  before: Pathway | null,
  plan: Plan,
  floor: string,
  unit: LengthUnit,
): Parsed<Pathway> {
  const points = parsePoints(textOf(form, 'points'), { floor, floors: plan.floors, places: plan.places, unit })
  if (!points.ok) return points
  const inner = maybe(textOf(form, 'inner'), figure('An inner diameter', 4, 300, 'mm'))
  if (!inner.ok) return inner
  const free = maybe(textOf(form, 'free'), figure('A free cross-section', 1, 1_000_000, 'mm²'))
  if (!free.ok) return free
  const beside = textOf(form, 'beside')
    .split(/[\s;]+|,(?!\d)/)
    .filter(Boolean)
    .map(figure('A cable that lies in it', 0.5, 50, 'mm'))
  const wrong = beside.find((each) => !each.ok)
  if (wrong && !wrong.ok) return wrong
  const through = form
    .getAll('through')
    .flatMap((each) => SURROUNDINGS.find((what) => what === each) ?? []) satisfies Surrounding[]
  const made = pathwaySchema.safeParse({
    id: before?.id ?? freeIds(plan.pathways.map(({ id }) => id))(slugOf(textOf(form, 'name'), 'pathway')),
    name: textOf(form, 'name'),
    kind: PATHWAY_KINDS.find((kind) => kind === form.get('kind')) ?? 'tray',
    points: points.value,
    ...(inner.value === null ? {} : { inner: inner.value }),
    ...(free.value === null ? {} : { free: free.value }),
    beside: beside.map((each) => (each.ok ? each.value : 0)),
    ...(through.length > 0 ? { through } : {}),
    closed: form.get('closed') === 'on',
    ...(textOf(form, 'note') ? { note: textOf(form, 'note') } : {}),
  })
  return made.success ? parsed(made.data) : unreadable(made.error.issues[0]?.message ?? 'This is not a pathway.')
}

/** The scale of a drawing: two points of it in pixels, and how far apart they are. */
export function readScale(form: FormData, unit: LengthUnit): Parsed<number> {
  const [x1, y1, x2, y2] = ['px1', 'py1', 'px2', 'py2'].map((name) => Number(form.get(name)))
  const pixels = Math.hypot((x2 ?? 0) - (x1 ?? 0), (y2 ?? 0) - (y1 ?? 0))
  if (!(pixels >= 1)) return unreadable('Mark two points of the drawing first, as far apart as you can.')
  const distance = parseLength(textOf(form, 'distance'), unit)
  if (!distance.ok) return distance
  const scale = distance.value / pixels
  return scale >= 1e-5 && scale <= 10 ? parsed(scale) : unreadable('At that scale the drawing would be no floor.')
}

export const placeOf = (plan: Plan, form: FormData): Place | undefined => byId(plan.places).get(textOf(form, 'place'))
export const pathwayOf = (plan: Plan, form: FormData): Pathway | undefined =>
  byId(plan.pathways).get(textOf(form, 'pathway'))
