import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { cases, inProportion } from '../../tests/support/laws'
import { linksOf } from '../../tests/support/tried-links'
import { assessAnew } from '../checks/assess'
import { estimateOn } from '../link/outcomes'
import { recordOfKindOn } from '../link/record'
import { type AttemptObservation, observationSchema, type SymptomObservation } from '../observe/observation'
import { type Search, SYMPTOMS, type Symptom } from '../vocabulary/search'
import { CAUSE_NAMES, causesOf, showsOf } from './causes'
import { controllerOdds } from './controller-odds'
import { failingOdds, lyingOdds } from './lead-odds'
import { LEAST_BITS, nextTries, problemOf } from './next-try'
import { entropy, information, posterior, tableOf } from './odds'
import { type Scene, sceneOf } from './scene'
import { evidenceOf, problemAt, standingOfSearch } from './search'
import { forbids, stopFacts } from './stops'
import { symptomFacts } from './symptoms'
import { triesOf } from './tries'

const { index, walks, assessment } = assessAnew(demo)
const scenes: readonly Scene[] = index.plan.runs.map((run) => {
  const blocked = assessment.runs.find(({ id }) => id === run.id)?.findings.filter(({ grade }) => grade === 'blocked')
  return sceneOf({ index, crossings: walks.crossings.get(run.id) ?? [], blocked: blocked ?? [] }, run)
})
const aScene = fc.constantFrom(...scenes)
const AT = '2026-06-01T10:00:00.000Z'
const searchOf = ({ run }: Scene): Search => ({ id: 'search', run: run.id, since: AT })
const every = ({ run }: Scene, number: number, at: string) => ({
  id: `o-${number}`,
  at,
  subject: { run: run.id, leads: [] },
  search: 'search',
})
const symptomAt = (scene: Scene, what: Symptom, number: number, at = AT): SymptomObservation => ({
  ...every(scene, number, at),
  kind: 'symptom',
  what,
  saw: symptomFacts[what].saw,
})

/** What somebody may have seen and tried at a run: each try once, with one of its outcomes. */
const seenAt = (scene: Scene) =>
  fc
    .record({
      symptoms: fc.uniqueArray(fc.constantFrom(...SYMPTOMS), { maxLength: 3 }),
      tries: fc.uniqueArray(fc.nat(30), { maxLength: 5 }),
      outcome: fc.nat(5),
    })
    .map(({ symptoms, tries, outcome }) => {
      const attempts = triesOf(scene)
      const made = [...new Set(tries.map((at) => at % attempts.length))].map((at, number): AttemptObservation => {
        const attempt = attempts[at] as (typeof attempts)[number]
        const { name, says } = attempt.outcomes[(outcome + number) % attempt.outcomes.length] as {
          name: string
          says: string
        }
        return {
          ...every(scene, 100 + number, AT),
          kind: 'try',
          what: attempt.name,
          ...(attempt.part === undefined ? {} : { part: attempt.part }),
          outcome: name,
          says,
          search: 'search',
        }
      })
      return { symptoms: symptoms.map((each, number) => symptomAt(scene, each, number)), tries: made }
    })
const sceneAndSeen = aScene.chain((scene) => seenAt(scene).map((seen) => ({ scene, seen })))
const sharesOf = (scene: Scene, seen: Parameters<typeof evidenceOf>[1]): number[] => {
  const problem = problemAt(scene)
  return posterior(problem.priors, evidenceOf(problem, seen))
}

describe('whatever was seen and tried at a run', () => {
  it('gives the same odds in any order', () => {
    fc.assert(
      fc.property(sceneAndSeen, ({ scene, seen }) => {
        const turned = { symptoms: [...seen.symptoms].reverse(), tries: [...seen.tries].reverse() }
        const [one, other] = [sharesOf(scene, seen), sharesOf(scene, turned)]
        for (const [at, share] of one.entries()) expect(share).toBeCloseTo(other[at] ?? -1, 10)
      }),
      { numRuns: cases(60) },
    )
  })

  it('gives odds that add up to one, each above nothing', () => {
    fc.assert(
      fc.property(sceneAndSeen, ({ scene, seen }) => {
        const shares = sharesOf(scene, seen)
        expect(shares.reduce((sum, share) => sum + share, 0)).toBeCloseTo(1, 9)
        for (const share of shares) expect(share).toBeGreaterThan(0)
      }),
      { numRuns: cases(60) },
    )
  })

  it('never proposes a try that tells nothing, was made, lacks what it takes, or is forbidden by a stop', () => {
    fc.assert(
      fc.property(sceneAndSeen, ({ scene, seen }) => {
        const { next, stops } = standingOfSearch(scene, searchOf(scene), seen)
        const made = new Set(seen.tries.map(({ what, part }) => (part === undefined ? what : `${what}: ${part}`)))
        for (const each of next) {
          expect(each.bits).toBeGreaterThanOrEqual(LEAST_BITS)
          expect(made.has(each.key)).toBe(false)
          expect(stops.filter((stop) => forbids(stop, each.name))).toEqual([])
        }
      }),
      { numRuns: cases(60) },
    )
  })
})

it('a symptom that a cause does not make lowers it beside one that does, and never raises it', () => {
  fc.assert(
    fc.property(aScene, fc.constantFrom(...SYMPTOMS), (scene, symptom) => {
      const causes = causesOf(scene)
      const before = sharesOf(scene, { symptoms: [], tries: [] })
      const after = sharesOf(scene, { symptoms: [symptomAt(scene, symptom, 1)], tries: [] })
      const makes = causes.map((cause) => showsOf(cause)[symptom] ?? 0)
      const most = Math.max(...makes)
      for (const [at, odds] of makes.entries()) {
        if (odds === 0 && most > 0) expect(after[at]).toBeLessThan(before[at] ?? 0)
        if (odds === most && most > 0) expect(after[at]).toBeGreaterThanOrEqual((before[at] ?? 0) - 1e-12)
      }
    }),
  )
})

it('information is what is not known before less what is not known after, on average', () => {
  fc.assert(
    fc.property(sceneAndSeen, fc.nat(30), ({ scene, seen }, which) => {
      const problem = problemAt(scene)
      const shares = sharesOf(scene, seen)
      const attempt = problem.attempts[which % problem.attempts.length]
      fc.pre(attempt != null)
      const table = tableOf(problem.causes, attempt.outcomes)
      // each cause a group of its own: then it is plain mutual information
      const alone = { of: problem.causes.map((_, at) => at), count: problem.causes.length }
      const after = table.reduce((sum, row) => {
        const odds = shares.reduce((all, share, at) => all + share * (row[at] ?? 0), 0)
        return sum + odds * entropy(posterior(shares, [{ likelihood: row }]))
      }, 0)
      const told = information(shares, table, alone)
      expect(told).toBeCloseTo(Math.max(0, entropy(shares) - after), 8)
      expect(information(shares, table, problem.groups)).toBeLessThanOrEqual(told + 1e-9)
    }),
    { numRuns: cases(80) },
  )
})

it('the outcomes of every try are all that can come of it, for every cause', () => {
  for (const scene of scenes) {
    const causes = causesOf(scene)
    for (const { outcomes, key } of triesOf(scene))
      for (const cause of causes) {
        const all = outcomes.reduce((sum, { odds }) => sum + odds(cause), 0)
        expect([key, cause.key, Math.abs(all - 1) < 1e-9]).toEqual([key, cause.key, true])
      }
  }
})

it('causes of a run have keys of their own, and every kind of cause is met at some run', () => {
  const met = new Set<string>()
  for (const scene of scenes) {
    const causes = causesOf(scene)
    expect(new Set(causes.map(({ key }) => key)).size).toBe(causes.length)
    for (const { name, odds } of causes) {
      met.add(name)
      expect(odds).toBeGreaterThan(0)
    }
  }
  // what the demo site has none of is told here, so that a new kind of cause is missed where it is never met
  expect(CAUSE_NAMES.filter((name) => !met.has(name)).sort()).toEqual(['shared charger'])
  const pooled = {
    ...demo,
    devices: demo.devices.map((each) =>
      each.id === 'desk-charger' ? { ...each, pool: { kind: 'shared' as const, total: 60 } } : each,
    ),
  }
  const site = assessAnew(pooled)
  const run = site.index.runs.get('r-13')
  if (!run) throw new Error('no run')
  const scene = sceneOf({ index: site.index, crossings: site.walks.crossings.get('r-13') ?? [], blocked: [] }, run)
  expect(causesOf(scene).some(({ name }) => name === 'shared charger')).toBe(true)
})

it('a stop forbids until somebody dealt with it, and is raised again by what comes after', () => {
  const [scene] = scenes
  if (!scene) throw new Error('no scene')
  for (const symptom of SYMPTOMS) {
    const { stops: name } = symptomFacts[symptom]
    if (!name) continue
    const seen = { symptoms: [symptomAt(scene, symptom, 1)], tries: [] }
    const search = searchOf(scene)
    const open = standingOfSearch(scene, search, seen)
    expect(open.stops.map(({ name: each, cleared }) => [each, cleared])).toEqual([[name, null]])
    if (stopFacts[name].until === 'all') expect(open.next).toEqual([])
    const cleared = { ...search, cleared: [{ stop: name, at: AT, how: 'dealt with' }] }
    expect(standingOfSearch(scene, cleared, seen).stops[0]?.cleared?.how).toBe('dealt with')
    const again = { ...seen, symptoms: [...seen.symptoms, symptomAt(scene, symptom, 2, '2026-06-01T10:00:01.000Z')] }
    expect(standingOfSearch(scene, cleared, again).stops[0]?.cleared).toBeNull()
  }
})

it('what is proposed and what a stop forbids are two, and together all that tells something', () => {
  let forbade = 0
  fc.assert(
    fc.property(aScene, fc.constantFrom(...SYMPTOMS.filter((each) => symptomFacts[each].stops)), (scene, symptom) => {
      const seen = { symptoms: [symptomAt(scene, symptom, 1)], tries: [] }
      const { stops, next, forbidden, conclusion } = standingOfSearch(scene, searchOf(scene), seen)
      const problem = problemAt(scene)
      const names = (hows: readonly string[]) =>
        hows.map((how) => problem.attempts.find((attempt) => attempt.how === how)?.name)
      const isForbidden = (name: (typeof problem.attempts)[number]['name'] | undefined) =>
        name !== undefined && stops.some((stop) => forbids(stop, name))
      expect(names(forbidden).every(isForbidden)).toBe(true)
      expect(names(next.map(({ how }) => how)).some(isForbidden)).toBe(false)
      // a try that is only forbidden for now is still to be made: the search is not over for it
      if (forbidden.length > 0 && conclusion.state !== 'found') expect(conclusion.state).toBe('open')
      forbade += forbidden.length
    }),
    { numRuns: cases(60) },
  )
  expect(forbade).toBeGreaterThan(inProportion(5))
})

describe('what this site has seen moves the odds of a cause', () => {
  const scene = scenes.find(({ laid, planned }) => laid.leads.length > 0 && planned !== null) as Scene
  const [lead] = scene.laid.leads
  if (!lead) throw new Error('a scene has leads')
  const mode = scene.planned as NonNullable<Scene['planned']>
  const trial = (cameUp: typeof mode | null, controller = scene.laid.from.port.controller) => ({
    at: AT,
    basis: 'soaked' as const,
    tried: mode,
    cameUp,
    seconds: 60,
    spot: { ...(controller === undefined ? {} : { controller }) },
  })
  const withTrials = (...tries: ReturnType<typeof trial>[]): Scene => ({
    ...scene,
    laid: { ...scene.laid, leads: [{ ...lead, known: { ...lead.known, links: linksOf(tries) } }] } as Scene['laid'],
  })
  const leadOf = (of: Scene) => of.laid.leads[0] as typeof lead
  it('a controller: what was tried on it says more than where its port sits, and each failure weighs the same', () => {
    const odds = (...trials: ReturnType<typeof trial>[]) => controllerOdds(withTrials(...trials)).odds
    expect(odds(trial(mode), trial(mode))).toBeCloseTo(0.15, 9)
    expect(odds(trial(mode), trial(null))).toBeCloseTo(0.6, 9)
    expect(odds(trial(null), trial(null))).toBeCloseTo(1.05, 9)
    // tried elsewhere it says nothing of this one
    expect(odds(trial(null, 'another controller'))).toBe(odds())
  })
  it('a lead that held this very mode is rarely one that lies; one that only came up lower is what it was', () => {
    const odds = (...trials: ReturnType<typeof trial>[]) => {
      const of = withTrials(...trials)
      return lyingOdds(of, leadOf(of)).odds
    }
    expect(odds(trial(mode))).toBe(0.2)
    // what did both comes and goes
    expect(odds(trial(null), trial(mode))).toBe(odds())
    expect(odds(trial(null))).toBe(odds())
    expect(odds()).not.toBe(0.2)
  })
  it('a kind: what this site has seen of it, of its build and on this controller, one beside the other', () => {
    const of = scene
    const kind = demo.kinds[0]?.id as string
    const one = { ...lead, cable: { ...lead.cable, kind } }
    const { controller } = of.laid.from.port
    // three leads of that kind: two held there, one fell
    const others = [1, 2, 3].map((number) => ({ ...one.cable, id: `of-kind-${number}`, tag: `K-${number}` }))
    const seen = others.map(({ id }, number) =>
      observationSchema.parse({
        id: `tried-${number}`,
        at: AT,
        subject: { cable: id },
        kind: 'trial',
        basis: 'soaked',
        tried: of.planned,
        cameUp: number === 0 ? null : of.planned,
        seconds: 60,
        where: { port: of.run.from, ...(controller === undefined ? {} : { controller }) },
      }),
    )
    const cables = [...demo.cables.filter((cable) => cable.kind !== kind), ...others]
    const observations = [...demo.observations, ...seen]
    const site = assessAnew({ ...demo, cables, observations })
    const told = { ...of, index: site.index }
    expect(recordOfKindOn(site.index, kind, of.planned as NonNullable<Scene['planned']>, controller)).toEqual({
      passed: 2,
      tried: 3,
    })
    const mode = of.planned as NonNullable<Scene['planned']>
    const { construction, length } = one.cable
    const name = demo.kinds[0]?.name.toLowerCase() as string
    const at = { mode, construction, length, kind: name, ...(controller === undefined ? {} : { controller }) }
    // common practice: of leads that are laid 15 of 100 turn out worn or broken
    expect(failingOdds(told, one, 2).odds).toBeCloseTo((2 * (1 - estimateOn(site.index, at).odds)) / 0.15, 9)
    expect(estimateOn(site.index, at).own).toMatchObject({ passed: 2, tried: 3 })
    const unknown = { ...told, planned: null } as Scene
    expect(failingOdds(unknown, one, 2).odds).toBe(2)
  })
})

it('a site may put the lead first, as long as it tells anything', () => {
  for (const scene of scenes) {
    const problem = problemOf(causesOf(scene), triesOf(scene))
    const shares = posterior(problem.priors, [])
    const told = nextTries(problem, shares, new Set(), 'most telling')
    const first = nextTries(problem, shares, new Set(), 'lead first')
    expect(new Set(first.map(({ at }) => at))).toEqual(new Set(told.map(({ at }) => at)))
    if (told.some(({ attempt }) => attempt.name === 'another lead')) expect(first[0]?.attempt.name).toBe('another lead')
  }
})

it('of several leads in a row each is swapped for one with its own ends, never for one that spans the run', () => {
  const free = demo.cables.filter(({ id, standing }) => !index.runOf.has(id) && standing === 'drawer')
  const twins = free.flatMap((one) =>
    free
      .filter((other) => other.id !== one.id && JSON.stringify(other.ends) === JSON.stringify(one.ends))
      .slice(0, 1)
      .map(() => one),
  )
  expect(twins.length).toBeGreaterThan(3)
  for (const extra of twins.slice(0, 8)) {
    const runs = demo.runs.map((run) =>
      run.id === 'r-12' ? { ...run, leads: [...run.leads, { cable: extra.id, reversed: false }] } : run,
    )
    const site = assessAnew({ ...demo, runs })
    const run = site.index.runs.get('r-12')
    if (!run) throw new Error('no run')
    const scene = sceneOf({ index: site.index, crossings: site.walks.crossings.get('r-12') ?? [], blocked: [] }, run)
    const swaps = triesOf(scene).filter(({ name }) => name === 'another lead')
    expect(swaps.map(({ part }) => part)).toEqual(run.leads.map((lead) => ('cable' in lead ? lead.cable : '')))
    for (const { part, with: put } of swaps) {
      const [own, other] = [demo.cables.find(({ id }) => id === part), demo.cables.find(({ tag }) => tag === put)]
      if (other)
        expect(other.ends.map(({ connector }) => connector).sort()).toEqual(
          own?.ends.map(({ connector }) => connector).sort(),
        )
    }
  }
})

it('a free port of the same sort is found for pictures as for data, and none that does less', () => {
  const withFree = {
    ...demo,
    devices: demo.devices.map((each) =>
      each.id === 'image-a'
        ? {
            ...each,
            ports: each.ports.flatMap((port) =>
              port.id === 'dp-1' ? [port, { ...port, id: 'dp-free', name: 'DP, free' }] : [port],
            ),
          }
        : each,
    ),
  }
  const site = assessAnew(withFree)
  const run = site.index.runs.get('r-01')
  if (!run) throw new Error('no run')
  const scene = sceneOf({ index: site.index, crossings: site.walks.crossings.get('r-01') ?? [], blocked: [] }, run)
  expect(scene.free?.port.name).toBe('DP, free')
  for (const { free, laid } of scenes)
    if (free)
      expect([free.port.connector, Boolean(free.port.displayport)]).toEqual([
        laid.from.port.connector,
        Boolean(laid.from.port.displayport),
      ])
})
