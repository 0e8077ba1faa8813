import { spawn, spawnSync } from 'node:child_process'
import { once } from 'node:events'
import { mkdirSync, mkdtempSync, readdirSync, rmSync, symlinkSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { EventSource } from 'eventsource'
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
      observations: { id: string; series?: string; measure?: string; instrument?: object; subject: { run?: string } }[]
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
    const [written] = (await planNow()).observations.filter(({ subject }) => subject.run === 'r-18')
    expect(written).toMatchObject({ spread: { count: 21 }, series: expect.any(String) })
    // all of them are kept, and come out as CSV
    const csv = await (await fetch(`${site}/readings/${written?.series}.csv`)).text()
    expect(csv.trim().split('\r\n')).toHaveLength(22)
    const page = await (await fetch(`${site}/prove/r-18/readings/${written?.series}`)).text()
    expect(/<h1[^>]*>Readings of (?:<!-- -->)?disk script/.test(page)).toBe(true)
    const seen = (await planNow()).observations.filter(({ subject }) => subject.run === 'r-18')
    expect(seen.map(({ measure }) => measure).sort()).toEqual(['read', 'write'])
    expect(seen[0]?.instrument).toEqual({ name: 'disk script', simulated: true })
  })
  it('keeps what came before its server was killed, sends what was not kept, and stops when somebody ends it', async () => {
    const child = spawn('node', ['build/command/hallway.js', 'meter', 'R-18', '--to', site, '--name', 'killed'])
    let said = ''
    child.stdout.on('data', (piece) => {
      said += piece
    })
    const ended = once(child, 'exit')
    const instruments = async () => {
      const page = await fetch(`${site}/prove/r-18`)
        .then((answer) => answer.text())
        .catch(() => '')
      return /readings\/([0-9a-f-]{36})[^>]*>killed</.exec(page)?.[1]
    }
    const csvOf = async (series: string) =>
      fetch(`${site}/readings/${series}.csv`)
        .then((answer) => answer.text())
        .catch(() => '')
    for (let at = 0; at < 50; at += 1) child.stdin.write(`data: {"write":${2000 + at}}\n\n: frame\n`)
    let series: string | undefined
    for (let tries = 0; tries < 60 && !series; tries += 1) {
      await wait(250)
      series = await instruments()
    }
    process.kill(running.webPid(), 'SIGKILL')
    for (let at = 0; at < 50; at += 1) child.stdin.write(`{"write":${3000 + at}}\n`)
    let csv = ''
    for (let tries = 0; tries < 120 && !csv.includes(',3049,'); tries += 1) {
      await wait(500)
      csv = await csvOf(series ?? '')
    }
    const kept = csv.trim().split('\r\n').slice(1)
    expect(kept.map((line) => Number(line.split(',')[1]))).toEqual([
      ...Array.from({ length: 50 }, (_, at) => 2000 + at),
      ...Array.from({ length: 50 }, (_, at) => 3000 + at),
    ])
    const answer = await fetch(`${site}/prove/r-18/readings/${series}`, {
      method: 'POST',
      body: new URLSearchParams({ intent: 'end', change: crypto.randomUUID() }),
      headers: { Origin: new URL(site).origin },
      redirect: 'manual',
    })
    expect(answer.status).toBe(302)
    child.stdin.write('{"write":1}\n')
    await ended
    expect(said).toContain('Somebody ended these readings.')
    expect((await csvOf(series ?? '')).includes(',1,')).toBe(false)
  })
  it('is heard on the stream of a page by a client of server-sent events that others wrote', async () => {
    const source = new EventSource(`${site}/live?instruments=r-18`)
    const heard: { instrument: string; latest: { read?: number } | null }[][] = []
    source.addEventListener('instruments', ({ data }) => heard.push(JSON.parse(data)))
    const places: number[] = []
    source.addEventListener('place', ({ data }) => places.push(Number(data)))
    try {
      for (let tries = 0; tries < 100 && heard.length === 0; tries += 1) await wait(100)
      const answer = await fetch(`${site}/instrument`, {
        method: 'POST',
        body: new URLSearchParams({
          series: 'heard',
          run: 'R-18',
          instrument: 'listened to',
          from: '0',
          lines: '{"read":1234}',
        }),
        headers: { Origin: new URL(site).origin },
      })
      expect(await answer.json()).toMatchObject({ do: 'go on', samples: 1 })
      const told = () => heard.flat().find(({ instrument }) => instrument === 'listened to')
      for (let tries = 0; tries < 100 && !told(); tries += 1) await wait(100)
      expect(told()?.latest?.read).toBe(1234)
      expect(places[0]).toBeGreaterThan(0)
    } finally {
      source.close()
    }
  })
  it('says what is wrong, and where', () => {
    expect(hallway(['meter', 'R-99', '--to', site]).said).toContain('The site has no run R-99.')
    expect(hallway(['meter', 'R-06', '--to', 'somewhere']).said).toContain('is not the address of a site')
    expect(hallway(['meter']).said).toContain('Say which run')
    expect(hallway(['meter', '--simulate', 'perfect']).said).toContain(
      'as marked, charge-only, drops, falls back, heats, lies',
    )
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
