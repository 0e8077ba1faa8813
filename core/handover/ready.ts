import type { Assessed } from '../checks/assess'
import { sceneOf } from '../faults/scene'
import { raisedBy } from '../faults/search'
import { seenIn } from '../faults/seen-in'
import { stopFacts, stopsOf } from '../faults/stops'
import { knownOf } from '../link/lay'
import { wasTried } from '../observe/known'
import { duesOf } from '../order/follow'
import { byId } from '../plan/lookup'
import { devicesByPlace, type SiteIndex } from '../plan/site-index'
import { proofsOf, type RunProof } from '../prove/proof'
import { laidCables, type Run } from '../vocabulary/run'
import { isOpen } from '../vocabulary/search'

/** One thing that is not settled, and the page of the site where it is. */
export type OpenThing = { label: string; page: string }

/** What should be settled before a handover is made: `says` is told with the things. */
export type OpenPoint = { name: string; says: string; things: readonly OpenThing[] }

/** What keeps a handover from being whole. Each names what it is about; what is settled says nothing. */
export function openPoints(site: Assessed): OpenPoint[] {
  const { index, assessment } = site
  const { plan } = index
  const proofs = proofsOf(site)
  const runs = plan.runs.filter(({ leads }) => leads.length > 0)
  const where = (
    is: (proof: RunProof) => boolean,
    page: (run: Run) => string = ({ id }) => `prove/${id}`,
  ): OpenThing[] =>
    runs.flatMap((run) => {
      const proof = proofs.get(run.id)
      return proof && is(proof) ? [{ label: run.tag, page: page(run) }] : []
    })
  const blocked = new Set(assessment.runs.flatMap(({ id, grade }) => (grade === 'blocked' ? [id] : [])))
  const points: OpenPoint[] = [
    {
      name: 'No way through',
      says: 'These runs are blocked as they are planned.',
      things: plan.runs.flatMap(({ id, tag }) => (blocked.has(id) ? [{ label: tag, page: `runs/${id}` }] : [])),
    },
    { name: 'Not laid', says: 'Nobody has laid these runs.', things: where(({ state }) => state === 'planned') },
    {
      name: 'A test failed',
      says: 'Find the fault of these runs, then test them again.',
      things: where(
        ({ failed }) => failed > 0,
        (run) => `faults?run=${run.id}`,
      ),
    },
    {
      name: 'Not proved',
      says: 'These runs are laid, and not every test was done.',
      things: where(({ state }) => state === 'laid'),
    },
    {
      name: 'Stale',
      says: 'Something changed since these runs were tested or accepted.',
      things: where(({ state }) => state === 'stale'),
    },
    {
      name: 'Accepted with less',
      says: 'Somebody accepted these runs without a test that has not passed.',
      things: where(({ accepted }) => Boolean(accepted?.less)),
    },
    {
      name: 'Unmarked leads',
      says: 'Nobody knows what these leads carry, and they lie in runs.',
      things: unknownLeads(index, runs),
    },
    {
      name: 'To be sent back or kept',
      says: 'These orders still wait for a decision.',
      things: [...new Set(duesOf(index).map(({ line }) => line))].flatMap((id) => {
        const line = byId(plan.orderLines).get(id)
        const kind = line && byId(plan.kinds).get(line.kind)
        return line ? [{ label: kind?.name ?? id, page: 'orders' }] : []
      }),
    },
    ...searchPoints(site),
    {
      name: 'No photo',
      says: 'Runs end at these places, and there is no photo of them.',
      things: placesWithoutPhoto(index, runs),
    },
    {
      name: 'Not on a drawing',
      says: 'These floors have no drawing to scale.',
      things: plan.floors.flatMap(({ id, name, drawing }) => (drawing ? [] : [{ label: name, page: `floors/${id}` }])),
    },
  ]
  return points.filter(({ things }) => things.length > 0)
}

function unknownLeads(index: SiteIndex, runs: readonly Run[]): OpenThing[] {
  const ids = new Set(runs.flatMap(laidCables))
  return index.plan.cables.flatMap((cable) => {
    if (!ids.has(cable.id)) return []
    const known = knownOf(index, cable)
    return known.grade.value === null && !wasTried(known) ? [{ label: cable.tag, page: `cables/${cable.id}` }] : []
  })
}

/** Searches that go on, and stops that nobody has dealt with. */
function searchPoints({ index, walks, assessment }: Assessed): OpenPoint[] {
  const verdicts = byId(assessment.runs)
  const open = index.plan.searches.filter(isOpen)
  const stops = open.flatMap((search): OpenThing[] => {
    const run = index.runs.get(search.run)
    if (!run) return []
    const blocked = verdicts.get(run.id)?.findings.filter(({ grade }) => grade === 'blocked') ?? []
    const scene = sceneOf({ index, crossings: walks.crossings.get(run.id) ?? [], blocked }, run)
    return stopsOf(search, raisedBy(scene, search, seenIn(index.plan, search)))
      .filter(({ cleared }) => cleared === null)
      .map(({ name }) => ({ label: `${run.tag}: ${stopFacts[name].title}`, page: `faults/${search.id}` }))
  })
  return [
    { name: 'Stops', says: 'Nobody has dealt with these.', things: stops },
    {
      name: 'Faults still searched',
      says: 'A fault of these runs is searched.',
      things: open.map(({ id, run }) => ({ label: index.runs.get(run)?.tag ?? run, page: `faults/${id}` })),
    },
  ]
}

function placesWithoutPhoto({ plan, devices }: SiteIndex, runs: readonly Run[]): OpenThing[] {
  const ends = new Set(
    runs.flatMap(({ from, to }) => [from, to].flatMap(({ device }) => devices.get(device)?.place ?? [])),
  )
  const there = devicesByPlace(plan.devices)
  return plan.places.flatMap(({ id, name, photos = [] }) =>
    ends.has(id) && there.has(id) && photos.length === 0 ? [{ label: name, page: 'walk' }] : [],
  )
}

/** Things that are named one by one; the rest by number. */
const MOST_NAMED = 12

/** The same as sentences, for the book and for the record of what was left open. */
export const openSentences = (points: readonly OpenPoint[]): string[] =>
  points.map(({ name, says, things }) => {
    const named = things.slice(0, MOST_NAMED).map(({ label }) => label)
    const more = things.length - named.length
    return `${name}. ${says} ${named.join(', ')}${more > 0 ? ` and ${more} more` : ''}.`.slice(0, 500)
  })
