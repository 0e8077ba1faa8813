import { spawnSync } from 'node:child_process'
import { mkdirSync, readFileSync, rmSync } from 'node:fs'

/** Runs every check of the project and adds up what passed and failed over all of them; the last line is the sum alone. */

type Count = { passed: number; failed: number }
const RESULTS = 'test-results'

rmSync(RESULTS, { recursive: true, force: true })
mkdirSync(RESULTS, { recursive: true })

const total: Count = { passed: 0, failed: 0 }

function run(name: string, command: string, words: string[], count?: () => Count): boolean {
  console.log(`\n== ${name}`)
  const started = Date.now()
  const { status } = spawnSync(command, words, { stdio: 'inherit', env: { ...process.env, CI: 'true' } })
  const ok = status === 0
  const counted = count ? safely(count) : { passed: Number(ok), failed: Number(!ok) }
  // a runner that fell over without a failed test has failed all the same
  if (!ok && counted.failed === 0) counted.failed = 1
  total.passed += counted.passed
  total.failed += counted.failed
  console.log(`== ${name}: ${ok ? 'good' : 'FAILED'} in ${Math.round((Date.now() - started) / 1000)} s`)
  return ok
}

function safely(count: () => Count): Count {
  try {
    return count()
  } catch {
    return { passed: 0, failed: 1 }
  }
}

const npx = (name: string, words: string[], count?: () => Count): boolean =>
  run(name, 'npx', ['--no-install', ...words], count)
const json = (file: string) => JSON.parse(readFileSync(`${RESULTS}/${file}`, 'utf8'))
const vitestCount = (file: string) => (): Count => {
  const { numPassedTests, numFailedTests } = json(file)
  return { passed: numPassedTests, failed: numFailedTests }
}
const browserCount = (): Count => {
  const { expected, flaky, unexpected } = json('browser.json').stats
  return { passed: expected, failed: unexpected + flaky }
}
const vitest = (name: string, file: string, projects: string[]): boolean =>
  npx(
    name,
    [
      'vitest',
      'run',
      ...projects.map((project) => `--project=${project}`),
      '--reporter=default',
      '--reporter=json',
      `--outputFile.json=${RESULTS}/${file}`,
    ],
    vitestCount(file),
  )

/** Known holes in what is shipped, by the lock file; passed over, in a word, where no registry answers that question. */
function audit(): void {
  const { stdout } = spawnSync('npm', ['audit', '--omit=dev', '--audit-level=high', '--json'], {
    encoding: 'utf8',
    timeout: 60_000,
  })
  const report = readReport(stdout)
  const counts = report?.metadata?.vulnerabilities
  if (!counts) {
    console.log('\n== dependencies: the registry does not answer an audit here, so it is passed over')
    return
  }
  const grave = counts.high + counts.critical
  console.log(`\n== dependencies: ${grave} grave holes known`)
  total[grave === 0 ? 'passed' : 'failed'] += 1
}

function readReport(text: string): { metadata?: { vulnerabilities?: { high: number; critical: number } } } | null {
  try {
    return JSON.parse(text)
  } catch {
    return null
  }
}

npx('style (Biome)', ['biome', 'ci', '.'])
npx('types (tsc)', ['react-router', 'typegen'])
npx('types (tsc)', ['tsc', '--noEmit'])
npx('boundaries (dependency-cruiser)', ['depcruise', '--config', '.dependency-cruiser.cjs', 'core', 'server', 'app'])
const built = npx('command line', ['vite', 'build', '--config', 'vite.command.config.ts', '--logLevel', 'error'])
const needed = [
  ['mariadbd', 'mariadb-server'],
  ['chromium-headless-shell', 'chromium-headless-shell'],
  ['edid-decode', 'edid-decode'],
  ['cvt', 'xcvt'],
  ['pdftotext', 'poppler-utils'],
  ['qpdf', 'qpdf'],
  ['unzip', 'unzip'],
  ['systemd-analyze', 'systemd'],
].map(([program, name]) =>
  run(`Debian's ${name}`, 'node', ['build/command/hallway.js', 'need-program', String(program), String(name)]),
)
audit()
if (built && needed.every(Boolean)) {
  vitest('core and references', 'core.json', ['core'])
  vitest('server', 'server.json', ['server'])
  if (run('application', './hallway', ['build'])) {
    vitest('command', 'command.json', ['command'])
    npx('browser (Playwright)', ['playwright', 'test'], browserCount)
  }
}

console.log(`\n${total.passed} passed, ${total.failed} failed`)
process.exitCode = total.failed === 0 ? 0 : 1
