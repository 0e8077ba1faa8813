import { randomUUID } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { JSDOM } from 'jsdom'
import type { Knex } from 'knex'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { connect } from '../../server/database/connection'
import { demo } from '../support/demo-plan'
import { formsOf, type PageForm } from '../support/forms-of-page'
import { type HallwayProcess, startHallway } from '../support/hallway-process'
import { filesAt, pages, routeFiles } from '../support/page-list'

// Every form of every page, filled in from what the page itself shows, and sent without a browser.

let hallway: HallwayProcess
let knex: Knex
beforeAll(async () => {
  hallway = await startHallway(4388)
  knex = connect(hallway.databaseUrl())
})
afterAll(async () => {
  await knex.destroy()
  await hallway.stop()
})

/** Asks as a browser of its own each time, so that nobody is told to wait. */
const ask = (path: string, init: RequestInit = {}) =>
  fetch(`${hallway.address}${path}`, {
    redirect: 'manual',
    ...init,
    headers: { cookie: `hallway-who=${randomUUID()}` },
  })
const pageAt = async (path: string): Promise<string> => {
  const answer = await ask(path)
  // a page may be nowhere, or tell of what was not kept
  expect([200, 404, 410], path).toContain(answer.status)
  return answer.text()
}

/** A site of the demo's own, whose address is answered. */
async function ownSite(): Promise<string> {
  const body = new FormData()
  body.set('file', new File([JSON.stringify(demo)], 'plan.json'))
  const made = await ask('/import', { method: 'POST', body })
  expect(made.status).toBe(302)
  return made.headers.get('location') as string
}

/** How much there is in all logs, and how many sites. */
const standing = async () => {
  const count = async (table: string) => Number((await knex(table).count({ all: '*' }))[0]?.all)
  return { changes: await count('changes'), sites: await count('sites') }
}

/** What somebody would type into a field that a page leaves empty, or choose in it, by its name. */
const TYPED: Readonly<Record<string, string>> = {
  name: 'Bell tower',
  placeName: 'Bell tower',
  length: '2 m',
  size: '2560x1440@60',
  words: '1800abcd 00000000 00420100 00082020',
  held: '45',
  tried: '50',
  from: 'the seller',
  what: 'copy the rushes',
  price: '14.50',
}
/** The same where a name means something else on a page. */
const TYPED_ON: readonly [page: RegExp, typed: Readonly<Record<string, string>>][] = [
  [/\/import$/, { text: '{"format":"hallway-plan","version":2,"site":{"id":"sent-twice","name":"Sent twice"}}' }],
  [/\/listing$/, { text: 'USB-C to USB-C, 0.8 m, USB4, 60 W' }],
  [/\/runs\/new$/, { from: 'debrief-laptop/c', to: 'gallery-chart/hdmi' }],
  [/\/visitors$/, { visitor: 'debrief-laptop', host: 'gallery-laptop' }],
  [/\/growth$/, { sort: 'power', size: '240 W' }],
  [/\/compare$/, { run: 'R-05' }],
  [/\/faults$/, { run: 'r-12' }],
  [/\/drawer\/chip$/, { tag: 'N-900', length: '1 m' }],
]
/** A file that a form asks for. */
const FILES: readonly [page: RegExp, text: string][] = [
  [/\/tables$/, 'name\nUpper store\n'],
  [/\/drawer\/import$/, 'tag,first end,second end,length\nN-001,C,C,2 m\n'],
]
const on = <T>(page: string, table: readonly (readonly [RegExp, T])[]): T | undefined =>
  table.find(([where]) => where.test(page.replace(/\?.*$/, '')))?.[1]

type Sending = { form: PageForm; fields: [string, string][]; key: string }

/** The ways to send the forms of a page: each with each of its buttons, but those of one sort (of each row of a list) once. */
function sendings(html: string, page: string): Sending[] {
  const found = new Map<string, Sending>()
  for (const form of formsOf(html, page)) {
    const isButton = (name: string) => form.buttons.some((button) => button?.[0] === name)
    for (const button of form.buttons.length > 0 ? form.buttons : [null]) {
      const filled = (name: string, shown: string): string => {
        const meant = on(page, TYPED_ON)?.[name]
        const choices = form.choices[name]
        if (choices === undefined) return meant ?? (shown || TYPED[name] || '')
        // what may only be chosen is chosen from what there is
        return meant && choices.includes(meant) ? meant : shown || (choices.find(Boolean) ?? '')
      }
      const fields = form.fields.map(([name, shown]): [string, string] => [name, filled(name, shown)])
      for (const name of Object.keys(form.choices))
        if (!isButton(name) && !fields.some(([each]) => each === name)) fields.push([name, filled(name, '')])
      if (button) fields.push(button)
      const names = fields.map(([name]) => name.replace(/\d+/g, '#'))
      const key = [form.action.replace(/\?.*$/, ''), ...names, sortOf(button)].join(' ')
      if (!found.has(key)) found.set(key, { form, fields, key })
    }
  }
  return [...found.values()]
}
/** A button by what it does, without whose it is. */
const sortOf = (button: readonly [string, string] | null): string =>
  button === null ? '' : `${button[0]}=${/\d|^[a-z]+-[a-z-]+$/.test(button[1]) ? '' : button[1].slice(0, 40)}`

/** Sends what a page would. */
async function send({ form, fields }: Sending, page: string, change: string) {
  const body = form.packed ? new FormData() : new URLSearchParams()
  for (const [name, value] of fields) if (name !== 'change') body.append(name, value)
  body.append('change', change)
  const file = on(page, FILES)
  if (body instanceof FormData && file) body.set('file', new File([file], 'table.csv'))
  const { pathname, search } = new URL(form.action, hallway.address + page)
  const answer = await ask(`${pathname}${search}`, { method: 'POST', body })
  return {
    status: answer.status,
    to: answer.headers.get('location'),
    text: await answer.text(),
    action: pathname + search,
  }
}

/** A route takes a form where it has an action. */
const takesForm = (file: string): boolean =>
  /export (async function|const|function) action\b|export \{ action \}/.test(readFileSync(`app/${file}`, 'utf8'))

/** What instruments send is tried from the command line, what only accounts have where there are some, and what only scripts make in the browser (outbox.spec). */
const SENT_OTHERWISE =
  /^routes\/(people\/|prove\/(instrument|readings)|order\/order\.tsx|dock\/|drawer\/list\/|take\.ts)/

/** No page has so many sorts of forms. */
const MOST_FORMS = 60

describe('every form of every page', () => {
  const sent = new Map<string, 'saved' | string>()

  it.each(pages('SITE'))('of %s, sent twice, is one change', async (path) => {
    const site = path.includes('SITE') ? await ownSite() : ''
    // something to be undone
    if (site)
      await ask(`${site}/survey`, {
        method: 'POST',
        body: new URLSearchParams({ intent: 'place', placeName: 'Old tower' }),
      })
    const page = path.replace('SITE', site)
    const tried = new Set<string>()
    let html = await pageAt(page)
    let answered = ''
    for (let round = 0; round < MOST_FORMS; round += 1) {
      const sending = [...sendings(answered, page), ...sendings(html, page)].find(({ key }) => !tried.has(key))
      if (!sending) break
      tried.add(sending.key)
      const change = randomUUID()
      const before = await standing()
      const first = await send(sending, page, change)
      expect(first.status, `${sending.key}: ${first.text.slice(0, 500)}`).toBeLessThan(500)
      const after = await standing()
      const saved =
        JSON.stringify(after) !== JSON.stringify(before) || (first.status === 302 && !first.to?.includes('refused='))
      const file = filesAt(first.action).at(-1) ?? ''
      if (saved) sent.set(file, 'saved')
      else if (!sent.has(file)) sent.set(file, `${first.status} ${JSON.stringify(sending.fields)}`)
      if (saved) {
        const second = await send(sending, page, change)
        expect({ status: second.status, to: second.to }, sending.key).toEqual({ status: first.status, to: first.to })
        expect(await standing(), sending.key).toEqual(after)
      }
      // a page may ask for more once it has read what was sent; after a change it is another one
      answered = saved ? '' : first.text
      if (saved) html = await pageAt(page)
    }
  })
  it('was sent and saved, of every route that takes one', () => {
    const missing = routeFiles
      .filter((file) => takesForm(file) && !SENT_OTHERWISE.test(file) && sent.get(file) !== 'saved')
      .map((file) => `${file}: ${sent.get(file)}`)
    expect(missing).toEqual([])
  })
  it('is one of the router’s, which the outbox sees, but for those of accounts', () => {
    const own = routeFiles.filter((file) => {
      const text = readFileSync(`app/${file}`, 'utf8')
      return /<form\b(?![^>]*dialog)|reloadDocument/.test(text)
    })
    expect(own.filter((file) => !file.startsWith('routes/people/'))).toEqual([])
  })
})

// what only scripts can do is not offered without them (without-scripts.spec)
it.each(pages('/sites/saltmarsh'))('before scripts load every button of %s belongs to a form', async (path) => {
  const { document } = new JSDOM(await pageAt(path)).window
  for (const button of document.querySelectorAll<HTMLButtonElement>('button:not([type=button])'))
    expect(button.form, button.outerHTML).not.toBeNull()
})
