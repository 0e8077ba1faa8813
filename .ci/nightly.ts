import { mkdirSync, rmSync } from 'node:fs'
import { isStopped, type Outcome, runStage, type Stage, sumUp } from './stage'
import { browser, build, programs, RESULTS, routeTypes, vitest } from './stages'

/** The long form of the checks: every law at its full number on new cases, what takes long, and small faults in a part of the core. */

rmSync(RESULTS, { recursive: true, force: true })
mkdirSync(RESULTS, { recursive: true })

const seed = process.env.HALLWAY_SEED ?? String(Math.floor(Date.now() / 1000))
const night = { HALLWAY_LAWS: '1', HALLWAY_SEED: seed, HALLWAY_NIGHT: 'yes' }
console.log(`Laws are tried on the cases of HALLWAY_SEED=${seed}.`)

const KERNELS = ['linux-source-6.1', 'linux-source-6.12']
/** Sources that checks read; only root installs them. */
const sources: Stage = {
  name: 'sources of Linux',
  command: 'sh',
  words: [
    '-c',
    KERNELS.map(
      (name) => `{ test -f /usr/src/${name}.tar.xz || apt-get install -y -q --no-install-recommends ${name}; }`,
    ).join(' && '),
  ],
  minutes: 30,
}
const stages: readonly Stage[] = [
  build,
  programs,
  sources,
  routeTypes,
  vitest('core', 60, night),
  vitest('server', 30, night),
  vitest('command', 30, night),
  vitest('night', 60, night),
  { ...browser, environment: night },
  {
    ...vitest('endurance', 120, { ...night, SEED: seed }),
    words: [...vitest('endurance', 120).words, '--exclude=**/{cluster,machines}.test.ts'],
  },
  { name: 'small faults', command: 'npx', words: ['--no-install', 'tsx', '.ci/mutants.ts'], minutes: 240 },
]

const outcomes: Outcome[] = []
for (const stage of stages) if (!isStopped()) outcomes.push(await runStage(stage))
const well = sumUp(outcomes)
console.log(`It ran ${stages.map(({ name }) => name).join(', ')}, with HALLWAY_SEED=${seed}.`)
process.exitCode = well && !isStopped() ? 0 : 1
