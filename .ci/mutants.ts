import { spawnSync } from 'node:child_process'
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { basename, dirname } from 'node:path'

/**
 * Puts small faults into a folder of the core, one at a time, and tells which of them no test finds: `npm run mutants core/order`, or some files of it. Without any the next folder
 * of the core is taken, so that every part has its night.
 */

const FOLDERS = readdirSync('core', { withFileTypes: true })
  .filter((entry) => entry.isDirectory())
  .map(({ name }) => `core/${name}`)
const DAY_MS = 86_400_000
const SHOWN = 400
const OUT = 'test-results/mutants'

const named = process.argv.slice(2)
const places = named.length > 0 ? named : [FOLDERS[Math.floor(Date.now() / DAY_MS) % FOLDERS.length] ?? 'core']
mkdirSync(OUT, { recursive: true })

const config = `${OUT}/stryker.config.json`
writeFileSync(
  config,
  JSON.stringify({
    mutate: [...places.map((place) => (place.endsWith('.ts') ? place : `${place}/**/*.ts`)), '!**/*.test.ts'],
    testRunner: 'vitest',
    vitest: { configFile: '.ci/mutants.vitest.ts', related: true },
    coverageAnalysis: 'perTest',
    ignoreStatic: true,
    concurrency: 2,
    symlinkNodeModules: true,
    disableTypeChecks: true,
    timeoutMS: 10_000,
    reporters: ['json', 'progress'],
    jsonReporter: { fileName: `${OUT}/mutants.json` },
    dryRunTimeoutMinutes: 60,
    cleanTempDir: 'always',
    tempDirName: `${OUT}/work`,
    ignorePatterns: ['build', 'test-results', 'docs/screenshots', '.react-router'],
  }),
)

/** The tests of a place: those in its folder, and those elsewhere that read something of it themselves. */
function testsOf(place: string): string[] {
  const folder = place.endsWith('.ts') ? dirname(place) : place
  const read = place.endsWith('.ts') ? `/${basename(place, '.ts')}'` : `/${folder.replace(/^core\//, '')}/`
  return ['core', 'app', 'tests/reference']
    .flatMap((top) => readdirSync(top, { recursive: true, encoding: 'utf8' }).map((file) => `${top}/${file}`))
    .filter((file) => file.endsWith('.test.ts') && !/\/(patterns|edid|timing|marks)\.test/.test(file))
    .filter((file) => file.startsWith(`${folder}/`) || readFileSync(file, 'utf8').includes(read))
}

console.log(`Small faults are put into ${places.join(', ')}.`)
const { status } = spawnSync('npx', ['--no-install', 'stryker', 'run', config], {
  stdio: 'inherit',
  env: {
    ...process.env,
    HALLWAY_MUTANTS: [...new Set(places.flatMap(testsOf))].join(','),
    // the laws on few cases, or each fault costs minutes
    HALLWAY_LAWS: process.env.HALLWAY_LAWS ?? '0.1',
  },
})
if (status !== 0) process.exit(status ?? 1)

type Place = { line: number; column: number }
type Mutant = { mutatorName: string; replacement?: string; status: string; location: { start: Place } }
const { files }: { files: Record<string, { mutants: Mutant[] }> } = JSON.parse(
  readFileSync(`${OUT}/mutants.json`, 'utf8'),
)
const all = Object.entries(files).flatMap(([file, { mutants }]) => mutants.map((mutant) => ({ file, ...mutant })))
const having = (...statuses: string[]) => all.filter((mutant) => statuses.includes(mutant.status))
const lived = having('Survived', 'NoCoverage')
for (const { file, location, mutatorName, replacement = '', status: end } of lived.slice(0, SHOWN))
  console.log(
    `${file}:${location.start.line}:${location.start.column} ${end === 'NoCoverage' ? '(no test comes here) ' : ''}${mutatorName}: ${replacement.split('\n')[0]?.slice(0, 100)}`,
  )
const found = having('Killed', 'Timeout').length
console.log(
  `${places.join(', ')}: ${found} of ${found + lived.length} small faults were found (${Math.round((100 * found) / Math.max(1, found + lived.length))} %).`,
)
