import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { cases } from '../../tests/support/laws'
import { madeUpCopy, many } from '../../tests/support/made-up-walk'
import { editsBetween } from '../change/edits-between'
import { emptyPlan, type Plan } from '../plan/plan'
import { readPlan } from '../plan/read'
import { laidCables, type Run } from '../vocabulary/run'
import { readSurveyTable, SURVEY_TABLES, type SurveyRead, type SurveyTable, surveyRows } from './tables'

function read(plan: Plan, table: SurveyTable, rows: readonly (readonly string[])[]): SurveyRead {
  const [headers = [], ...rest] = rows
  const answer = readSurveyTable(table, headers, rest, plan, 'm')
  if (!answer.ok) throw new Error(answer.problem)
  return answer.value
}

describe('tables of a survey', () => {
  it('that go out and in again change nothing, whatever the site', () => {
    fc.assert(
      fc.property(many, (changes) => {
        const { plan } = madeUpCopy(changes)
        for (const table of SURVEY_TABLES) {
          const back = read(plan, table, surveyRows(plan, table))
          expect(back.bad, table).toEqual([])
          expect(editsBetween(plan, back.plan, 1), table).toEqual([])
        }
      }),
      { numRuns: cases(25) },
    )
  })
  it('tell needs of one name apart, and keep what two of them ask', () => {
    const [need] = demo.needs
    if (!need) throw new Error('the demo has needs')
    const twice: Plan = { ...demo, needs: [...demo.needs, { ...need, id: 'the-other', priority: 3 }] }
    const back = read(twice, 'needs', surveyRows(twice, 'needs'))
    expect(back.bad).toEqual([])
    expect(editsBetween(twice, back.plan, 1)).toEqual([])
  })
  it('make the same site anew, one after the other', () => {
    let made: Plan = { ...emptyPlan({ id: 's', name: 'S' }), floors: demo.floors, kinds: demo.kinds, cables: [] }
    for (const table of SURVEY_TABLES) {
      const rows = surveyRows(demo, table)
      // the drawer has a table of its own
      const cable = rows[0]?.indexOf('cable') ?? -1
      const back = read(made, table, cable < 0 ? rows : rows.map((row, at) => (at === 0 ? row : row.with(cable, ''))))
      expect(back.bad).toEqual([])
      made = back.plan
    }
    expect(readPlan(made).ok).toBe(true)
    for (const table of SURVEY_TABLES) {
      const out = surveyRows(made, table)
      const cable = out[0]?.indexOf('cable') ?? -1
      const wanted = surveyRows(demo, table)
      expect(cable < 0 ? out : out.map((row) => row.toSpliced(cable, 1))).toEqual(
        cable < 0 ? wanted : wanted.map((row) => row.toSpliced(cable, 1)),
      )
    }
  })
  it('say of each row that cannot come in what is wrong, and take the others', () => {
    const back = read(demo, 'runs', [
      ['Tag', 'from device', 'from_port', 'to device', 'to port', 'length'],
      ['R-90', 'Deck computer', 'nowhere', 'Projector', 'hdmi', '2 m'],
      ['R-91', 'Nobody', 'x', 'Projector', 'hdmi', '2 m'],
      ['R-92', 'Image computer A', 'DisplayPort 1', 'Bridge view 2, port bow', 'dp', 'down 0.7, tray 6'],
      ['R-93', 'Image computer A', 'DisplayPort 1', 'Image computer A', 'DisplayPort 1', '2 m'],
      ['', 'Image computer A', 'DisplayPort 1', 'Image computer A', 'DisplayPort 1', '2 m'],
    ])
    expect(back.bad.map(({ line, problem }) => [line, problem.split(':')[0]])).toEqual([
      [2, 'from port of Deck computer'],
      [3, 'from device'],
      [5, 'to'],
      [6, 'tag'],
    ])
    expect(back.plan.runs.at(-1)).toMatchObject({
      tag: 'R-92',
      route: { length: 6.7, legs: [{ by: 'down' }, { by: 'tray' }] },
    })
  })
  it('without a column that is needed are refused with what they should have', () => {
    expect(readSurveyTable('needs', ['from', 'to'], [['a', 'b']], demo, 'm')).toMatchObject({
      ok: false,
      problem: expect.stringContaining('"kind", "size"'),
    })
  })
  it('lay leads by two columns, in chains and in swaps, and leave what an empty cell does not say', () => {
    const laid = demo.runs.filter(({ leads }) => leads.length === 1 && leads.every((lead) => 'cable' in lead))
    const tagOf = (run: Run | undefined): string => {
      const [id] = run ? laidCables(run) : []
      return demo.cables.find((cable) => cable.id === id)?.tag ?? ''
    }
    fc.assert(
      fc.property(fc.shuffledSubarray(laid, { minLength: 2, maxLength: 6 }), (some) => {
        // each takes the lead of the next, the last that of the first
        const rows = some.map((run, at) => [run.tag, tagOf(some[(at + 1) % some.length])])
        const back = read(demo, 'runs', [['Run', 'Cable'], ...rows])
        expect(back.bad).toEqual([])
        for (const [at, { id }] of some.entries()) {
          const now = back.plan.runs.find((run) => run.id === id)
          const was = demo.runs.find((run) => run.id === id)
          expect(tagOf(now)).toBe(tagOf(some[(at + 1) % some.length]))
          expect({ ...now, leads: [] }).toEqual({ ...was, leads: [] })
        }
        expect(readPlan(back.plan).ok).toBe(true)
      }),
    )
    const [run] = laid
    if (!run) throw new Error('the demo has a laid run')
    expect(
      editsBetween(
        demo,
        read(demo, 'runs', [
          ['run', 'lead'],
          [run.tag, ''],
        ]).plan,
        1,
      ),
    ).toEqual([])
    expect(
      read(demo, 'runs', [
        ['run', 'lead'],
        [run.tag, 'none'],
      ]).plan.runs.find(({ id }) => id === run.id)?.leads,
    ).toEqual([])
    // where one row is wrong, no other run loses its lead for it
    const [other] = laid.slice(1)
    const wrong = read(demo, 'runs', [
      ['run', 'lead'],
      [run.tag, 'C-9999'],
      [other?.tag ?? '', tagOf(run)],
    ])
    expect(wrong.bad.map(({ line }) => line)).toEqual([2, 3])
    expect(editsBetween(demo, wrong.plan, 1)).toEqual([])
  })
  it('change what they name and leave what they do not', () => {
    const back = read(demo, 'devices', [
      ['name', 'kind', 'note'],
      ['Helm panel', 'other', 'new feet'],
    ])
    const was = demo.devices.find(({ name }) => name === 'Helm panel')
    expect(back.plan.devices.find(({ name }) => name === 'Helm panel')).toEqual({ ...was, note: 'new feet' })
    const ports = read(demo, 'ports', [
      ['device', 'port'],
      ['Helm panel', 'spare: type-A host 5g'],
    ])
    expect(ports.plan.devices.find(({ name }) => name === 'Helm panel')?.ports).toHaveLength(
      (was?.ports.length ?? 0) + 1,
    )
  })
  it('have as many rows as a site may have', () => {
    const rows = Array.from({ length: 2000 }, (_, at) => [`Desk ${at}`, 'yes'])
    expect(read(emptyPlan({ id: 's', name: 'S' }), 'places', [['name', 'mains'], ...rows]).plan.places).toHaveLength(
      2000,
    )
    const more = read(emptyPlan({ id: 's', name: 'S' }), 'places', [['name', 'mains'], ...rows, ['One more', 'yes']])
    expect(more.bad).toMatchObject([{ problem: 'a site has at most 2000 places' }])
  })
})
