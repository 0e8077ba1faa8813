import { execFileSync } from 'node:child_process'
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { commandsOf, RUN_ELSEWHERE } from '../support/commands-of'
import { command, type HallwayProcess, startHallway } from '../support/hallway-process'

// What docs/running.md says, done.

const PORT = 4389
const manual = readFileSync('docs/running.md', 'utf8')
const folder = mkdtempSync(join(tmpdir(), 'hallway-backups-'))
let hallway: HallwayProcess
beforeAll(async () => {
  hallway = await startHallway(PORT)
})
afterAll(async () => {
  await hallway.stop()
  rmSync(folder, { recursive: true, force: true })
})

const asRoot = process.getuid?.() === 0 ? ['--user=root'] : []

const backUp = (keep: number): string =>
  execFileSync('deploy/backup', [folder, String(keep)], {
    encoding: 'utf8',
    env: { ...process.env, HALLWAY_HOME: hallway.home, HALLWAY_DATABASE_URL: undefined },
  })

describe('the manual', () => {
  it('has units that systemd takes, and that are hardened', () => {
    const units = readdirSync('deploy').filter((name) => /\.(service|timer)$/.test(name))
    expect(units.length).toBeGreaterThan(2)
    for (const name of units) {
      // as it would be where the manual puts it: here are another folder and another user
      const text = readFileSync(join('deploy', name), 'utf8')
      writeFileSync(join(folder, name), text.replaceAll('/srv/hallway', resolve('.')).replace(/=hallway$/gm, '=root'))
    }
    const files = units.map((name) => join(folder, name))
    expect(execFileSync('systemd-analyze', ['verify', '--man=no', ...files], { encoding: 'utf8', stdio: 'pipe' })).toBe(
      '',
    )
    for (const [place, name] of units.entries()) {
      const text = readFileSync(files[place] ?? '', 'utf8')
      if (name.endsWith('.service')) expect(text).toContain('NoNewPrivileges=yes')
      rmSync(files[place] ?? '')
    }
    const service = readFileSync('deploy/hallway.service', 'utf8')
    for (const line of ['ProtectSystem=strict', 'CapabilityBoundingSet=']) expect(service).toContain(line)
  })
  it('has a backup that is tried at once, and keeps the last ones', { timeout: 180_000 }, async () => {
    const older = ['hallway-2001-01-01T000000.gz', 'hallway-2001-01-02T000000.gz']
    for (const name of older) writeFileSync(join(folder, name), 'of an earlier night')
    expect(backUp(2)).toMatch(/1 site .*read again[\s\S]*Restored: Saltmarsh Pilotage School/)
    const kept = readdirSync(folder).filter((name) => name.endsWith('.gz'))
    expect(kept).toHaveLength(2)
    expect(kept.filter((name) => older.includes(name))).toEqual(older.slice(1))
    rmSync(join(folder, older[1] ?? ''))
    expect((await fetch(`${hallway.address}/health`)).status).toBe(200)
  })
  it('has a way back after a loss: an empty database, the backup and a start', { timeout: 180_000 }, async () => {
    const [file = ''] = readdirSync(folder).filter((name) => name.endsWith('.gz'))
    const lost = mkdtempSync(join(tmpdir(), 'hallway-lost-'))
    try {
      expect(command(lost, ['restore', join(folder, file)])).toContain('Restored: Saltmarsh Pilotage School')
      const sizes = command(lost, ['sizes'])
      expect(sizes).toContain('saltmarsh')
      expect(() => command(lost, ['restore', join(folder, file)])).toThrow(/empty/)
    } finally {
      rmSync(lost, { recursive: true, force: true })
    }
  })
  it('has a setting for a node of a cluster that the database takes', () => {
    const told = execFileSync(
      'mariadbd',
      [
        `--defaults-file=${resolve('deploy/galera.cnf')}`,
        ...asRoot,
        '--wsrep-cluster-address=gcomm://',
        '--verbose',
        '--help',
      ],
      { encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'] },
    )
    const value = (name: string) => new RegExp(`^${name} +(\\S+)`, 'm').exec(told)?.[1]
    expect(value('binlog-format')).toBe('ROW')
    expect(value('wsrep-retry-autocommit')).toBe('4')
    expect(value('bind-address')).toBe('127.0.0.1')
  })
  it('tells of no command that no test runs', () => {
    const commands = commandsOf('docs/running.md')
    expect(commands.length).toBeGreaterThan(25)
    // those that need machines of their own are run there, word for word
    const booted = readFileSync('tests/endurance/machines.test.ts', 'utf8')
    const run = [...[...booted.matchAll(/told\('([^']+)'/g)].map(([, begins = '']) => begins), ...RUN_ELSEWHERE]
    expect(commands.filter((each) => !run.some((begins) => each.startsWith(begins)))).toEqual([])
  })
  it('names figures that there are', async () => {
    const metrics = await (await fetch(`${hallway.address}/metrics`)).text()
    const named = [...manual.matchAll(/`((?:hallway|nodejs|process)_\w+)`/g)].map(([, name = '']) => name)
    expect(named.length).toBeGreaterThan(2)
    for (const name of named) expect(metrics).toContain(name)
  })
  it('names settings that the code reads', () => {
    const code = execFileSync('grep', ['-rhoE', 'HALLWAY_[A-Z_]+', 'server', 'app', 'hallway', 'deploy'], {
      encoding: 'utf8',
    })
    for (const [name] of manual.matchAll(/HALLWAY_[A-Z_]+/g)) expect(code).toContain(name)
  })
})
