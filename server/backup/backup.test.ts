import { createHash } from 'node:crypto'
import {
  appendFileSync,
  existsSync,
  mkdtempSync,
  readFileSync,
  rmSync,
  statSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gunzipSync, gzipSync } from 'node:zlib'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { freshSites } from '../../tests/support/demo-site'
import { makeEmptyDatabase, withEmptyDatabase } from '../../tests/support/empty-database'
import { migrate } from '../database/migrate'
import { Failure } from '../failure'
import { hashPassword } from '../people/passwords'
import { changeSite } from '../sites/change-site'
import { currentCopy } from '../sites/copies'
import { historyOf } from '../sites/history'
import { backUp, restore } from './backup'

const { now, stored } = freshSites('own')
const folder = mkdtempSync(join(tmpdir(), 'hallway-backup-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))
/** What is refused leaves nothing behind, so all refusals share one database that is still empty for the next. */
let empty: Awaited<ReturnType<typeof makeEmptyDatabase>>
beforeAll(async () => {
  empty = await makeEmptyDatabase()
  await migrate(empty.knex)
})
afterAll(() => empty.drop())
/** The lines of a backup that is whole, for each refusal to spoil. */
let whole: Promise<string[]> | null = null
const wholeLines = (): Promise<string[]> => {
  whole ??= (async () => {
    const file = fresh()
    await backUp(now.knex, file)
    return gunzipSync(readFileSync(file)).toString('utf8').split('\n')
  })()
  return whole
}
const holdsNothing = async () => {
  expect(await empty.knex('sites')).toEqual([])
  expect(await empty.knex('changes')).toEqual([])
}
let files = 0
const fresh = () => join(folder, `${++files}.gz`)

const note = (text: string) =>
  changeSite(now.knex, now.site, { by: 'Ada' }, ({ plan, place }) => ({
    what: { name: 'change run', about: ['R-01', 'the note'] },
    edits: plan.runs
      .slice(0, 1)
      .map((run) => ({ list: 'runs', id: run.id, base: place, value: { ...run, note: text } })),
  }))

describe('a backup', () => {
  it('brings every site back with its log into an empty database, under an identity of its own', async () => {
    await note('kept')
    const file = fresh()
    const counts = await backUp(now.knex, file)
    expect(counts.changes).toBeGreaterThan(1)
    expect(statSync(file).mode & 0o777).toBe(0o600)
    const mine = await currentCopy(now.knex, now.site)
    await withEmptyDatabase(async (knex) => {
      await migrate(knex)
      await restore(knex, file)
      const theirs = await currentCopy(knex, now.site)
      expect(theirs?.copy).toEqual(mine?.copy)
      expect(theirs?.identity).not.toBe(mine?.identity)
      const history = await historyOf(knex, now.site, await stored(), {})
      expect(history.lines.map(({ place, by }) => [place, by])).toEqual([
        [2, 'Ada'],
        [1, 'Ada'],
      ])
      await expect(restore(knex, file)).rejects.toThrow(/holds sites already/)
    })
  })
  it('is of one moment while others write', async () => {
    await note('first')
    const writing = (async () => {
      for (let at = 0; at < 30; at += 1) await note(`note ${at}`)
    })()
    const file = fresh()
    await backUp(now.knex, file)
    await writing
    await withEmptyDatabase(async (knex) => {
      await migrate(knex)
      // what is restored is checked as a plan file would be, with every entity at the place its log has come to
      await restore(knex, file)
      const held = await currentCopy(knex, now.site)
      const last = await knex('changes').where({ site_id: now.site }).max({ place: 'place' }).first()
      expect(held?.copy.place).toBe(last?.place)
      const note = await knex('edits').where({ site_id: now.site, place: last?.place }).first('value')
      expect(held?.copy.plan.runs[0]).toEqual(note?.value)
    })
  })
  it.each<[string, (lines: string[]) => string[]]>([
    ['cut short', (lines) => lines.slice(0, -2)],
    ['with a row too few', (lines) => lines.toSpliced(4, 1)],
    [
      'with a letter changed',
      (lines) => lines.map((line, at) => (at === 3 ? line.replace('"name":"', '"name":"X') : line)),
    ],
    [
      'of another version',
      (lines) => lines.map((line, at) => (at === 0 ? line.replace('"version":1', '"version":9') : line)),
    ],
    ['that is none', () => ['{"format":"letter"}', '']],
  ])('%s is refused, and nothing of it comes in', async (_what, spoil) => {
    const file = fresh()
    writeFileSync(file, gzipSync(spoil(await wholeLines()).join('\n'), { level: 1 }))
    await expect(restore(empty.knex, file)).rejects.toThrow(/backup|damaged|version/)
    await holdsNothing()
  })
  /** Lines with a foot whose counts and sum fit, so that only what they say is wrong. */
  function sealed(lines: readonly string[]): string {
    const counts: Record<string, number> = {}
    for (const line of lines) {
      const table = /^\{"table":"(\w+)"/.exec(line)?.[1]
      if (table) counts[table] = (counts[table] ?? 0) + 1
    }
    const body = lines.map((line) => `${line}\n`).join('')
    return `${body}${JSON.stringify({ end: true, counts, sha256: createHash('sha256').update(body).digest('hex') })}\n`
  }
  const person = () => ({
    id: 'p',
    name: 'Pip',
    password: null,
    admin: 0,
    made: '2026-11-30 10:00:00.000',
    retired: null,
  })
  const passkey = () => ({
    digest: 'd',
    person: 'p',
    credential: 'c',
    public_key: 'k',
    transports: '',
    counter: 0,
    name: 'a phone',
    made: '2026-11-30 10:00:00.000',
    used: null,
  })
  const rowOf = (table: string, row: object) => JSON.stringify({ table, row })
  it.each<[string, (lines: string[]) => string[]]>([
    ['a table nobody knows', (lines) => [...lines, rowOf('settings', { name: 'signing-secret', value: 'mine' })]],
    ['a column nobody knows', (lines) => [...lines, rowOf('files', { size: 1, 'id`) --': 'x' })]],
    ['a row of nothing', (lines) => [...lines, rowOf('sites', {})]],
    ['a row twice', (lines) => [...lines, lines[1] ?? '']],
    ['a change of a site that is not there', (lines) => [...lines, (lines[1] ?? '').replace('"sites"', '"changes"')]],
    ['what is no row', (lines) => [...lines, 'null', '7', '[]', '"table"']],
    ['a site whose plan is broken', (lines) => lines.map((line) => line.replace('"list":"runs"', '"list":"needs"'))],
    ['a line that has no end', ([head = '']) => [head, `{"table":"sites","row":{"name":"${'x'.repeat(70_000_000)}"}}`]],
    ['nothing', () => []],
    ...(['person_sessions', 'invitations', 'site_keys', 'person_logins', 'guesses', 'used_questions'] as const).map(
      (table): [string, (lines: string[]) => string[]] => [
        `what opens accounts and sites (${table})`,
        (lines) => [...lines, rowOf('people', person()), rowOf(table, { person: 'p', digest: 'd' })],
      ],
    ),
    ['a passkey of nobody', (lines) => [...lines, rowOf('person_passkeys', { ...passkey(), person: 'nobody' })]],
    [
      'a right of nobody',
      (lines) => [...lines, rowOf('site_rights', { site_id: now.site, person: 'p', held: 'lead' })],
    ],
    ...(
      ['plain', '', '$argon2id$v=19$m=4194304,t=900,p=1$c2FsdHNhbHRzYWx0$aGFzaGhhc2hoYXNoaGFzaGhhc2hoYXNo', 7] as const
    ).map((password): [string, (lines: string[]) => string[]] => [
      `a password as none is kept (${password})`,
      (lines) => [...lines, rowOf('people', { ...person(), password })],
    ]),
    ['an account without a name', (lines) => [...lines, rowOf('people', { ...person(), name: ' \u0007' })]],
  ])('%s in one whose sum fits is refused in words, and nothing of it comes in', async (_what, spoil) => {
    const file = fresh()
    writeFileSync(file, gzipSync(sealed(spoil((await wholeLines()).slice(0, -2))), { level: 1 }))
    await expect(restore(empty.knex, file)).rejects.toThrow(Failure)
    await holdsNothing()
  })
  it('with accounts brings them back, also one of an earlier Hallway, and nobody is signed in', async () => {
    const file = fresh()
    const kept = await hashPassword('a phrase that is long enough')
    const lines = (await wholeLines()).slice(0, -2)
    const people = [
      rowOf('people', { ...person(), password: kept }),
      // it kept when a passkey was asked last
      rowOf('person_passkeys', { ...passkey(), asked: 1_700_000_000_000 }),
    ]
    writeFileSync(file, gzipSync(sealed([...lines, ...people]), { level: 1 }))
    await withEmptyDatabase(async (knex) => {
      await migrate(knex)
      await restore(knex, file)
      expect(await knex('people').pluck('name')).toEqual(['Pip'])
      expect(await knex('person_passkeys').pluck('name')).toEqual(['a phone'])
      expect(await knex('person_sessions')).toEqual([])
    })
  })
  it('tells how far it is, and never goes back', async () => {
    const told: [string, number][] = []
    await backUp(now.knex, fresh(), { progress: (doing, percent) => told.push([doing, percent]) })
    for (const doing of ['written', 'read again']) {
      const percents = told.filter(([each]) => each === doing).map(([, percent]) => percent)
      expect(percents.at(-1)).toBe(100)
      expect(percents).toEqual([...new Set(percents)].sort((one, other) => one - other))
    }
  })
  it('that is no gzip, or no file, is refused in words', async () => {
    const file = fresh()
    appendFileSync(file, 'hello')
    await expect(restore(empty.knex, file)).rejects.toThrow(/not a whole backup/)
    await expect(restore(empty.knex, join(folder, 'nothing'))).rejects.toThrow(/There is no file/)
    await holdsNothing()
  })
  it('on a disk without room says so, and leaves nothing behind', async () => {
    const file = fresh()
    symlinkSync('/dev/full', `${file}.part`)
    await expect(backUp(now.knex, file)).rejects.toThrow(/not enough room/)
    expect(existsSync(`${file}.part`)).toBe(false)
    expect(existsSync(file)).toBe(false)
  })
  it('that cannot be written leaves nothing behind', async () => {
    const file = join(folder, 'no', 'such', 'folder.gz')
    await expect(backUp(now.knex, file)).rejects.toThrow()
    expect(existsSync(`${file}.part`)).toBe(false)
  })
})
