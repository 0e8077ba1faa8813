import { mkdirSync, rmSync } from 'node:fs'
import { isStopped, type Outcome, runStage, type Stage, sumUp } from './stage'
import { audit, boundaries, browser, build, programs, RESULTS, routeTypes, style, types, vitest } from './stages'

/** Every check a change has to pass. The last line is the sum alone, above it the times. */

rmSync(RESULTS, { recursive: true, force: true })
mkdirSync(RESULTS, { recursive: true })

async function inARow(stages: readonly Stage[]): Promise<Outcome[]> {
  const outcomes: Outcome[] = []
  for (const stage of stages) if (!isStopped()) outcomes.push(await runStage(stage, 'at its end'))
  return outcomes
}

const started = Date.now()
// the build keeps one core busy, and so do these together
const [checked, made] = await Promise.all([inARow([routeTypes, types, boundaries, style]), inARow([build, programs])])
const outcomes = [...checked, ...made]
const audited = audit()
if (audited) outcomes.push(audited)
const ready = [build, programs].every(({ name }) => made.some((each) => each.name === name && each.ok))
if (ready)
  for (const stage of [vitest('core', 12), vitest('server', 12), vitest('command', 12), browser])
    if (!isStopped()) outcomes.push(await runStage(stage))
console.log(`\nAll of it took ${Math.round((Date.now() - started) / 1000)} s.`)
process.exitCode = sumUp(outcomes) && !isStopped() ? 0 : 1
