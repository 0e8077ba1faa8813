import { data, redirect } from 'react-router'
import type { ChangeToMake, Copy, LogPosition } from '../../../core/change/change'
import {
  deleteFloor,
  deletePathway,
  moveSpot,
  saveFloor,
  savePathway,
  standPlaces,
} from '../../../core/change/changes/floors'
import { type KeptImage, LARGEST_UPLOAD_BYTES } from '../../../core/files/file-types'
import { byId } from '../../../core/plan/lookup'
import type { LengthUnit } from '../../../core/quantity/length'
import type { Parsed } from '../../../core/quantity/parsed'
import type { Floor } from '../../../core/vocabulary/floor'
import { fileId } from '../../../server/files/files'
import { type Refused, refused } from '../../../server/sites/change-site'
import { pictureOf } from '../../off-thread.server'
import { readFormWithFile } from '../../read-form.server'
import { addressWith, baseOf, change, whyNotSaved } from '../../stored.server'
import { readUnit } from '../../unit-cookie'
import type { Route } from './+types/floor'
import { pathwayOf, placeOf, readFloor, readPathway, readScale, readSpot, readStanding } from './floor-form'

/** Whatever is done on a floor, each as one change. */
export const action = ({ request, params }: Route.ActionArgs) =>
  readFormWithFile(request, { file: LARGEST_UPLOAD_BYTES }, async (form, file) => {
    const wrong = (problem: string, status = 422) => data({ problem }, { status })
    let drawing: KeptImage | null = null
    if (form.get('intent') === 'drawing') {
      const made = await pictureOf(file, 'drawing')
      if ('problem' in made) return wrong(made.problem, made.status)
      drawing = made.picture
    }
    const unit = readUnit(request)
    const saved = await change(request, form, params.site, (copy) => {
      const floor = byId(copy.plan.floors).get(params.floor)
      if (!floor) return refused('floor', 'this floor is no longer there')
      return drawing
        ? { ...layDrawing(floor, drawing, baseOf(form)), files: [drawing] }
        : drafted(form, copy, floor, unit)
    })
    if (saved?.outcome === 'saved')
      return redirect(
        form.get('intent') === 'no floor'
          ? `/sites/${params.site}/floors`
          : addressWith(`/sites/${params.site}/floors/${params.floor}`, { did: saved.id }),
      )
    const { problem, status } = whyNotSaved(saved)
    return wrong(problem, status)
  })

/** Until somebody says how long a stretch of it is, a drawing is taken to be so wide. */
const UNSCALED = 20

const layDrawing = (floor: Floor, { bytes, width, height }: KeptImage, base: LogPosition): ChangeToMake =>
  saveFloor({ ...floor, drawing: { file: fileId(bytes), width, height, metresPerPixel: UNSCALED / width } }, base)

/** What a form of the page asks for. */
function drafted(form: FormData, { plan, place: at }: Copy, floor: Floor, unit: LengthUnit): ChangeToMake | Refused {
  const base = baseOf(form)
  const read = <T>(answer: Parsed<T>, make: (value: T) => ChangeToMake): ChangeToMake | Refused =>
    answer.ok ? make(answer.value) : refused('floor', answer.problem)
  const place = placeOf(plan, form)
  const pathway = pathwayOf(plan, form)
  if (!pathway && form.get('pathway')) return refused('pathway', 'this pathway is no longer there')
  switch (form.get('intent')) {
    case 'move': {
      const from = readSpot(form, floor.id, 'm', ['fromX', 'fromY'])
      return from.ok
        ? read(readSpot(form, floor.id, 'm'), (to) => moveSpot(plan, at, from.value, to))
        : refused('floor', from.problem)
    }
    case 'stand':
      return place
        ? read(readStanding(form, place, floor.id, unit), (value) => standPlaces(plan, [value], base))
        : refused('place', 'choose a place')
    case 'lift': {
      if (!place) return refused('place', 'choose a place')
      const { at: _, ...rest } = place
      return standPlaces(plan, [rest], base)
    }
    case 'pathway':
      return read(readPathway(form, pathway ?? null, plan, floor.id, unit), (value) =>
        savePathway(plan, value, pathway ? base : null, at),
      )
    case 'no pathway':
      return pathway ? deletePathway(pathway, base) : refused('pathway', 'it is no longer there')
    case 'floor':
      return read(readFloor(form, floor, plan, unit), (value) => saveFloor(value, base))
    case 'no floor':
      return deleteFloor(floor, base)
    case 'no drawing': {
      const { drawing: _, ...rest } = floor
      return saveFloor(rest, base)
    }
    case 'scale': {
      const { drawing: under } = floor
      return under
        ? read(readScale(form, unit), (metresPerPixel) =>
            saveFloor({ ...floor, drawing: { ...under, metresPerPixel } }, base),
          )
        : refused('floor', 'there is no drawing under this floor')
    }
    default:
      return refused('floor', 'nothing was asked for')
  }
}
