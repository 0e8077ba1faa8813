import { parseWithZod } from '@conform-to/zod/v4'
import { describe, expect, it } from 'vitest'
import { learnedOf, learntOfCable } from '../../../core/observe/learned'
import { nextTag } from '../../../core/plan/next-tag'
import { demo } from '../../../tests/support/demo-plan'
import { genericCatalogue } from '../../csv/generic-catalogue'
import { importContext, mappingFrom, NOTHING_CHOSEN, previewOf, readImport } from '../../csv/preview'
import { cableFormSchema, readCable, textsOfCable } from './cable/cable-form'
import { kindFormSchema, readKind, textsOfKind } from './catalogue/kind-form'
import { cableWithChip, chipForm, chipStatement, readPasted, wordsOf } from './chip/chip-form'
import { sessionFormSchema, textsOfTest } from './session/session-form'

/** Posts texts as a browser would: a field left empty is an empty text, a box not ticked is nothing. */
function posted(texts: Record<string, string | undefined>): FormData {
  const form = new FormData()
  for (const [name, value] of Object.entries(texts)) if (value !== undefined) form.append(name, value)
  return form
}

describe('the form of a cable', () => {
  it.each(['m', 'ft'] as const)(
    'every cable of the demo reads back as it was, in %s, and teaches nothing new',
    (unit) => {
      for (const before of demo.cables) {
        const learnt = learntOfCable(learnedOf(demo), before.id)
        const read = parseWithZod(posted(textsOfCable(before, learnt, unit)), { schema: cableFormSchema(unit) })
        if (read.status !== 'success') throw new Error(`${before.tag}: ${JSON.stringify(read.error)}`)
        const { cable, marks } = readCable(read.value, before, learnt, 'new')
        expect(cable).toEqual(before)
        expect(marks).toEqual([])
      }
    },
  )
  it('a mark that is new or put right is said, and one that is cleared is said to be none', () => {
    const [before] = demo.cables
    if (!before) throw new Error('no cable')
    const learnt = learntOfCable(learnedOf(demo), before.id)
    const marksOf = (more: object) => {
      const texts = { ...textsOfCable(before, learnt, 'm'), ...more }
      const read = parseWithZod(posted(texts), { schema: cableFormSchema('m') })
      if (read.status !== 'success') throw new Error('not read')
      return readCable(read.value, before, learnt, 'new').marks
    }
    const mark = { kind: 'statement', basis: 'claimed' }
    expect(marksOf({ mark: 'usb4-80', power: '240 W' })).toEqual([{ ...mark, grade: 'usb4-80', amps: 5, volts: 50 }])
    expect(marksOf({ mark: '' })).toEqual([{ ...mark, grade: null }])
  })
  it('says beside each field what is wrong with it', () => {
    const read = parseWithZod(posted({ tag: '', length: 'long', thickness: '90', awg: 'x' }), {
      schema: cableFormSchema('m'),
    })
    expect(read.reply().error).toEqual({
      tag: ['Give the cable a tag, such as C-0042.'],
      first: ['Choose the connector at the first end.'],
      second: ['Choose the connector at the second end.'],
      length: [expect.stringContaining('"long" is not a length')],
      thickness: ['A thickness lies between 0.5 and 50 mm.'],
      awg: ['A gauge lies between 0 and 40.'],
    })
  })
  it.each([
    [['C-0009', 'C-0050', 'spare'], 'C-0051'],
    [['A 9'], 'A 10'],
    [[], 'C-0001'],
  ])('after %j comes %s', (tags, next) => expect(nextTag(tags)).toBe(next))
})

describe('the form of a kind', () => {
  it('every kind of the generic catalogue reads back as it was', () => {
    const on = '2026-11-01'
    const rich = { wantsPrice: 9.5, cord: 1.8, avoid: { why: 'ran hot twice', on } }
    const kinds = genericCatalogue().kinds.flatMap((kind) => [kind, { ...kind, ...rich }])
    for (const kind of kinds) {
      for (const unit of ['m', 'ft'] as const) {
        const read = parseWithZod(posted(textsOfKind(kind, unit)), { schema: kindFormSchema(unit) })
        if (read.status !== 'success') throw new Error(`${kind.name}: ${JSON.stringify(read.error)}`)
        // in either unit: a stock length that nobody touched is not rounded
        expect(readKind(read.value, kind.id, on, kind)).toEqual(kind)
      }
    }
  })
})

describe('the form of a session', () => {
  const [session] = demo.sessions
  if (!session) throw new Error('no session')
  const fields = (tests: readonly object[]) => {
    const form = posted({ name: 'Sort' })
    for (const cable of session.cables) form.append('cables', cable)
    for (const [at, test] of tests.entries())
      for (const [name, value] of Object.entries(test)) form.append(`tests[${at}].${name}`, value)
    return parseWithZod(form, { schema: sessionFormSchema })
  }
  it('tests read back as they were', () => {
    const picture = { kind: 'picture', from: 'image-a/dp-1', to: 'view-1/dp', figure: '2560x1440@75 10 bit' }
    const volts = { kind: 'volts lost', from: 'image-a/dp-1', to: 'view-1/dp', figure: '' }
    const read = fields([...session.tests.map(textsOfTest), picture, volts])
    if (read.status !== 'success') throw new Error(JSON.stringify(read.error))
    expect(read.value.cables).toEqual(session.cables)
    expect(read.value.tests.slice(0, 5)).toEqual(session.tests.map(({ id: _, ...test }) => test))
    expect(read.value.tests.slice(5)).toMatchObject([{ mode: { width: 2560, refresh: 75, bits: 10 } }, { amps: 3 }])
  })
  it('says which figure of which test is wrong', () => {
    const ends = { from: 'image-a/dp-1', to: 'view-1/dp' }
    const read = fields([
      { kind: 'link', ...ends, figure: 'long' },
      { kind: 'volts lost', ...ends, figure: '9' },
      { kind: 'warmth', from: '', to: 'view-1/dp' },
    ])
    expect(Object.keys(read.reply().error ?? {})).toEqual(['tests[0].figure', 'tests[1].figure', 'tests[2].from'])
    expect(fields([]).reply().error).toMatchObject({ tests: ['Add at least one test.'] })
  })
})

describe('what a chip says, as it is sent', () => {
  const text = '0x1800abcd 0x00000000 0x00420100 0x00082020'
  it('goes out and comes back as the same words, and onto a cable of its own', () => {
    const pasted = readPasted(text, 3)
    if (!pasted.ok || !pasted.value[0]) throw new Error('not read')
    const [{ words }] = pasted.value as [(typeof pasted.value)[0]]
    expect(wordsOf(words)).toBe(text)
    const sent = chipForm('m').parse({ tag: 'N-1', length: '3 ft', words: wordsOf(words), revision: '3' })
    expect(sent).toMatchObject({ tag: 'N-1', chip: words })
    expect(chipStatement(words)).toEqual({
      kind: 'statement',
      basis: 'chip',
      grade: 'usb2',
      amps: 3,
      words: text.split(' '),
    })
    const cable = cableWithChip(demo, 'C-0001', sent.length ?? 0, words)
    expect(cable).toMatchObject({ id: 'c-0001-2', construction: 'passive' })
  })
  it('is taken for a folder where it has the lines of one, and refused in words where it is neither', () => {
    const lines = 'port0-cable/identity/id_header:0x1800abcd\nport0-cable/identity/product:0x1\n'
    expect(readPasted(lines, 3)).toMatchObject({ ok: true, value: [{ port: 'port0' }] })
    expect(readPasted('hello', 3)).toMatchObject({ ok: false })
    expect(chipForm('m').safeParse({ tag: 'N-1', words: '12', revision: '3' }).success).toBe(false)
  })
})

describe('a table, as the page and the server read it', () => {
  const context = importContext(demo, 'm')
  const read = (text: string, chosen = NOTHING_CHOSEN) => readImport(new TextEncoder().encode(text), chosen, context)
  it('gives ids that are free, and shows some of many rows', async () => {
    const lines = Array.from({ length: 120 }, (_, at) => `N ${at % 100},C,C,${at < 110 ? '1 m' : 'far'}`)
    const whole = await read(`tag,first end,second end,length\n${lines.join('\n')}\n`)
    if (!whole.ok) throw new Error(whole.problem)
    expect([whole.value.good.length, whole.value.bad.length]).toEqual([100, 20])
    const preview = previewOf(whole.value)
    expect([preview.good.count, preview.good.first.length, preview.bad.count]).toEqual([100, 50, 20])
    expect(new Set(whole.value.good.map(({ cable }) => cable.id)).size).toBe(100)
  })
  it('takes the columns a form names, and none where it names none', async () => {
    expect(mappingFrom(posted({ 'column-tag': '2', 'column-first-end': '0', 'column-note': '' }))).toEqual({
      tag: 2,
      'first end': 0,
    })
    expect(mappingFrom(posted({ 'column-tag': 'x' }))).toBeNull()
  })
})
