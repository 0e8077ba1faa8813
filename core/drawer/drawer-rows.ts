import { readingText } from '../bench/grade-reading'
import { type Abilities, abilitiesOf } from '../link/abilities'
import { basisNames, knownCable } from '../link/known'
import { doesJob, type Job } from '../match/job-text'
import { CABLE_STANDINGS, type Cable } from '../plan/cable'
import type { Run } from '../plan/run'
import type { SiteIndex } from '../plan/site-index'
import { describeEnd } from '../standards/connectors'
import { gradeFacts } from '../standards/grades'

/** Where a cable is: in a run, or where somebody put it. */
export type Whereabouts = { at: 'run'; run: Run } | { at: Cable['standing'] }

/** One cable as the drawer shows it. */
export type DrawerRow = {
  cable: Cable
  abilities: Abilities
  where: Whereabouts
  /** The device it came with. */
  pairing: string | null
  /** What was read last, in words. */
  last: string
  /** Something is to be done about it: nothing is known of what it carries, or its evidence disagrees. */
  open: 'unknown' | 'disagrees' | null
  /** All that is written of it, in lower case, for searching. */
  text: string
}

/** Every cable of a site with what it is good for, how that is known, and where it is. */
export const drawerRows = (index: SiteIndex): DrawerRow[] => index.plan.cables.map((cable) => rowOf(index, cable))

function rowOf(index: SiteIndex, cable: Cable): DrawerRow {
  const abilities = abilitiesOf(index, cable)
  const where = whereaboutsOf(index, cable)
  const pairing = cable.suppliedWith ? (index.devices.get(cable.suppliedWith)?.name ?? null) : null
  const { grade } = abilities.known
  const words = [
    cable.tag,
    ...cable.ends.map(describeEnd),
    cable.construction,
    grade.value ? gradeFacts[grade.value].name : 'unknown',
    basisNames[abilities.basis],
    pairing && `came with ${pairing}`,
    cable.kind && index.kinds.get(cable.kind)?.name,
    where.at === 'run' ? `run ${where.run.tag}` : where.at,
    cable.oneWay && 'one way',
    cable.note,
  ]
  return {
    cable,
    abilities,
    where,
    pairing,
    last: abilities.last ? readingText(abilities.last) : '',
    open: openQuestion(index, cable),
    text: words.filter(Boolean).join(' ').toLowerCase(),
  }
}

/** Where a cable is: the run it lies in, or where it was put. */
export function whereaboutsOf(index: SiteIndex, cable: Cable): Whereabouts {
  const run = index.runOf.get(cable.id)
  return run ? { at: 'run', run } : { at: cable.standing }
}

/** What is still open about a cable that is not retired: nothing known of what it carries, or evidence that disagrees. */
export function openQuestion(index: SiteIndex, cable: Cable): DrawerRow['open'] {
  if (cable.standing === 'retired') return null
  const { grade, trials, conflicts } = knownCable(cable, cable.kind ? index.kinds.get(cable.kind) : undefined)
  if (grade.value === null && trials.length === 0) return 'unknown'
  return conflicts.length > 0 ? 'disagrees' : null
}

/** The rows that do a job. Retired cables do none, unless the job asks for them by that word. */
export function rowsForJob(rows: readonly DrawerRow[], job: Job): DrawerRow[] {
  const asked = CABLE_STANDINGS.some((standing) => job.words.includes(standing))
  const asksMore =
    job.rate ?? job.atLeast ?? job.atMost ?? job.watts ?? job.picture ?? job.construction ?? job.connectors[0]
  return rows.filter(
    ({ cable, abilities, text }) =>
      (asksMore === undefined || asked || cable.standing !== 'retired') && doesJob(job, abilities, text),
  )
}
