import { spawnSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, readdirSync, rmSync, symlinkSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { type HallwayProcess, startHallway } from '../support/hallway-process'

// A person's own script as an instrument, and this computer as one.

const hallway = (words: string[], input = '') => {
  const { stdout, stderr, status } = spawnSync('node', ['build/command/hallway.js', ...words], {
    input,
    encoding: 'utf8',
  })
  return { said: `${stdout}${stderr}`, status }
}

describe('a script as an instrument', () => {
  let running: HallwayProcess
  let site: string
  beforeAll(async () => {
    running = await startHallway(4393)
    site = `${running.address}/sites/saltmarsh`
  }, 120_000)
  afterAll(() => running.stop())
  const planNow = async () =>
    (await (await fetch(`${site}/plan.json`)).json()) as {
      soaks: { run: string; drops?: string[]; since: string }[]
      observations: { id: string; measure?: string; instrument?: object; subject: { run?: string } }[]
    }

  it('tells of a drop while a run soaks, and neither is lost when the server is killed', async () => {
    const before = (await planNow()).soaks.find(({ run }) => run === 'r-06')
    expect(before?.drops).toBeUndefined()
    const { said, status } = hallway(['meter', 'R-06', '--to', site], '{"drop":true}\nnonsense\n')
    expect(said).toContain('A drop was noted.')
    expect(said).toContain('passed over')
    expect(status).toBe(0)
    process.kill(running.webPid(), 'SIGKILL')
    let after: Awaited<ReturnType<typeof planNow>> | null = null
    for (let tries = 0; tries < 60 && !after; tries += 1) {
      await wait(500)
      after = await planNow().catch(() => null)
    }
    const soak = after?.soaks.find(({ run }) => run === 'r-06')
    expect(soak?.drops).toHaveLength(1)
    expect(soak?.since).toBe(before?.since)
  })
  it('writes down one reading for each thing it measured, marked as simulated where it is', async () => {
    const lines = hallway(['meter', '--simulate', 'as marked', '--seconds', '20', '--pace', '100000'])
    expect(lines.said.trim().split('\n')).toHaveLength(21)
    expect(hallway(['meter', '--simulate', 'as marked', '--seconds', '20', '--pace', '100000']).said).toBe(lines.said)
    const copies = lines.said.replaceAll(/,"watts":[\d.]+,"celsius":[\d.]+/g, '')
    const { said } = hallway(['meter', 'R-18', '--to', `${site}/prove/r-18`, '--name', 'disk script'], copies)
    expect(said).toContain('write: 21 readings')
    const seen = (await planNow()).observations.filter(({ subject }) => subject.run === 'r-18')
    expect(seen.map(({ measure }) => measure).sort()).toEqual(['read', 'write'])
    expect(seen[0]?.instrument).toEqual({ name: 'disk script', simulated: true })
  })
  it('says what is wrong, and where', () => {
    expect(hallway(['meter', 'R-99', '--to', site]).said).toContain('The site has no run R-99.')
    expect(hallway(['meter', 'R-06', '--to', 'somewhere']).said).toContain('is not the address of a site')
    expect(hallway(['meter']).said).toContain('Say which run')
    expect(hallway(['meter', '--simulate', 'perfect']).said).toContain('as marked, charge-only, drops, heats')
    const wrong = hallway(['meter', 'R-06', '--to', site], '{"watts":40}\n')
    expect(wrong.said).toContain('this run asks for no such test')
    expect(wrong.status).toBe(1)
  })
})

describe('this computer as an instrument', () => {
  const root = mkdtempSync(join(tmpdir(), 'hallway-probe-'))
  afterAll(() => rmSync(root, { recursive: true, force: true }))
  const put = (path: string, text: string): void => {
    mkdirSync(join(root, path, '..'), { recursive: true })
    writeFileSync(join(root, path), text)
  }

  it('reads a copied tree through its links, follows none that lead out of it, and leaves it as it was', () => {
    const disk = 'sys/devices/pci0000:00/0000:00:14.0/usb2/2-1'
    put(`${disk}/speed`, '5000\n')
    put(`${disk}/product`, 'Disk\n')
    mkdirSync(join(root, 'sys/bus/usb/devices'), { recursive: true })
    symlinkSync(`../../../devices/pci0000:00/0000:00:14.0/usb2/2-1`, join(root, 'sys/bus/usb/devices/2-1'))
    const outside = mkdtempSync(join(tmpdir(), 'hallway-outside-'))
    writeFileSync(join(outside, 'speed'), '480\n')
    symlinkSync(outside, join(root, 'sys/bus/usb/devices/1-1'))
    const { said, status } = hallway(['probe', '--root', root])
    expect(status).toBe(0)
    expect(JSON.parse(said).usb).toEqual([
      { path: '2-1', name: 'Disk', megabits: 5000, lanes: null, controller: '0000:00:14.0', hub: false },
    ])
    expect(readdirSync(root)).toEqual(['sys'])
    rmSync(outside, { recursive: true })
    expect(hallway(['probe', '--root', join(root, 'nowhere')]).said).toContain('There is no folder')
  })
  it('of this very computer prints its format, whatever hangs on it', () => {
    expect(JSON.parse(hallway(['probe']).said)).toMatchObject({ format: 'hallway-probe', version: 1 })
  })
  it('writes and reads a file of its own, and takes it away', () => {
    const { said, status } = hallway(['probe', '--copy', root, '--size', '16'])
    expect(status).toBe(0)
    const copied = JSON.parse(said)
    expect(copied.megabytes).toBeGreaterThanOrEqual(16)
    expect(copied.write).toBeGreaterThan(0)
    expect(copied.read).toBeGreaterThan(0)
    expect(typeof copied.cached).toBe('boolean')
    expect(readdirSync(root).filter((name) => name.startsWith('hallway-copy'))).toEqual([])
    expect(hallway(['probe', '--copy', join(root, 'nowhere')]).said).toContain('There is no folder')
    expect(hallway(['probe', '--copy', root, '--size', '1']).said).toContain('from 8 to')
  })
})
