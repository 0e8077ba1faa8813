import { randomUUID } from 'node:crypto'
import { setTimeout as wait } from 'node:timers/promises'
import type { Knex } from 'knex'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { connect } from '../../server/database/connection'
import { personCalled, setAdmin } from '../../server/people/people'
import { wrongWithin } from '../support/actors'
import { type Cluster, startCluster } from '../support/cluster'
import { PASSWORD } from '../support/hallway-process'
import { formOfRun, type SentRun } from '../support/run-form'

// Too long for every day: `npm run endure:cluster` (FAULTS=60 for the whole of it).

const FAULTS = Number(process.env.FAULTS ?? 12)
const PORT = 4400
const SITE = 'saltmarsh'
const WRITERS = 3
const PEOPLE = ['Ada Wren', 'Ben Ruff', 'Cas Teal']
/** Nobody waits longer for one answer; what was sent is then sent again. */
const ONE_ANSWER_MS = 8000
/** What may be answered while something is down: that it is, in words. Anything else is wrong. */
const DOWN = new Set([502, 503, 504])

let cluster: Cluster
beforeAll(async () => {
  cluster = await startCluster(PORT)
  for (const name of PEOPLE) cluster.command(['people', 'add', name, '--admin', '--password-stdin'], PASSWORD)
}, 240_000)
afterAll(() => cluster.stop(), 60_000)

const load = { stopped: false }
const wrong: string[] = []
const acknowledged = new Set<string>()
const counted = { pages: 0, saves: 0, sentTwice: 0, samples: 0, placesHeard: 0, waits: 0 }
/** The longest that anybody waited for what they asked for, since the last fault: printed, as it is a matter of the machine. */
const worst = { page: 0, save: 0 }

/** A browser that keeps its cookies, but not the balancer's: each request may go to another web process. */
function browser() {
  const jar = new Map<string, string>()
  const ask = async (path: string, init: RequestInit = {}, address = cluster.address): Promise<Response> => {
    const answer = await fetch(address + path, {
      redirect: 'manual',
      signal: AbortSignal.timeout(ONE_ANSWER_MS),
      ...init,
      headers: { ...init.headers, cookie: [...jar].map(([name, value]) => `${name}=${value}`).join('; ') },
    })
    for (const cookie of answer.headers.getSetCookie()) {
      const [, name = '', value = ''] = /^([^=]+)=([^;]*)/.exec(cookie) ?? []
      if (name !== 'hallway-web') jar.set(name, value)
    }
    return answer
  }
  /** Asks until it is answered, as a page, its outbox or a person would. Answers null once the load ends. */
  const untilAnswered = async (
    what: 'page' | 'save',
    path: string,
    init: RequestInit = {},
  ): Promise<{ status: number; text: string } | null> => {
    const told: string[] = []
    for (const began = Date.now(); ; ) {
      const asked = Date.now()
      try {
        const answer = await ask(path, init)
        const text = await answer.text()
        if (DOWN.has(answer.status))
          told.push(`${answer.status} after ${Date.now() - asked} ms: ${problemIn(text).slice(0, 120)}`)
        if (!DOWN.has(answer.status)) {
          if (Date.now() - began > 8000)
            console.log(
              `${new Date().toISOString()} ${what} ${path} waited ${Date.now() - began} ms: ${told.join(' | ')}`,
            )
          worst[what] = Math.max(worst[what], Date.now() - began)
          return { status: answer.status, text }
        }
      } catch (error) {
        told.push(`broke after ${Date.now() - asked} ms: ${String(error).slice(0, 60)}`)
      }
      counted.waits += 1
      if (load.stopped && Date.now() - began > 30_000) return null
      await wait(100)
    }
  }
  const signIn = async (name: string): Promise<void> => {
    const body = new URLSearchParams({ name, password: PASSWORD, to: '/' })
    const answer = await untilAnswered('save', '/sign-in', { method: 'POST', body })
    if (answer?.status !== 302) throw new Error(`${name} could not sign in: ${answer?.status} ${answer?.text}`)
  }
  return { ask, untilAnswered, signIn }
}

/** Somebody who changes one run over and over, looks at it each time, and sends what was not answered again under its id, as an outbox does. */
async function writer(number: number): Promise<void> {
  const own = browser()
  await own.signIn(PEOPLE[number] ?? '')
  const plan = await own.untilAnswered('page', `/sites/${SITE}/plan.json`)
  const run = (JSON.parse(plan?.text ?? '') as { runs: SentRun[] }).runs[number]
  if (!run) throw new Error('the demo has runs for every writer')
  const path = `/sites/${SITE}/runs/${run.id}`
  let base = '1'
  while (!load.stopped) {
    const change = randomUUID()
    const body = formOfRun(run, { base, note: `by ${number}: ${change}`, change })
    const answer = await own.untilAnswered('save', path, { method: 'POST', body })
    if (!answer) return
    if (answer.status !== 302) wrong.push(`a save was answered ${answer.status}: ${problemIn(answer.text)}`)
    else {
      acknowledged.add(change)
      counted.saves += 1
    }
    if (counted.saves % 4 === 0) {
      const again = await own.untilAnswered('save', path, { method: 'POST', body })
      if (again && again.status !== 302) wrong.push(`what was sent twice was answered ${again.status}`)
      counted.sentTwice += 1
    }
    const page = await own.untilAnswered('page', path)
    if (!page) return
    if (page.status !== 200) wrong.push(`the page of a run was answered ${page.status}`)
    else if (answer.status === 302 && !page.text.includes(change)) wrong.push('a page is older than its own write')
    base = /data-copy-place="(\d+)"/.exec(page.text)?.[1] ?? base
    counted.pages += 1
  }
}

/** What a web process noted of its own failures. */
const errorsIn = (log: string): string =>
  log
    .split('\n')
    .filter((line) => line.includes('"level":50'))
    .map((line) => line.replace(/node_modules\S+/g, '').slice(0, 3000))
    .slice(-6)
    .join('\n')

const problemIn = (html: string): string =>
  html
    .replace(/<script[\s\S]*?<\/script>|<style[\s\S]*?<\/style>|<[^>]+>/g, ' ')
    .replace(/\s+/g, ' ')
    .slice(0, 300)

async function reader(number: number): Promise<void> {
  const own = browser()
  await own.signIn(PEOPLE[number] ?? '')
  const pages = ['', '/needs', '/drawer', '/survey', '/reach', '/prove', '/history', '/people', '/order']
  for (let turn = number; !load.stopped; turn += 1) {
    const page = pages[turn % pages.length]
    const answer = await own.untilAnswered('page', `/sites/${SITE}${page}`)
    if (answer && answer.status !== 200) wrong.push(`the page ${page} was answered ${answer.status}`)
    counted.pages += 1
  }
}

/** An open page: the places it hears of never go back while its stream lasts. */
async function listener(): Promise<void> {
  const own = browser()
  await own.signIn(PEOPLE[0] ?? '')
  while (!load.stopped) {
    let heard = 0
    try {
      const answer = await own.ask(`/sites/${SITE}/live`, { signal: AbortSignal.timeout(20_000) })
      const parts = answer.body?.pipeThrough(new TextDecoderStream()).getReader()
      for (let part = await parts?.read(); part && !part.done; part = await parts?.read())
        for (const [, place] of part.value.matchAll(/event: place\ndata: (\d+)/g)) {
          if (Number(place) < heard) wrong.push(`a stream went back from ${heard} to ${place}`)
          heard = Number(place)
          counted.placesHeard += 1
          if (load.stopped) return
        }
    } catch {
      // it broke off, or lasted long enough: another is opened
    }
    await wait(200)
  }
}

/** A soak: readings that are sent until they are kept, each once. */
async function soak(series: string): Promise<void> {
  const own = browser()
  await own.signIn(PEOPLE[1] ?? '')
  const plan = await own.untilAnswered('page', `/sites/${SITE}/plan.json`)
  const run = (JSON.parse(plan?.text ?? '') as { runs: SentRun[] }).runs[0]
  while (!load.stopped) {
    const body = new URLSearchParams({
      series,
      run: run?.tag ?? '',
      instrument: 'meter of the cluster',
      from: String(counted.samples),
      lines: [0, 1, 2].map((each) => JSON.stringify({ volts: 20, amps: 1 + each / 10 })).join('\n'),
    })
    const answer = await own.untilAnswered('save', `/sites/${SITE}/instrument`, { method: 'POST', body })
    if (!answer) return
    const told = answer.status === 200 ? JSON.parse(answer.text) : {}
    if (told.do === 'go on') counted.samples += 3
    else if (told.do === 'send again' && told.from > counted.samples && told.from <= counted.samples + 3)
      counted.samples = told.from
    else wrong.push(`readings were answered ${answer.status}: ${answer.text.slice(0, 200)}`)
    await wait(250)
  }
}

/** Looks at a web process past the balancer. */
const looker = browser()

type Fault = { name: string; happens: () => Promise<void> }

/** Kills something, and starts it again a little later, as what watches over it would. */
const killed = (name: string, signal: 'SIGKILL' | 'SIGTERM', again: () => unknown): Fault => ({
  name: `${name.replace(/-\d/, '')} ${signal === 'SIGKILL' ? 'killed' : 'stopped'}`,
  async happens() {
    const child = cluster.child(name)
    const ended = new Promise((done) => child.once('exit', done))
    child.kill(signal)
    await ended
    await wait(name === 'balancer' ? 500 : 3000)
    again()
  },
})
/** Something that stands still for so long, and goes on. */
const hung = (name: string, pid: () => number, ms: number): Fault => ({
  name: `${name} hangs`,
  async happens() {
    process.kill(pid(), 'SIGSTOP')
    await wait(ms)
    process.kill(pid(), 'SIGCONT')
  },
})
/** A node that the others no longer reach. What is asked of the web process beside it is refused in words. */
const parted = (node: 1 | 2 | 3): Fault => ({
  name: 'node parted',
  async happens() {
    await cluster.part(node, true)
    await wait(9000)
    if (node !== 3) {
      const page = await looker.ask(`/sites/${SITE}`, {}, cluster.webAddress(node))
      const text = await page.text()
      if (page.status !== 503 || !/does not answer/.test(text))
        wrong.push(`a part without majority answers ${page.status}: ${problemIn(text)}`)
    }
    await cluster.part(node, false)
  },
})

const faults = (): Fault[] => [
  killed('node-1', 'SIGKILL', () => cluster.startNode(1)),
  { name: 'web process killed', happens: async () => void process.kill(cluster.webPid(2), 'SIGKILL') },
  parted(2),
  killed('balancer', 'SIGKILL', cluster.startBalancer),
  hung('node', () => cluster.child('node-2').pid ?? 0, 7000),
  killed('web-1', 'SIGTERM', () => cluster.startWeb(1)),
  killed('node-3', 'SIGKILL', () => cluster.startNode(3)),
  killed('node-2', 'SIGTERM', () => cluster.startNode(2)),
  hung('web process', () => cluster.webPid(1), 7000),
  parted(1),
  hung('node', () => cluster.child('node-3').pid ?? 0, 7000),
  killed('node-2', 'SIGKILL', () => cluster.startNode(2)),
]

it('a node that is behind keeps whoever saved waiting until it is not, and nobody else', async () => {
  const [ada, ben] = [browser(), browser()]
  await ada.signIn(PEOPLE[0] ?? '')
  await ben.signIn(PEOPLE[1] ?? '')
  const plan = await ada.untilAnswered('page', `/sites/${SITE}/plan.json`)
  const run = (JSON.parse(plan?.text ?? '') as { runs: SentRun[] }).runs[WRITERS] as SentRun
  const path = `/sites/${SITE}/runs/${run.id}`
  const there = async ({ ask }: typeof ada) =>
    (await (await ask(path, {}, cluster.webAddress(2))).text()).includes(change)
  const change = randomUUID()
  expect(await there(ada)).toBe(false)
  const goOn = await cluster.hold(2)
  try {
    const body = formOfRun(run, { base: '1', note: change, change })
    const saved = await ada.ask(path, { method: 'POST', body }, cluster.webAddress(1))
    expect(saved.status).toBe(302)
    expect(await there(ben)).toBe(false)
    const waits = there(ada)
    expect(await Promise.race([waits, wait(1500, 'waits')])).toBe('waits')
    await goOn()
    expect(await waits).toBe(true)
    expect(await there(ben)).toBe(true)
  } finally {
    await goOn().catch(() => {})
  }
}, 60_000)

it('of two who take the last two admins away, each at a node of its own, one is refused', async () => {
  const here = ([1, 2] as const).map((node) => connect(cluster.databaseUrl(node)))
  try {
    const [one, two] = here as [Knex, Knex]
    const admins = [PEOPLE[0], PEOPLE[1]].map((name) => String(name))
    const [ada, ben] = [await personCalled(one, admins[0] ?? ''), await personCalled(one, admins[1] ?? '')]
    const cas = await personCalled(one, PEOPLE[2] ?? '')
    if (!ada || !ben || !cas) throw new Error('there are three')
    await setAdmin(one, cas, false)
    for (let round = 0; round < 10; round += 1) {
      const ends = await Promise.allSettled([setAdmin(one, ada, false), setAdmin(two, ben, false)])
      expect(ends.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected'])
      await setAdmin(one, ada, true)
      await setAdmin(one, ben, true)
    }
    await setAdmin(one, cas, true)
  } finally {
    for (const knex of here) await knex.destroy()
  }
}, 60_000)

it(
  `${FAULTS} faults of a cluster lose nothing and show nobody less than they saved`,
  async () => {
    const series = randomUUID()
    await looker.signIn(PEOPLE[2] ?? '')
    const running = [
      ...Array.from({ length: WRITERS }, (_, number) => writer(number)),
      reader(0),
      reader(1),
      listener(),
      listener(),
      soak(series),
    ]
    const table: Record<string, { times: number; page: number; save: number }> = {}
    try {
      for (let number = 0; number < FAULTS; number += 1) {
        await wait(3000)
        worst.page = 0
        worst.save = 0
        const all = faults()
        const fault = all[number % all.length] as Fault
        await fault.happens()
        await cluster.whole()
        await wait(1000)
        const before = table[fault.name] ?? { times: 0, page: 0, save: 0 }
        table[fault.name] = {
          times: before.times + 1,
          page: Math.max(before.page, worst.page),
          save: Math.max(before.save, worst.save),
        }
      }
    } finally {
      load.stopped = true
    }
    await Promise.all(running)
    await cluster.whole()
    console.table(table)
    console.log({ ...counted, acknowledged: acknowledged.size })
    if (wrong.length > 0) for (const name of ['web-1', 'web-2'] as const) console.log(errorsIn(cluster.logOf(name)))
    expect([...new Set(wrong)]).toEqual([])
    expect(acknowledged.size).toBeGreaterThan(10 * FAULTS)
    for (const node of [1, 2, 3] as const) {
      expect(await wrongWithin(cluster.databaseUrl(node), acknowledged)).toEqual([])
      const knex = connect(cluster.databaseUrl(node))
      try {
        expect(await knex('series').where({ id: series }).first('samples')).toEqual({ samples: counted.samples })
      } finally {
        await knex.destroy()
      }
    }
  },
  (FAULTS + 4) * 60_000,
)
