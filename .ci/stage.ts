import { spawn } from 'node:child_process'
import { readFileSync, rmSync } from 'node:fs'
import { stripVTControlCharacters } from 'node:util'

/** One stage of the checks: a command, and how long it may take on a machine three times as slow as a quiet one. */
export type Stage = {
  name: string
  command: string
  words: readonly string[]
  minutes: number
  environment?: Readonly<Record<string, string>>
  /** The file its results come in as JSON, and whose form that is; without one the stage as a whole passes or fails. */
  results?: { file: string; by: 'vitest' | 'playwright' }
}

type FileTime = { file: string; seconds: number }

/** How a stage ended. */
export type Outcome = {
  name: string
  ok: boolean
  seconds: number
  passed: number
  failed: number
  /** How long each of its files took; none where it tells of none. */
  files: readonly FileTime[]
  /** What each test that failed said. */
  complaints: readonly string[]
  /** What it was doing when its time was up; null where it ended by itself. */
  cutShortAt: string | null
}

/** What a stage says: at once where it runs by itself, in one piece at its end where another runs beside it. */
export type Telling = 'at once' | 'at its end'

const LAST_LINES = 3
/** So long a stage may take to close what it opened once it was told to end. */
const GRACE_MS = 30_000

let stopped = false
/** Somebody ended the whole run: no further stage is begun. */
export const isStopped = (): boolean => stopped

/** Runs a stage to its end or to its deadline, whichever comes first; then all that it started is ended too. */
export async function runStage(stage: Stage, telling: Telling = 'at once'): Promise<Outcome> {
  const { name, command, words, minutes, environment, results } = stage
  if (results) rmSync(results.file, { force: true })
  const started = Date.now()
  let said = ''
  const child = spawn(command, words, {
    // a group of its own, so that what it started can be ended with it
    detached: true,
    stdio: ['ignore', 'pipe', 'pipe'],
    env: { ...process.env, CI: 'true', ...environment },
  })
  const hear = (text: Buffer) => {
    said += text
    if (telling === 'at once') process.stdout.write(text)
  }
  child.stdout.on('data', hear)
  child.stderr.on('data', hear)
  if (telling === 'at once') console.log(`\n== ${name}`)
  const endGroup = (signal: NodeJS.Signals) => {
    try {
      if (child.pid) process.kill(-child.pid, signal)
    } catch {
      // it is gone already
    }
  }
  // as by Ctrl-C: runners of tests close what their tests opened
  const end = () => {
    endGroup('SIGINT')
    setTimeout(() => endGroup('SIGKILL'), GRACE_MS).unref()
  }
  let cutShortAt: string | null = null
  const deadline = setTimeout(() => {
    cutShortAt = said.trimEnd().split('\n').slice(-LAST_LINES).join(' | ') || 'nothing said'
    end()
  }, minutes * 60_000)
  const forward = () => {
    stopped = true
    end()
  }
  process.once('SIGTERM', forward)
  process.once('SIGINT', forward)
  const status = await new Promise<number | null>((ended) => {
    child.once('close', (code) => ended(code))
    child.once('error', (error) => {
      said += error.message
      ended(null)
    })
  })
  clearTimeout(deadline)
  process.off('SIGTERM', forward)
  process.off('SIGINT', forward)
  const good = status === 0 && cutShortAt === null
  const counted = results
    ? readResults(results)
    : { passed: Number(good), failed: Number(!good), files: [], complaints: [] }
  // a runner that fell over without a failed test has failed all the same
  const failed = good ? counted.failed : Math.max(1, counted.failed)
  const outcome = {
    ...counted,
    failed,
    name,
    ok: good && failed === 0,
    seconds: (Date.now() - started) / 1000,
    cutShortAt,
  }
  if (telling === 'at its end') process.stdout.write(`\n== ${name}\n${said}`)
  const late = cutShortAt === null ? '' : `, ended at its deadline of ${minutes} minutes while it was at: ${cutShortAt}`
  console.log(`== ${name}: ${outcome.ok ? 'good' : 'FAILED'} in ${Math.round(outcome.seconds)} s${late}`)
  return outcome
}

type Counted = Pick<Outcome, 'passed' | 'failed' | 'files' | 'complaints'>

function readResults({ file, by }: NonNullable<Stage['results']>): Counted {
  try {
    const told = JSON.parse(readFileSync(file, 'utf8'))
    return by === 'vitest' ? ofVitest(told) : ofPlaywright(told)
  } catch {
    return { passed: 0, failed: 1, files: [], complaints: [] }
  }
}

type VitestTold = {
  numPassedTests: number
  numFailedTests: number
  testResults: {
    name: string
    startTime: number
    endTime: number
    assertionResults: { fullName: string; status: string; failureMessages: string[] }[]
  }[]
}
const ofVitest = (told: VitestTold): Counted => ({
  passed: told.numPassedTests,
  failed: told.numFailedTests,
  files: told.testResults.map(({ name, startTime, endTime }) => ({
    file: name.replace(`${process.cwd()}/`, ''),
    seconds: (endTime - startTime) / 1000,
  })),
  complaints: told.testResults.flatMap(({ assertionResults }) =>
    assertionResults
      .filter(({ status }) => status === 'failed')
      .map(({ fullName, failureMessages }) => complaint(fullName, failureMessages[0])),
  ),
})

const MOST_LINES = 20
// colours of a terminal are of no use in a file
const complaint = (name: string, said = 'it did not say why'): string =>
  `${name}\n${stripVTControlCharacters(said).split('\n').slice(0, MOST_LINES).join('\n')}`

type Suite = {
  file: string
  suites?: Suite[]
  specs: { title: string; tests: { results: { duration: number; error?: { message?: string } }[] }[] }[]
}
type PlaywrightTold = { stats: { expected: number; flaky: number; unexpected: number }; suites: Suite[] }
function ofPlaywright({ stats, suites }: PlaywrightTold): Counted {
  const within = (suite: Suite): number =>
    suite.specs
      .flatMap(({ tests }) => tests.flatMap(({ results }) => results))
      .reduce((sum, { duration }) => sum + duration, 0) +
    (suite.suites ?? []).reduce((sum, each) => sum + within(each), 0)
  const failedIn = (suite: Suite): string[] => [
    ...suite.specs.flatMap(({ title, tests }) =>
      tests.flatMap(({ results }) =>
        results.flatMap(({ error }) => (error ? [complaint(`${suite.file}: ${title}`, error.message)] : [])),
      ),
    ),
    ...(suite.suites ?? []).flatMap(failedIn),
  ]
  return {
    passed: stats.expected,
    // what passes only at a second go has failed
    failed: stats.unexpected + stats.flaky,
    files: suites.map((suite) => ({ file: `tests/browser/${suite.file}`, seconds: within(suite) / 1000 })),
    complaints: suites.flatMap(failedIn),
  }
}

const SLOWEST = 10

/** The table of stages, the slowest files, and as the last line the sum alone. Answers whether all is well. */
export function sumUp(outcomes: readonly Outcome[]): boolean {
  const row = ({ name, ok, seconds, passed, failed, cutShortAt }: Outcome) => ({
    stage: name,
    seconds: Math.round(seconds),
    passed,
    failed,
    end: cutShortAt === null ? (ok ? 'good' : 'FAILED') : 'CUT SHORT',
  })
  console.log('')
  console.table(outcomes.map(row))
  const files = outcomes.flatMap((outcome) => outcome.files).sort((one, other) => other.seconds - one.seconds)
  if (files.length > 0)
    console.table(files.slice(0, SLOWEST).map(({ file, seconds }) => ({ file, seconds: Math.round(seconds) })))
  // whoever reads only the end of what was printed sees why as well
  for (const { complaints } of outcomes) for (const each of complaints) console.log(`\n${each}`)
  const total = (what: 'passed' | 'failed') => outcomes.reduce((sum, outcome) => sum + outcome[what], 0)
  console.log(`\n${total('passed')} passed, ${total('failed')} failed`)
  return outcomes.every(({ ok }) => ok)
}
