import { randomUUID } from 'node:crypto'
import fc from 'fast-check'
import { type Edit, entityKey } from '../../core/change/change'
import { entityAt } from '../../core/change/copy'
import type { Plan } from '../../core/plan/plan'
import { readPlan } from '../../core/plan/read'
import { connect } from '../../server/database/connection'
import { editsSince, readCopy, siteRow } from '../../server/sites/entity-rows'
import { formsOf, type PageForm } from './forms-of-page'
import type { HallwayProcess } from './hallway-process'
import { filledIn, patterns } from './site-routes'

// Several people who press whatever there is to press, and type what no page would send.

const HOSTILE = [
  '',
  ' ',
  '0',
  '-1',
  '1e309',
  '999999999999999999999',
  'NaN',
  'é😀',
  '\u202e\u0000x',
  'x'.repeat(19_000),
  '../../etc/passwd',
  '<script>1</script>',
  "'; DROP TABLE sites; --",
  '{"__proto__":{"x":1}}',
  '[[[[[[[[',
  '1 m + 2 m + 3 m',
  'r-01 r-02 r-03',
  '\r\n\r\n',
]

type Sent = { path: string; form: PageForm; fields: [string, string][] }

/** One submission of a form: as it stands, or with some of it chosen otherwise or spoiled. */
const submissionOf = (form: PageForm): fc.Arbitrary<[string, string][]> => {
  const names = Object.keys(form.choices)
  return fc
    .record({
      spoiled: fc.array(fc.tuple(fc.nat(200), fc.constantFrom(...HOSTILE)), { maxLength: 3 }),
      chosen: fc.array(fc.tuple(fc.nat(200), fc.nat(200)), { maxLength: 4 }),
      left: fc.array(fc.nat(200), { maxLength: 2 }),
    })
    .map(({ spoiled, chosen, left }) => {
      const fields = form.fields.map(([name, value]): [string, string] => [name, value])
      for (const [which, pick] of chosen) {
        const name = names[which % Math.max(1, names.length)]
        const values = name === undefined ? [] : (form.choices[name] ?? [])
        if (name !== undefined && values.length > 0) fields.push([name, values[pick % values.length] ?? ''])
      }
      for (const [which, value] of spoiled) {
        const field = fields[which % Math.max(1, fields.length)]
        if (field) field[1] = value
      }
      for (const which of left) fields.splice(which % Math.max(1, fields.length), 1)
      return fields.filter(([name]) => name !== 'change')
    })
}

const TOLD = ['did', 'took', 'added', 'stated', 'removed', 'deleted']

/** What a page answers that is not as it should be; nothing where all is well. */
function wrongWith(status: number, text: string, { path, fields }: Sent): string | null {
  const what = `${path} ${JSON.stringify(fields).slice(0, 3000)}`
  if (status >= 500) return `${status} of ${what}`
  if (/\n\s+at \S+ \(|node_modules|insert into `|ER_[A-Z]/.test(text)) return `the inside shows in ${what}`
  return null
}

/** Lets so many people at once send so many forms of each page, and answers what was wrong. */
export async function letActorsAct(
  hallway: HallwayProcess,
  { actors, rounds, seed }: { actors: number; rounds: number; seed: number },
): Promise<{ sent: number; saved: number; wrong: string[] }> {
  const site = 'saltmarsh'
  const wrong: string[] = []
  const acknowledged = new Set<string>()
  let sent = 0
  let saved = 0
  const planOf = async (): Promise<Plan> =>
    (await fetch(`${hallway.address}/sites/${site}/plan.json`, { headers: who('reader') })).json()
  const act = async (actor: number) => {
    for (let round = 0; round < rounds; round += 1) {
      const plan = await planOf()
      for (const pattern of patterns) {
        if (pattern.includes('*') || /\/(live|copy|changes)$|\.\w+$|:(file|table)/.test(pattern)) continue
        const path = filledIn(pattern, plan) || '/'
        const page = await fetch(hallway.address + path, { headers: who(`${actor} ${path}`) })
        const html = await page.text()
        if (page.status >= 500) wrong.push(`${page.status} of the page ${path}`)
        if (!page.headers.get('content-type')?.includes('html')) continue
        const forms = formsOf(html, path)
        const picks = fc.sample(fc.nat(1000), { numRuns: 3, seed: seed + 1000 * actor + round })
        for (const pick of new Set(picks.map((each) => each % Math.max(1, forms.length)))) {
          const form = forms[pick]
          // a site that is put away or a name that is given ends nothing here, but says little
          if (!form) continue
          const [fields = []] = fc.sample(submissionOf(form), {
            numRuns: 1,
            seed: seed + 7 * pick + 31 * actor + round,
          })
          const change = randomUUID()
          const body = form.packed ? new FormData() : new URLSearchParams()
          for (const [name, value] of [...fields, ['change', change] as const]) body.append(name, value)
          const asked = { path: form.action, form, fields }
          const answer = await fetch(new URL(form.action, hallway.address + path), {
            method: 'POST',
            body,
            redirect: 'manual',
            headers: who(`${actor} ${path} ${pick}`),
          })
          sent += 1
          const fault = wrongWith(answer.status, await answer.text(), asked)
          if (fault) wrong.push(fault)
          const to = answer.headers.get('location')
          if (answer.status !== 302 || to === null || to.includes('refused=')) continue
          saved += 1
          const told = new URL(to, hallway.address).searchParams
          for (const name of TOLD) {
            const id = told.get(name)
            if (id !== null && /^[0-9a-f-]{36}$/.test(id)) acknowledged.add(id)
          }
        }
      }
    }
  }
  await Promise.all(Array.from({ length: actors }, (_, actor) => act(actor)))
  wrong.push(...(await wrongWithin(hallway.databaseUrl(), acknowledged)))
  // what Hallway itself noted of it
  if (wrong.length > 0)
    wrong.push(
      ...hallway
        .said()
        .split('\n')
        .filter((line) => line.includes('"err"'))
        .slice(-3),
    )
  return { sent, saved, wrong }
}

/** Each pretends to be a browser of its own, so that nobody is told to wait. */
const who = (name: string) => ({ cookie: `hallway-who=${encodeURIComponent(name)}` })

/** What is wrong with what a database holds: each site is a plan, its log comes to it without a gap, and every acknowledged change is in a log. */
export async function wrongWithin(databaseUrl: string, acknowledged: ReadonlySet<string>): Promise<string[]> {
  const wrong: string[] = []
  const knex = connect(databaseUrl)
  try {
    const known = new Set((await knex('changes').select('id')).map(({ id }) => id as string))
    for (const id of acknowledged) if (!known.has(id)) wrong.push(`acknowledged and in no log: ${id}`)
    for (const { id } of (await knex('sites').select('id')) as { id: string }[]) {
      const row = await siteRow(knex, id)
      if (!row) continue
      const { plan } = await knex.transaction((trx) => readCopy(trx, row), { isolationLevel: 'repeatable read' })
      const read = readPlan(JSON.parse(JSON.stringify(plan)))
      if (!read.ok) wrong.push(`${id} is no plan: ${read.faults[0]?.path} ${read.faults[0]?.reason}`)
      const [counted] = await knex('changes').where({ site_id: id }).count({ all: '*' })
      if (Number(counted?.all) !== row.place) wrong.push(`the log of ${id} has a gap`)
      const last = new Map<string, Edit>()
      for (const edits of (await editsSince(knex, id, 0)).values())
        for (const edit of edits) last.set(entityKey(edit.list, edit.id), edit)
      for (const { list, id: entity, value } of last.values())
        if (
          JSON.stringify(entityAt(plan, list, entity)) !== JSON.stringify(value) &&
          list !== 'site' &&
          list !== 'policy'
        )
          wrong.push(`${list} ${entity} of ${id} is not what its log comes to`)
    }
  } finally {
    await knex.destroy()
  }
  return wrong
}
