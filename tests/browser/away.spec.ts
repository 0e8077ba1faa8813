import { type ChildProcess, spawn } from 'node:child_process'
import type { AddressInfo } from 'node:net'
import { connect, createServer, type Server, type Socket } from 'node:net'
import { join } from 'node:path'
import { freePort } from '../support/free-port'
import { expect, open, ownSite, test } from '../support/pages'

/** A door between a second Hallway and the database of the first, which the test can shut. */
class Door {
  private readonly sockets = new Set<Socket>()
  private server: Server | null = null
  port = 0
  constructor(private readonly target: number) {}
  async open(): Promise<void> {
    this.server = createServer((socket) => {
      const through = connect(this.target, '127.0.0.1')
      for (const [one, other] of [
        [socket, through],
        [through, socket],
      ] as const) {
        this.sockets.add(one)
        one.on('error', () => other.destroy())
        one.pipe(other)
      }
    })
    await new Promise<void>((done) => this.server?.listen(this.port, '127.0.0.1', done))
    this.port = (this.server.address() as AddressInfo).port
  }
  async shut(): Promise<void> {
    for (const socket of this.sockets) socket.destroy()
    this.sockets.clear()
    await new Promise((done) => this.server?.close(done))
  }
}

// one after the other, over one door
test.describe.configure({ mode: 'default' })
let door: Door
let second: ChildProcess
let said = ''
let address = ''
test.beforeAll(async ({ hallway }) => {
  const url = new URL(hallway.databaseUrl())
  const port = await freePort()
  address = `http://127.0.0.1:${port}`
  door = new Door(Number(url.port))
  await door.open()
  url.port = String(door.port)
  second = spawn('node', ['build/command/hallway.js', 'start', '--port', String(port)], {
    env: {
      ...process.env,
      HALLWAY_HOME: join(hallway.home, 'second'),
      HALLWAY_DATABASE_URL: url.href,
      HALLWAY_LOG: 'fatal',
    },
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  await new Promise<void>((ready, failed) => {
    second.stdout?.on('data', (text) => {
      said += text
      if (said.includes('Hallway is open')) ready()
    })
    second.once('exit', () => failed(new Error('the second Hallway ended')))
  })
})
test.afterAll(async () => {
  const ended = new Promise((done) => second.once('exit', done))
  second.kill('SIGTERM')
  await ended
  await door.shut()
})

test('with the database away a save waits with what was typed, and is made when it is back', async ({
  page,
  complaints,
}) => {
  const site = await ownSite(page)
  const run = `${address}${site}/runs/r-13`
  await open(page, run)
  await page.getByLabel('Note').fill('not to be lost')
  await door.shut()
  await page.getByRole('button', { name: 'Save the run' }).click()
  const bar = page
    .getByRole('status')
    .filter({ hasText: 'Not certain that it was saved: the database does not answer' })
  await expect(bar).toBeVisible()
  await expect(page.getByLabel('Note')).toHaveValue('not to be lost')

  const away = await page.request.get(run)
  expect(away.status()).toBe(503)
  const text = await away.text()
  expect(text).toContain('The database does not answer')
  expect(text).not.toMatch(/ECONN|mysql|at .*\.js:/)
  expect((await page.request.get(`${address}/health`)).status()).toBe(503)
  // without scripts the page itself says so
  const form = { tag: 'R-13', base: '1', intent: 'save' }
  const plain = await page.request.post(run, { form, maxRedirects: 0 })
  expect([422, 503]).toContain(plain.status())

  await door.open()
  await expect(page.getByText('R-13 is saved.')).toBeVisible()
  await page.reload()
  await expect(page.getByLabel('Note')).toHaveValue('not to be lost')
  complaints.splice(0)
})

test('a web process that is started anew costs nobody what was typed', async ({ page, complaints }) => {
  const site = await ownSite(page)
  await open(page, `${address}${site}/runs/r-13`)
  await page.getByLabel('Note').fill('not to be lost')
  process.kill(Number(/Web process (\d+)/.exec(said)?.[1]), 'SIGKILL')
  await page.getByRole('button', { name: 'Save the run' }).click()
  await expect(page.getByText('R-13 is saved.')).toBeVisible({ timeout: 60_000 })
  complaints.splice(0)
})
