import { type Abilities, abilitiesOf } from '../link/abilities'
import { knownOf } from '../link/lay'
import { doesJob, type Job } from '../match/job-text'
import { basisNames } from '../observe/basis'
import { wasTried } from '../observe/known'
import type { SiteIndex } from '../plan/site-index'
import { describeEnd } from '../standards/connectors'
import { gradeFacts } from '../standards/grades'
import { CABLE_STANDINGS, type Cable } from '../vocabulary/cable'
import type { Run } from '../vocabulary/run'
import { keptWith } from '../work/kept'

/** Where a cable is: in a run, or where somebody put it. */
export type Whereabouts = { at: 'run'; run: Run } | { at: Cable['standing'] }

/** One cable as the drawer shows it. */
export type DrawerRow = Readonly<{
  cable: Cable
  abilities: Abilities
  where: Whereabouts
  /** The device it came with. */
  pairing: string | null
  /** What was read last, in words. */
  last: string
  /** Something is to be done about it: it ran hot, nothing is known of what it carries, or its evidence disagrees. */
  open: 'hot' | 'unknown' | 'disagrees' | null
  /** All that is written of it, in lower case, for searching. */
  text: string
}>

/** Every cable of a site with what it is good for, how that is known, and where it is; each told only once it is asked for. */
export const drawerRows = keptWith((index: SiteIndex): readonly DrawerRow[] =>
  index.plan.cables.map((cable) => rowOf(index, cable)),
)

function rowOf(index: SiteIndex, cable: Cable): DrawerRow {
  let abilities: Abilities | undefined
  let text: string | undefined
  return {
    cable,
    where: whereaboutsOf(index, cable),
    pairing: cable.suppliedWith ? (index.devices.get(cable.suppliedWith)?.name ?? null) : null,
    get abilities() {
      abilities ??= abilitiesOf(index, cable)
      return abilities
    },
    get last() {
      return this.abilities.last ? this.abilities.last.words : ''
    },
    get open() {
      return openQuestion(index, cable)
    },
    get text() {
      text ??= writtenOf(index, this)
      return text
    },
  }
}

function writtenOf(index: SiteIndex, { cable, abilities, where, pairing }: DrawerRow): string {
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
  return words.filter(Boolean).join(' ').toLowerCase()
}

/** Where a cable is: the run it lies in, or where it was put. */
export function whereaboutsOf(index: SiteIndex, cable: Cable): Whereabouts {
  const run = index.runOf.get(cable.id)
  return run ? { at: 'run', run } : { at: cable.standing }
}

/** What is still open about a cable that is not retired: it ran hot, nothing known of what it carries, or evidence that disagrees. */
export function openQuestion(index: SiteIndex, cable: Cable): DrawerRow['open'] {
  if (cable.standing === 'retired') return null
  const known = knownOf(index, cable)
  const { grade, conflicts, hot } = known
  if (hot) return 'hot'
  if (grade.value === null && !wasTried(known)) return 'unknown'
  return conflicts.length > 0 ? 'disagrees' : null
}

/** The cables something is to be done about. */
export const openCables = keptWith((index: SiteIndex): readonly Cable[] =>
  index.plan.cables.filter((cable) => openQuestion(index, cable) !== null),
)

/** The rows that do a job. Retired cables do none, unless the job asks for them by that word. */
export function rowsForJob(rows: readonly DrawerRow[], job: Job): readonly DrawerRow[] {
  const { words } = job
  const figures =
    job.rate ??
    job.atLeast ??
    job.atMost ??
    job.watts ??
    job.picture ??
    job.construction ??
    job.marks ??
    job.connectors[0]
  if (figures === undefined && words.length === 0) return rows
  const anyStanding = figures === undefined || CABLE_STANDINGS.some((standing) => words.includes(standing))
  return rows.filter(
    (row) =>
      (anyStanding || row.cable.standing !== 'retired') &&
      // what is written of a cable is only put together where words are looked for
      doesJob(job, row.abilities, words.length > 0 ? row.text : ''),
  )
}
