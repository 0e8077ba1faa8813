import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync, statfsSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { wrongWithin } from '../support/actors'
import { demo } from '../support/demo-plan'
import { type HallwayProcess, startHallway } from '../support/hallway-process'
import { newSave, placeOf, save } from '../support/stalls'

// A disk of its own in memory, which asks for root: `npm run endure`.

const PORT = 4381
const MEGABYTE = 1_000_000
const disk = mkdtempSync(join(tmpdir(), 'hallway-disk-'))
let hallway: HallwayProcess
beforeAll(async () => {
  execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=400m', 'none', disk])
  hallway = await startHallway(PORT, { home: join(disk, 'home') })
})
afterAll(async () => {
  await hallway.stop()
  execFileSync('umount', ['-l', disk])
  rmSync(disk, { recursive: true, force: true })
})

const filler = join(disk, 'filler')
const free = (): number => {
  const { bavail, bsize } = statfsSync(disk)
  return bavail * bsize
}
/** Leaves so much room. */
const leave = (bytes: number): void => {
  rmSync(filler, { force: true })
  const fill = free() - bytes
  if (fill > 0) writeFileSync(filler, Buffer.alloc(fill))
}
const saved = new Set<string>()
const site = '/sites/saltmarsh'
const ask = async (path: string, init: RequestInit = {}) => {
  const answer = await fetch(`${hallway.address}${path}`, { redirect: 'manual', ...init })
  return { status: answer.status, text: await answer.text() }
}
const withFile = (
  field: string,
  name: string,
  bytes: Uint8Array | string,
  more: Record<string, string> = {},
): RequestInit => {
  const body = new FormData()
  for (const [each, value] of Object.entries(more)) body.set(each, value)
  body.set(field, new File([bytes as BlobPart], name))
  return { method: 'POST', body }
}
/** A picture of one pixel. */
const pixel = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
)

describe('a disk that fills', () => {
  it('is told before anything is lost: no change, photo, site, handover or readings are taken, pages and sign-in go on', async () => {
    leave(49 * MEGABYTE)
    const base = await placeOf(hallway.address)
    const plan = JSON.stringify({ ...demo, site: { ...demo.site, id: 'more', name: 'More' } })
    const [floor] = demo.floors
    const sent: [string, { status: number; text: string }][] = [
      ['a change', await save(hallway.address, newSave(1), base)],
      [
        'a photo',
        await ask(
          `${site}/walk`,
          withFile('file', 'p.png', pixel, { intent: 'photo', place: demo.places[0]?.id ?? '', base }),
        ),
      ],
      [
        'a drawing',
        await ask(`${site}/floors/${floor?.id}`, withFile('file', 'p.png', pixel, { intent: 'drawing', base })),
      ],
      ['a new site', await ask('/?index', { method: 'POST', body: new URLSearchParams({ name: 'New' }) })],
      ['an import', await ask('/import', withFile('file', 'plan.json', plan))],
      [
        'a handover',
        await ask(`${site}/handover`, {
          method: 'POST',
          body: new URLSearchParams({ intent: 'make', name: 'H', client: 'C', base, paper: 'a4', units: 'both' }),
        }),
      ],
      [
        'readings',
        await ask(`${site}/instrument`, {
          method: 'POST',
          body: new URLSearchParams({
            series: crypto.randomUUID(),
            run: demo.runs[0]?.tag ?? '',
            instrument: 'm',
            from: '0',
            lines: '{"volts":20,"amps":1}',
          }),
        }),
      ],
    ]
    for (const [what, { status, text }] of sent) {
      expect([503], `${what}: ${status} ${text.slice(0, 200)}`).toContain(status)
      if (status === 503) expect(text, what).toMatch(/disk|does not answer/)
    }
    for (const page of [site, `${site}/history`, `${site}/drawer`, '/'])
      expect((await ask(page)).status, page).toBe(200)
    expect(JSON.parse((await ask('/health')).text)).toMatchObject({ status: 'degraded', disk: 'full' })
    expect(await wrongWithin(hallway.databaseUrl(), saved)).toEqual([])
  })
  it('with room again takes all of it, without anybody doing anything', async () => {
    leave(120 * MEGABYTE)
    const sent = newSave(2)
    expect((await save(hallway.address, sent, await placeOf(hallway.address))).status).toBe(302)
    saved.add(sent.change)
  })
  it('and a backup of it that finds no room leaves nothing behind and says so', async () => {
    leave(51 * MEGABYTE)
    const small = join(disk, 'backup.gz')
    writeFileSync(join(disk, 'more'), Buffer.alloc(Math.max(0, free() - 20_000)))
    try {
      execFileSync('node', ['build/command/hallway.js', 'backup', small], {
        env: { ...process.env, HALLWAY_HOME: hallway.home, HALLWAY_DATABASE_URL: undefined },
        stdio: 'pipe',
      })
      expect.unreachable('there was no room')
    } catch (error) {
      expect(String((error as { stderr: Buffer }).stderr)).toMatch(/room/)
    } finally {
      rmSync(join(disk, 'more'), { force: true })
    }
    expect(() => statfsSync(small)).toThrow()
  })
  it('to the last byte, so that the database dies, is back by itself once there is room, with all that was acknowledged', async () => {
    leave(0)
    const pid = Number(execFileSync('cat', [join(hallway.home, 'database.pid')], { encoding: 'utf8' }))
    process.kill(pid, 'SIGKILL')
    await wait(6000)
    leave(120 * MEGABYTE)
    const until = Date.now() + 120_000
    let health = ''
    while (Date.now() < until && !health.includes('"ok","database":"ok"')) {
      await wait(500)
      health = (await ask('/health')).text
    }
    expect(health).toContain('"database":"ok"')
    const sent = newSave(3)
    expect((await save(hallway.address, sent, await placeOf(hallway.address))).status).toBe(302)
    saved.add(sent.change)
    expect(await wrongWithin(hallway.databaseUrl(), saved)).toEqual([])
  }, 180_000)
})
