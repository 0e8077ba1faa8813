import { spawnSync } from 'node:child_process'
import { availableParallelism } from 'node:os'
import type { Outcome, Stage } from './stage'

/** The stages that both forms of the checks are made of. Deadlines are three times what a quiet machine of two cores takes, and some. */

export const RESULTS = 'test-results'

/** Programs of Debian's packages that tests hold Hallway against, or that they run. */
const PROGRAMS = [
  ['mariadbd', 'mariadb-server'],
  ['chromium-headless-shell', 'chromium-headless-shell'],
  ['edid-decode', 'edid-decode'],
  ['cvt', 'xcvt'],
  ['pdftotext', 'poppler-utils'],
  ['qpdf', 'qpdf'],
  ['unzip', 'unzip'],
  ['systemd-analyze', 'systemd'],
] as const

const npx = (name: string, minutes: number, ...words: string[]): Stage => ({
  name,
  minutes,
  command: 'npx',
  words: ['--no-install', ...words],
})

export const style = npx('style (Biome)', 3, 'biome', 'ci', '.')
export const routeTypes = npx('types of the routes', 3, 'react-router', 'typegen')
/** TypeScript 7 checks five times as fast; what reads our types (the framework, dependency-cruiser, mutants) goes by 5. */
export const types: Stage = {
  name: 'types (tsc)',
  command: 'node',
  words: ['node_modules/typescript-native/bin/tsc', '--noEmit'],
  minutes: 3,
}
export const boundaries = npx(
  'boundaries (dependency-cruiser)',
  4,
  'depcruise',
  '--config',
  '.dependency-cruiser.cjs',
  'core',
  'server',
  'app',
)
/** Makes the command line and the application, where they are older than their sources. */
export const build: Stage = { name: 'build', command: './hallway', words: ['build'], minutes: 8 }
export const programs: Stage = {
  name: 'programs of Debian’s packages',
  command: 'node',
  words: ['build/command/hallway.js', 'need-programs', ...PROGRAMS.map((each) => each.join('='))],
  // a new machine fetches them all
  minutes: 15,
}

/** Tests that start programs and wait for these leave room for one more beside them. */
const WORKERS: Readonly<Record<string, number>> = { command: availableParallelism() + 1 }

/** A project of Vitest, with what its laws are told. */
export const vitest = (project: string, minutes: number, environment: Record<string, string> = {}): Stage => ({
  name: project,
  command: 'npx',
  words: [
    '--no-install',
    'vitest',
    'run',
    `--project=${project}`,
    `--maxWorkers=${WORKERS[project] ?? availableParallelism()}`,
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${RESULTS}/${project}.json`,
  ],
  minutes,
  environment,
  results: { file: `${RESULTS}/${project}.json`, by: 'vitest' },
})

export const browser: Stage = {
  ...npx('browser', 40, 'playwright', 'test'),
  results: { file: `${RESULTS}/browser.json`, by: 'playwright' },
}

/** Known holes in what is shipped, by the lock file; passed over, in a word, where no registry answers that question. */
export function audit(): Outcome | null {
  const started = Date.now()
  const { stdout } = spawnSync('npm', ['audit', '--omit=dev', '--audit-level=high', '--json'], {
    encoding: 'utf8',
    timeout: 60_000,
  })
  const counts = readReport(stdout)?.metadata?.vulnerabilities
  if (!counts) {
    console.log('\n== dependencies: the registry does not answer an audit here, so it is passed over')
    return null
  }
  const grave = counts.high + counts.critical
  console.log(`\n== dependencies: ${grave} grave holes known`)
  const ok = grave === 0
  return {
    name: 'dependencies',
    ok,
    seconds: (Date.now() - started) / 1000,
    passed: Number(ok),
    failed: Number(!ok),
    files: [],
    complaints: [],
    cutShortAt: null,
  }
}

function readReport(text: string): { metadata?: { vulnerabilities?: { high: number; critical: number } } } | null {
  try {
    return JSON.parse(text)
  } catch {
    return null
  }
}
