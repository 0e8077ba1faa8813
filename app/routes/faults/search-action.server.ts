import { data } from 'react-router'
import { readValue } from '../../../core/bench/read-value'
import { besideAt } from '../../../core/bench/where'
import type { Copy } from '../../../core/change/change'
import { standCables } from '../../../core/change/changes/cables'
import { takeBack } from '../../../core/change/changes/observations'
import { proveRun, soakOfRun, startRunSoak, withdrawAcceptance } from '../../../core/change/changes/prove'
import {
  beginSearch,
  buyInstead,
  clearStop,
  endSearch,
  makeTry,
  reopenSearch,
  searchOf,
  shownByAttempt,
  type ToldSymptom,
  tellSymptoms,
} from '../../../core/change/changes/searches'
import { situationOf } from '../../../core/checks/situation'
import { ladderOf } from '../../../core/faults/nothing-wrong'
import { type Said, symptomsSaid } from '../../../core/faults/said'
import type { Scene } from '../../../core/faults/scene'
import { problemAt, type Seen, standingOfSearch } from '../../../core/faults/search'
import { seenIn } from '../../../core/faults/seen-in'
import { shownByEnd, shownByTry } from '../../../core/faults/shown'
import { forbids, stopFacts } from '../../../core/faults/stops'
import { symptomFacts } from '../../../core/faults/symptoms'
import { observationText } from '../../../core/observe/observation'
import { byId } from '../../../core/plan/lookup'
import { indexPlan } from '../../../core/plan/site-index'
import { soakedPicture } from '../../../core/prove/predict-run'
import { acceptedNow } from '../../../core/prove/proof'
import { takenAt } from '../../../core/prove/rests'
import { laidCables, type Run } from '../../../core/vocabulary/run'
import { ENDS, isOpen, type Search, STOPS, SYMPTOMS, type Symptom, TRIES } from '../../../core/vocabulary/search'
import type { Hand, MakeChange } from '../../../server/sites/change-site'
import { refused } from '../../../server/sites/change-site'
import { saidByText } from '../../off-thread.server'
import { witnessOf } from '../../witness.server'
import { sceneAt, siteOf } from './search-view.server'

const said = (form: FormData, name: string, most = 300): string =>
  String(form.get(name) ?? '')
    .trim()
    .slice(0, most)

const isOneOf = <T extends string>(list: readonly T[], value: string): value is T => list.some((each) => each === value)

/** A pasted log at most: 10 MB, which is read on a thread of its own. */
export const LONGEST_LOG = 10_000_000
/** What is kept of a line that was read. */
const LONGEST_KEPT = 300

/** What was pasted into a form; null where nothing was. */
export async function saidIn(form: FormData): Promise<Said | null> {
  const text = String(form.get('pasted') ?? '').slice(0, LONGEST_LOG)
  if (text.trim() === '') return null
  const read = await saidByText(text)
  if (!read.done) throw data(read.problem, { status: read.status })
  return read.value
}

/** What a form says of what was pasted, for the page that comes after it: how much was passed over. */
export function passedOver(said: Said | null): Record<string, string> {
  if (!said || said.log.passed === 0 || said.link || said.picture) return {}
  return { passed: String(said.log.passed), such: (said.log.passedOver[0] ?? '').slice(0, LONGEST_SHOWN) }
}
const LONGEST_SHOWN = 80

/** The symptoms that a form names: those chosen, and those that its pasted lines say. Each line keeps the words it came from. */
function toldBy(form: FormData, pasted: Said | null, scene: Scene): ToldSymptom[] {
  const chosen = form
    .getAll('symptom')
    .flatMap((each): ToldSymptom[] =>
      isOneOf(SYMPTOMS, String(each)) ? [{ what: each as Symptom, saw: symptomFacts[each as Symptom].saw }] : [],
    )
  const asked = { planned: scene.planned, wanted: soakedPicture(scene) }
  const read = (pasted ? symptomsSaid(pasted, asked) : []).map(
    ({ what, line }): ToldSymptom => ({ what, saw: symptomFacts[what].saw, line: line.slice(0, LONGEST_KEPT) }),
  )
  const words = said(form, 'saw', 500)
  const free: ToldSymptom[] = words === '' ? [] : [{ saw: words }]
  const known = new Map([...read, ...chosen].map((each) => [each.what, each]))
  return [...known.values(), ...free]
}

/** What the stage's form begins: a search at a run by what somebody sees. */
export function draftBegin({ plan }: Copy, form: FormData, pasted: Said | null, hand: Hand): ReturnType<MakeChange> {
  const wanted = said(form, 'run', 80)
  const run = byId(plan.runs).get(wanted) ?? plan.runs.find(({ tag }) => tag.toLowerCase() === wanted.toLowerCase())
  if (!run) return refused('run', wanted === '' ? 'say which run it is' : `there is no run ${wanted}`)
  const told = toldBy(form, pasted, sceneAt(siteOf(plan), run))
  if (told.length === 0 && pasted)
    return refused('pasted', 'no line of it is understood. Choose what you see instead; what you pasted is still here')
  if (told.length === 0) return refused('symptom', 'choose what you see, or paste what the computer says')
  return beginSearch(plan, run, told, witnessOf(hand))
}

/** What a form of a search asks for, as a change of the site as it stands. */
export function draftSearch(
  copy: Copy,
  id: string,
  form: FormData,
  pasted: Said | null,
  hand: Hand,
): ReturnType<MakeChange> {
  const { plan, place } = copy
  const search = plan.searches.find((each) => each.id === id)
  const run = search && byId(plan.runs).get(search.run)
  if (!search || !run)
    return refused('search', 'somebody removed this run with its search meanwhile. The history has both')
  const witness = witnessOf(hand)
  switch (form.get('intent')) {
    case 'reopen':
      if (isOpen(search)) return refused('search', 'it is open')
      if (searchOf(plan, run.id)) return refused('search', 'another search goes on at this run')
      return reopenSearch(search, place, run.tag)
    case 'take-back': {
      const seen = plan.observations.find((each) => each.id === said(form, 'observation'))
      if ((seen?.kind !== 'symptom' && seen?.kind !== 'try') || seen.search !== search.id)
        return refused('observation', 'that is not part of this search')
      return takeBack([seen, ...shownByAttempt(plan, seen)], 'not so', [run.tag, observationText(seen)], witness)
    }
    case 'retire': {
      const cable = byId(plan.cables).get(said(form, 'cable'))
      return cable && cable.standing !== 'retired'
        ? standCables([cable], place, 'retired')
        : refused('cable', 'it is retired already')
    }
    case 'buy':
      return draftBuy(copy, run, said(form, 'cable'))
    case 'withdraw':
      return acceptedNow(indexPlan(plan), run)
        ? withdrawAcceptance(run, witness)
        : refused('run', 'nobody has accepted it')
    default:
  }
  if (!isOpen(search)) return refused('search', 'this search has ended. Take it up again first')
  return draftOpen(copy, { search, run, form, pasted, hand })
}

/** A new lead of the same kind and length in place of one; refused where nobody knows the kind. */
function draftBuy({ plan, place }: Copy, run: Run, id: string): ReturnType<MakeChange> {
  const cable = byId(plan.cables).get(id)
  return cable?.kind
    ? buyInstead(place, run, cable, cable.kind)
    : refused('cable', 'nobody noted which kind this cable is of. Choose a lead on the page of the run')
}

type Sent = { search: Search; run: Run; form: FormData; pasted: Said | null; hand: Hand }

function draftOpen(copy: Copy, sent: Sent): ReturnType<MakeChange> {
  const { search, run, form, pasted, hand } = sent
  const { plan, place } = copy
  const witness = witnessOf(hand)
  const scene = sceneAt(siteOf(plan), run)
  const seen = seenIn(plan, search)
  switch (form.get('intent')) {
    case 'tell': {
      const told = toldBy(form, pasted, scene)
      if (told.length === 0)
        return refused(
          'pasted',
          pasted === null
            ? 'choose what you see, or paste what the computer says'
            : 'no line of it is understood, or it says that all is as planned. Choose what you see instead',
        )
      return tellSymptoms(search, run, told, witness)
    }
    case 'look': {
      const symptom = said(form, 'symptom')
      if (!isOneOf(SYMPTOMS, symptom)) return refused('symptom', 'that is none of the symptoms')
      const not = form.get('told') === 'no' ? ({ not: true } as const) : {}
      return tellSymptoms(search, run, [{ what: symptom, saw: symptomFacts[symptom].saw, ...not }], witness)
    }
    case 'reading':
      return draftReading(copy, sent)
    case 'clear': {
      const stop = said(form, 'stop')
      const how = said(form, 'how', 500)
      if (!isOneOf(STOPS, stop)) return refused('stop', 'there is no such stop')
      if (form.get('sure') !== 'on') return refused('sure', `say that it is so: ${stopFacts[stop].says.toLowerCase()}`)
      if (how === '') return refused('how', 'say what was done about it')
      return clearStop(search, place, run.tag, { stop, how }, witness)
    }
    case 'try':
      return draftTry(sent, scene, seen)
    case 'end':
      return draftEnd(copy, sent, scene, seen)
    default:
      return refused('intent', 'this page has no such button')
  }
}

/** What went away by itself is watched for a night. */
const WATCH_SECONDS = 8 * 3600

/** What somebody measured: kept as a reading of the run; where it is far less than to be expected, that is a symptom. */
function draftReading({ plan }: Copy, { search, run, form, hand }: Sent): ReturnType<MakeChange> {
  const witness = witnessOf(hand)
  const measure = said(form, 'measure')
  if (measure !== 'write' && measure !== 'read' && measure !== 'watts')
    return refused('measure', 'choose what you measured')
  const read = readValue({ kind: measure }, said(form, 'value', 100))
  if (!read.ok) return refused('value', read.problem)
  const { index, walks } = siteOf(plan)
  const crossings = walks.crossings.get(run.id) ?? []
  const situation = situationOf(index, run, crossings)
  const ladder = ladderOf(situation, {
    ...read.value,
    id: 'now',
    at: witness.at,
    subject: { run: run.id, leads: laidCables(run) },
  })
  const taken = { ...takenAt(index, run, crossings), circumstances: besideAt(index, run.from, run.id) }
  const kept = proveRun(run, [read.value], taken, witness)
  const what: Symptom = measure === 'watts' ? 'charges slowly' : 'slow copy'
  if (ladder?.verdict !== 'far less') return kept
  const told = tellSymptoms(search, run, [{ what, saw: symptomFacts[what].saw }], witness)
  return { ...kept, edits: [...kept.edits, ...told.edits] }
}

/** What came of a try: refused where a stop forbids it. */
function draftTry({ search, run, form, hand }: Sent, scene: Scene, seen: Seen): ReturnType<MakeChange> {
  const key = said(form, 'try')
  const attempt = problemAt(scene).attempts.find((each) => each.key === key)
  const outcome = attempt?.outcomes.find(({ name }) => name === said(form, 'outcome'))
  if (!attempt || !outcome)
    return refused('try', 'the run has changed meanwhile, and that cannot be tried at it as it is')
  const { stops } = standingOfSearch(scene, search, seen)
  const stop = stops.find((each) => forbids(each, attempt.name))
  if (stop) return refused('try', `not now: ${stopFacts[stop.name].title.toLowerCase()}`)
  const also = form
    .getAll('also')
    .map(String)
    .filter((each) => isOneOf(TRIES, each)) as (typeof TRIES)[number][]
  const note = said(form, 'note', 500)
  return makeTry(
    search,
    run,
    {
      what: attempt.name,
      ...(attempt.part === undefined ? {} : { part: attempt.part }),
      outcome: outcome.name,
      says: outcome.says,
      ...(attempt.with === undefined ? {} : { with: attempt.with }),
      ...(also.length > 0 ? { also } : {}),
      ...(note ? { note } : {}),
    },
    also.length > 0 ? [] : shownByTry(scene, attempt.name, outcome.name, attempt.with),
    witnessOf(hand),
  )
}

/** An end, with what follows from it: a watch where it went away, a failure of the lead where it was found. */
function draftEnd(
  { plan, place }: Copy,
  { search, run, form, hand }: Sent,
  scene: Scene,
  seen: Seen,
): ReturnType<MakeChange> {
  const witness = witnessOf(hand)
  const how = said(form, 'how')
  if (!isOneOf(ENDS, how)) return refused('how', 'say how it ended')
  const note = said(form, 'note', 500)
  if (how !== 'found') {
    const ended = endSearch(search, place, run, { how, ...(note ? { note } : {}) }, [], witness)
    if (how !== 'went away' || form.get('watch') !== 'on' || soakOfRun(plan, run.id)) return ended
    const { index, walks } = siteOf(plan)
    const { rests } = takenAt(index, run, walks.crossings.get(run.id) ?? [])
    const asked = { socket: run.from, seconds: WATCH_SECONDS, hard: false, rests }
    const watch = startRunSoak(plan, place, run, asked, witness)
    return { ...ended, edits: [...ended.edits, ...watch.edits] }
  }
  const { groups } = standingOfSearch(scene, search, seen)
  const cause = groups
    .flatMap(({ causes, odds }) => causes.map((each) => ({ ...each, odds })))
    .find(({ key }) => key === said(form, 'cause', 200))
  if (!cause) return refused('cause', 'choose what it was')
  const symptoms = seen.symptoms.flatMap(({ what, not }) => (what && !not ? [what] : []))
  return endSearch(
    search,
    place,
    run,
    {
      how,
      cause: cause.key.slice(0, 200),
      words: cause.words,
      odds: Math.min(1, cause.odds),
      ...(note ? { note } : {}),
    },
    shownByEnd(scene, cause.followUp, symptoms),
    witness,
  )
}
