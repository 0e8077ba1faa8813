import { writeFileSync } from 'node:fs'
import { assess, assessRun, walkNeeds } from '../../core/checks/assess'
import { rankCables } from '../../core/match/rank'
import { rankAll } from '../../core/match/rank-all'
import type { Plan } from '../../core/plan/plan'
import { indexPlan } from '../../core/plan/site-index'
import { benchAhead } from './bench-ahead'
import { ALIKE, benchChange } from './bench-change'
import { benchDrawer } from './bench-drawer'
import { benchFloors } from './bench-floors'
import { benchOrder } from './bench-order'
import { benchPages } from './bench-pages'
import { benchProofs } from './bench-proofs'
import { benchSite } from './bench-site'
import { benchStore } from './bench-store'
import { median, repeated, timed } from './timing'

/** What is measured, and where the figures go. */
export type BenchOptions = {
  out?: string
  changes?: boolean
  pages?: boolean
  load?: boolean
  order?: boolean
  prove?: boolean
  faults?: boolean
  handover?: boolean
  people?: boolean
  processes?: boolean
}

/** Speed, as figures of this machine now and as ratios that mean something elsewhere. */
export async function bench(values: BenchOptions, print: (text: string) => void): Promise<void> {
  if (values.changes) return benchChanges(values.out, print)
  if (values.load) return benchUnderLoad(values.out, print)
  if (values.order) return benchOrders(values.out, print)
  if (values.faults) return benchFinding(values.out, print)
  if (values.handover) return benchHandingOver(values.out, print)
  if (values.processes) return benchSeveral(values.out, print)
  if (values.people) return benchSignedIn(values.out, print)
  if (values.prove) return benchProving(values.out, print)
  if (values.pages) return benchEveryPage(values.out, print)
  const sites = [250, 500, 1000, 2000].map((runs) => ({ runs, plan: benchSite(runs, 2000) }))
  const whole = sites.map(({ runs, plan }) => ({ runs, milliseconds: repeated(9, () => void assess(plan)) }))
  const [smallest] = whole
  const largest = whole.at(-1)
  const growth =
    (largest?.milliseconds ?? 0) / (smallest?.milliseconds ?? 1) / ((largest?.runs ?? 1) / (smallest?.runs ?? 1))
  const plan = sites.at(-1)?.plan as Plan
  const one = medianRun(plan)
  const small = benchSite(100, 200)
  const plainly = repeated(3, () => rankPlainly(small))
  // what was learnt of a drawer is kept with it: each go has a drawer of its own
  const smartly = repeated(3, () => void rankAll(indexPlan({ ...small, observations: [...small.observations] })))
  const everyPair = timed(() => void rankAll(indexPlan(plan)))
  const results = {
    oneRunMicroseconds: one,
    assess: whole,
    /** 1 where time grows with the number of runs, 8 where it grows with its square, from 250 to 2,000. */
    growthBeyondLinear: growth,
    rankAll: { runs: plan.runs.length, cables: plan.cables.length, milliseconds: everyPair },
    /** How many times quicker than the plain double loop, with the same result, on 100 runs and 200 cables. */
    rankingGain: plainly / smartly,
    memoryMegabytes: process.memoryUsage().rss / 1e6,
    drawer: benchDrawer(),
    ahead: benchAhead(),
    floors: benchFloors(),
    proofs: benchProofs(),
  }
  print(
    [
      `one run assessed          ${one.toFixed(1)} us (median)`,
      ...whole.map(
        ({ runs, milliseconds }) => `assess, ${String(runs).padStart(4)} runs         ${milliseconds.toFixed(1)} ms`,
      ),
      `growth beyond linear      ${growth.toFixed(2)}`,
      `every cable, every run    ${everyPair.toFixed(0)} ms (${plan.runs.length} runs x ${plan.cables.length} cables)`,
      `quicker than the plain loop by ${results.rankingGain.toFixed(1)} (100 runs x 200 cables)`,
      `memory                    ${results.memoryMegabytes.toFixed(0)} MB, up to here`,
      `every proof                ${results.proofs.anew.toFixed(0)} ms (${results.proofs.runs} runs, all accepted); after one change ${results.proofs.afterOne.toFixed(1)} ms, ${results.proofs.gain.toFixed(0)} times quicker`,
      `a way out for one run      ${results.ahead.oneRun.toFixed(0)} ms (2,000 runs, 5,000 cables; median of ${results.ahead.asked})`,
      `one for every blocked run  ${(results.ahead.every / 1000).toFixed(1)} s (${results.ahead.blocked} runs), ${results.ahead.gain.toFixed(0)} times quicker than judging the whole site for each change tried`,
      `the best from the drawer   ${(results.ahead.leads / 1000).toFixed(1)} s for all of them`,
      `a what-if                  ${results.ahead.whatIf.toFixed(1)} ms`,
      `a spot moved on a floor   ${results.floors.found.toFixed(0)} ms for ${results.floors.pathways} pathways and ${results.floors.runs} runs found anew, ${results.floors.gain.toFixed(1)} times quicker than graphology's own search; with what comes of it ${results.floors.judged.toFixed(0)} ms`,
      `a drawer of 5,000 cables  worked out ${results.drawer.workedOut.toFixed(0)} ms, a job picked ${results.drawer.picked.toFixed(1)} ms`,
      `a table of 5,000 rows     read ${results.drawer.tableRead.toFixed(0)} ms`,
      `a session of 200 leads    ordered ${results.drawer.sessionOrdered.toFixed(0)} ms`,
    ].join('\n'),
  )
  if (values.out) writeFileSync(values.out, `${JSON.stringify(results, null, 2)}\n`)
}

/** An order for 500 runs out of 400 articles, decided, beside the same written plainly and beside what is done by hand. */
async function benchOrders(out: string | undefined, print: (text: string) => void): Promise<void> {
  const results = await benchOrder()
  const { ours, plain, cheapest, byHand, large, size } = results
  const line = (name: string, { seconds, measure, gap }: typeof ours): string =>
    `${name.padEnd(26)}${seconds.toFixed(1).padStart(5)} s, comes to ${measure.toFixed(0)}, at most ${(gap * 100).toFixed(2)} % to save`
  print(
    [
      `${size.runs} runs, ${size.articles} articles, ${size.suppliers} suppliers, seed ${size.seed}; near enough at 1 %, 10 s at most`,
      line('balanced', ours),
      line('the same, written plainly', plain),
      line('least money', cheapest),
      `by hand, run by run       comes to ${byHand.toFixed(0)}: ${(byHand / ours.measure).toFixed(2)} times as much as balanced`,
      line('balanced, 2,000 runs', large),
    ].join('\n'),
  )
  if (out) writeFileSync(out, `${JSON.stringify(results, null, 2)}\n`)
}

/** One change of a site of 2,000 runs, 5,000 cables and 25,000 observations: in the core, with its database, and over HTTP. */
async function benchChanges(out: string | undefined, print: (text: string) => void): Promise<void> {
  const core = benchChange()
  const store = await benchStore()
  const ms = (value: number): string => `${value.toFixed(1)} ms`
  const kb = (bytes: number): string => `${(bytes / 1e3).toFixed(1)} kB`
  print(
    [
      `a run changed             applied ${ms(core.apply)}, assessed again ${ms(core.again)}, anew ${ms(core.anew)}: ${(core.anew / core.again).toFixed(0)} times as long`,
      `an observation            written down and assessed again ${ms(core.observe)}; a trial that counts in the record of ${ALIKE} of its kind ${ms(core.record)}`,
      `catching up               ${ms(core.caughtUp)} a change in the core, ${ms(store.caughtUp)} for another process with its database`,
      `a save                    ${ms(store.save)} with its database, ${ms(store.httpSave)} over HTTP`,
      `on the wire               a save and what came of it ${kb(store.savedBytes)}, the first copy ${kb(store.firstCopyBytes)}`,
      `as a file                 ${core.megabytes.toFixed(1)} MB, ${core.zipped.toFixed(0)} kB zipped`,
      `brought in                ${ms(store.brought)}, read anew ${ms(store.read)}`,
    ].join('\n'),
  )
  if (out) writeFileSync(out, `${JSON.stringify({ core, store }, null, 2)}\n`)
}

/** Soaks and instruments at once, on a site that has seen much. */
async function benchProving(out: string | undefined, print: (text: string) => void): Promise<void> {
  const { benchProve } = await import('./bench-prove')
  const cost = await benchProve()
  print(
    [
      `${cost.observations} observations, ${cost.samples} samples, 50 soaks`,
      `ten days, one a second    ${cost.tenDaysMegabytes.toFixed(1)} MB`,
      `the loop held             ${cost.held.hundredth.toFixed(0)} ms one time in a hundred with 20 instruments, ${cost.idle.hundredth.toFixed(0)} ms without`,
      `                          ${cost.held.most.toFixed(0)} ms at most with them, ${cost.idle.most.toFixed(0)} ms without`,
      `a batch of an instrument  ${cost.batchMs.median.toFixed(1)} ms, the slowest ${cost.batchMs.slowest.toFixed(0)} ms`,
      ...cost.pages.map(
        ({ page, first, later }) => `${page.padEnd(26)}${later.toFixed(0)} ms, the first time ${first.toFixed(0)} ms`,
      ),
    ].join('\n'),
  )
  if (out) writeFileSync(out, `${JSON.stringify(cost, null, 2)}\n`)
}

/** Faults that are planted, and how they are found. */
async function benchFinding(out: string | undefined, print: (text: string) => void): Promise<void> {
  const { benchFaults, faultsLines } = await import('./bench-faults')
  const figures = benchFaults()
  print(faultsLines(figures).join('\n'))
  if (out) writeFileSync(out, `${JSON.stringify(figures, null, 2)}\n`)
}

/** Books of handovers, from a quarter of a large site to all of it. */
async function benchHandingOver(out: string | undefined, print: (text: string) => void): Promise<void> {
  const { benchHandover } = await import('./bench-handover')
  const figures = await benchHandover()
  print(
    [
      '| runs | pages | seconds | times as long as judging | heap at most, MB |',
      '| --: | --: | --: | --: | --: |',
      ...figures.map(
        ({ runs, pages, seconds, judging, megabytes }) =>
          `| ${runs} | ${pages} | ${seconds.toFixed(1)} | ${(seconds / judging).toFixed(1)} | ${megabytes.toFixed(0)} |`,
      ),
    ].join('\n'),
  )
  if (out) writeFileSync(out, `${JSON.stringify(figures, null, 2)}\n`)
}

/** What it costs that people sign in. */
async function benchSignedIn(out: string | undefined, print: (text: string) => void): Promise<void> {
  const { benchPeople } = await import('./bench-people')
  const costs = await benchPeople()
  print(
    [
      '| page | open, ms of a processor | signed in | so many times as much |',
      '| --- | --: | --: | --: |',
      ...costs.map(
        ({ page, open, signedIn, times }) =>
          `| ${page} | ${open.toFixed(2)} | ${signedIn.toFixed(2)} | ${times.toFixed(2)} |`,
      ),
    ].join('\n'),
  )
  if (out) writeFileSync(out, `${JSON.stringify(costs, null, 2)}\n`)
}

/** What more web processes give, and what it costs that they ask for each other's changes. */
async function benchSeveral(out: string | undefined, print: (text: string) => void): Promise<void> {
  const { benchProcesses } = await import('./bench-processes')
  const { spread, asking } = await benchProcesses()
  const one = spread[0]?.second ?? 1
  print(
    [
      '| web processes | answers a second | times one process | ms of a web process | ms of the database |',
      '| --: | --: | --: | --: | --: |',
      ...spread.map(
        ({ processes, second, web, database }) =>
          `| ${processes} | ${second.toFixed(0)} | ${(second / one).toFixed(2)} | ${web.toFixed(2)} | ${database.toFixed(2)} |`,
      ),
      '',
      '| processes that ask for changes | of one core, the database | of one core, each process |',
      '| --: | --: | --: |',
      ...asking.map(
        ({ processes, database, web }) =>
          `| ${processes} | ${(100 * database).toFixed(1)} % | ${(100 * web).toFixed(1)} % |`,
      ),
    ].join('\n'),
  )
  if (out) writeFileSync(out, `${JSON.stringify({ spread, asking }, null, 2)}\n`)
}

/** Pages under load, beside a writer. */
async function benchUnderLoad(out: string | undefined, print: (text: string) => void): Promise<void> {
  const { benchLoad } = await import('./bench-load')
  const { loads, writes } = await benchLoad()
  const lines = [
    '| page | connections | answers a second | median, ms | p99, ms | failed |',
    '| --- | --: | --: | --: | --: | --: |',
  ]
  for (const { page, connections, second, median: middle, slowest, failed } of loads)
    lines.push(`| ${page} | ${connections} | ${second.toFixed(0)} | ${middle} | ${slowest} | ${failed} |`)
  print([...lines, '', `${writes} changes were saved meanwhile.`].join('\n'))
  if (out) writeFileSync(out, `${JSON.stringify({ loads, writes }, null, 2)}\n`)
}

/** What every page costs the server, on the demo, on a large site, and on half of it, from which growth is seen. */
async function benchEveryPage(out: string | undefined, print: (text: string) => void): Promise<void> {
  const costs = await benchPages()
  const [demo, half, large] = costs.sites
  const row = (...cells: string[]) => `| ${cells.join(' | ')} |`
  const lines = [
    row(
      'page',
      'demo anew',
      'kept',
      'elements',
      'kB',
      'large anew',
      'kept',
      'elements',
      'kB',
      'large to demo',
      'growth',
    ),
    row(...Array.from({ length: 11 }, (_, at) => (at === 0 ? '---' : '--:'))),
  ]
  for (const [at, large_] of (large?.pages ?? []).entries()) {
    const small = demo?.pages[at]
    const halved = half?.pages[at]
    if (!small || !halved) continue
    const figures = [small, large_].flatMap(({ anew, kept, elements, bytes }) => [
      anew.toFixed(1),
      kept.toFixed(1),
      String(elements),
      (bytes / 1e3).toFixed(1),
    ])
    lines.push(
      row(large_.page, ...figures, (large_.anew / small.anew).toFixed(2), (large_.anew / halved.anew).toFixed(2)),
    )
  }
  if (costs.paints) {
    const bare = costs.paints[0]?.first ?? 1
    lines.push('', row('in a browser', 'first paint', 'to a bare page', 'scripts ready', 'longest task'))
    lines.push(row('---', '--:', '--:', '--:', '--:'))
    for (const { page, first, ready, longest } of costs.paints)
      lines.push(row(page, first.toFixed(0), (first / bare).toFixed(1), ready.toFixed(0), longest.toFixed(0)))
  } else lines.push('', 'No browser here, so nothing was measured in one.')
  print(lines.join('\n'))
  if (out) writeFileSync(out, `${JSON.stringify(costs, null, 2)}\n`)
}

function medianRun(plan: Plan): number {
  const index = indexPlan(plan)
  const { crossings } = walkNeeds(index)
  return median(plan.runs.map((run) => timed(() => void assessRun(index, run, crossings.get(run.id) ?? [])))) * 1000
}

function rankPlainly(plan: Plan): void {
  const index = indexPlan(plan)
  const { crossings } = walkNeeds(index)
  for (const run of plan.runs) rankCables(index, run, crossings.get(run.id) ?? [])
}
