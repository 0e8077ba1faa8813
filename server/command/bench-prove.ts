import { randomUUID } from 'node:crypto'
import { setTimeout as wait } from 'node:timers/promises'
import type { Observation } from '../../core/observe/observation'
import type { Plan } from '../../core/plan/plan'
import { briefOf, CHUNK_SAMPLES, type Sample } from '../../core/series/chunk'
import { laidCables } from '../../core/vocabulary/run'
import { database } from '../database/connection'
import { appendBatch, appendChunk } from '../series/series'
import { importPlan } from '../sites/sites'
import { freePort } from './bench-load'
import { withOwnDatabase } from './bench-server'
import { benchSite } from './bench-site'
import { median } from './timing'
import { startWebProcess } from './web-process'

const RUNS = 1000
const CABLES = 4000
const OBSERVATIONS = 100_000
const SOAKS = 50
const INSTRUMENTS = 20
const SAMPLES = 10_000_000
/** Ten days of one reading a second. */
const TEN_DAYS = 864_000
const SENDS_EVERY_MS = 2000
const WATCHED_MS = 40_000

/** Milliseconds. A machine that does other things holds it as well, so the two are to be compared. */
type Held = { hundredth: number; most: number }

export type ProveCost = {
  observations: number
  samples: number
  /** Megabytes of a ten-day series as it is kept. */
  tenDaysMegabytes: number
  /** How long the server's loop was held while only instruments sent and soaks went on, and while nothing did: one time in a hundred, and at most. */
  held: Held
  idle: Held
  /** How long a batch took. */
  batchMs: { median: number; slowest: number }
  /** Milliseconds until these answered: the first time, and the median of later ones. */
  pages: { page: string; first: number; later: number }[]
}

/** A large site with soaks and instruments, and what it costs the server; asked over HTTP from another process. */
export const benchProve = (): Promise<ProveCost> =>
  withOwnDatabase(async () => {
    const plan = withSoaks(withObservations(benchSite(RUNS, CABLES)))
    const site = await importPlan(database(), { by: 'the bench' }, plan)
    const run = plan.soaks[0] && 'run' in plan.soaks[0] ? plan.soaks[0].run : (plan.runs[0]?.id ?? '')
    const bytes = await fillSeries(site, run)
    const port = await freePort()
    const web = await startWebProcess({ host: '127.0.0.1', port, say: () => {} })
    const origin = `http://127.0.0.1:${port}`
    const home = `${origin}/sites/${site}`
    try {
      const pages: ProveCost['pages'] = []
      for (const [page, path] of [
        ['record', '/record'],
        ['record as CSV', '/record/record.csv'],
        ['Prove', '/prove'],
        ['a run', `/prove/${run}`],
        ['readings of ten days', `/prove/${run}/readings/s-0`],
      ] as const)
        pages.push({ page, ...(await asked(home + path)) })
      // the figure is of the time since it was asked for last
      await held(origin)
      await wait(WATCHED_MS)
      const idle = await held(origin)
      const took = await sendAll(home, plan)
      return {
        observations: plan.observations.length,
        samples: SAMPLES,
        tenDaysMegabytes: bytes / 1e6,
        held: await held(origin),
        idle,
        batchMs: { median: median(took), slowest: Math.max(...took) },
        pages,
      }
    } finally {
      await web.stop()
    }
  })

/** The observations of the bench site, and looks at its cables on further days until there are as many as wanted. */
function withObservations(plan: Plan): Plan {
  const trials = plan.observations.filter(({ kind }) => kind === 'trial')
  const more: Observation[] = []
  for (let day = 1; plan.observations.length + more.length < OBSERVATIONS; day += 1)
    for (const trial of trials) {
      if (plan.observations.length + more.length >= OBSERVATIONS) break
      const at = new Date(Date.parse(trial.at) + day * 86_400_000).toISOString()
      more.push({ ...trial, id: `${trial.id}.${day}`, at })
    }
  return { ...plan, observations: [...plan.observations, ...more] }
}

function withSoaks(plan: Plan): Plan {
  const laid = plan.runs.filter(({ leads }) => leads.length > 0).slice(0, SOAKS)
  return {
    ...plan,
    soaks: laid.map((run) => ({
      id: `soak-${run.id}`,
      run: run.id,
      leads: laidCables(run),
      socket: run.from,
      since: new Date().toISOString(),
      seconds: TEN_DAYS,
    })),
  }
}

/** Figures from 0 to 1 without a pattern that could be packed; the same again for the same seed. */
function noiseFrom(seed: number): () => number {
  let state = seed
  return () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0
    return (state >>> 8) / 2 ** 24
  }
}

/** Series until the site holds as many samples as wanted; answers what the first, of ten days, takes. */
async function fillSeries(site: string, run: string): Promise<number> {
  const knex = database()
  const noise = noiseFrom(7)
  for (let number = 0; number * TEN_DAYS < SAMPLES; number += 1) {
    const series = `s-${number}`
    await appendBatch(
      knex,
      site,
      { series, run, instrument: 'meter', by: 'the bench', from: 0, lines: [], rubbish: 0 },
      new Date(),
    )
    const samples = Math.min(TEN_DAYS, SAMPLES - number * TEN_DAYS)
    for (let at = 0; at < samples; at += CHUNK_SAMPLES) {
      const chunk = Array.from(
        { length: Math.min(CHUNK_SAMPLES, samples - at) },
        (_, position): Sample => ({
          at: 1.7e12 + (at + position) * 1000,
          drop: false,
          watts: 94 + Math.round(noise() * 20) / 10,
          celsius: 30 + Math.round(noise() * 30) / 10,
        }),
      )
      await appendChunk(knex, { site_id: site, series, number: at / CHUNK_SAMPLES }, chunk, briefOf(chunk))
    }
    await knex('series').where({ site_id: site, id: series }).update({ samples })
  }
  const [sum] = await knex('series_chunks')
    .where({ site_id: site, series: 's-0' })
    .sum({ all: knex.raw('LENGTH(bytes)') })
  return Number(sum?.all ?? 0)
}

/** Twenty instruments, each sending what it read in the last two seconds; answers how long each batch took. */
async function sendAll(home: string, plan: Plan): Promise<number[]> {
  const until = performance.now() + WATCHED_MS
  const took: number[] = []
  await Promise.all(
    Array.from({ length: INSTRUMENTS }, async (_, number) => {
      const series = randomUUID()
      const run = plan.soaks[number % plan.soaks.length]
      let from = 0
      await wait((SENDS_EVERY_MS * number) / INSTRUMENTS)
      while (performance.now() < until) {
        const lines = ['{"watts":94.2,"celsius":31.4}', '{"watts":93.8,"celsius":31.5}']
        const started = performance.now()
        const answer = await fetch(`${home}/instrument`, {
          method: 'POST',
          body: new URLSearchParams({
            series,
            run: run && 'run' in run ? run.run : '',
            instrument: `meter ${number}`,
            from: String(from),
            lines: lines.join('\n'),
          }),
          headers: { Origin: new URL(home).origin },
        })
        if (!answer.ok) throw new Error(`a batch was refused: ${answer.status} ${await answer.text()}`)
        took.push(performance.now() - started)
        from += lines.length
        await wait(SENDS_EVERY_MS)
      }
    }),
  )
  return took
}

/** How long the loop of the server was held since this was asked last. */
async function held(origin: string): Promise<Held> {
  const text = await (await fetch(`${origin}/metrics`)).text()
  const figure = (name: string) =>
    Number(new RegExp(`^nodejs_eventloop_lag_${name}_seconds (\\S+)$`, 'm').exec(text)?.[1]) * 1000
  return { hundredth: figure('p99'), most: figure('max') }
}

const LATER = 5

async function asked(url: string): Promise<{ first: number; later: number }> {
  const times: number[] = []
  for (let go = 0; go <= LATER; go += 1) {
    const started = performance.now()
    const answer = await fetch(url)
    if (!answer.ok) throw new Error(`${url} answered ${answer.status}`)
    await answer.arrayBuffer()
    times.push(performance.now() - started)
  }
  return { first: times[0] ?? 0, later: median(times.slice(1)) }
}
