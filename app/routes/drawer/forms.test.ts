import { parseWithZod } from '@conform-to/zod/v4'
import { describe, expect, it } from 'vitest'
import { demo } from '../../../tests/support/demo-plan'
import { genericCatalogue } from '../../csv/generic-catalogue'
import { importContext, mappingFrom, previewOf, readImport } from '../../csv/preview'
import { cableFormSchema, nextTag, readCable, textsOfCable } from './cable-form'
import { cableWithChip, chipEvidence, chipForm, readPasted, wordsOf } from './chip-form'
import { kindFormSchema, readKind, textsOfKind } from './kind-form'
import { sessionFormSchema, textsOfTest } from './session-form'

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
        const read = parseWithZod(posted(textsOfCable(before, unit)), { schema: cableFormSchema(unit) })
        if (read.status !== 'success') throw new Error(`${before.tag}: ${JSON.stringify(read.error)}`)
        const { cable, learned } = readCable(read.value, before, { id: 'new', today: '2026-01-01' })
        expect({ ...cable, evidence: before.evidence }).toEqual(before)
        expect(learned).toEqual([])
      }
    },
  )
  it('a mark that is new or put right is added to the evidence', () => {
    const [before] = demo.cables
    if (!before) throw new Error('no cable')
    const texts = { ...textsOfCable(before, 'm'), mark: 'usb4-80', power: '240 W' }
    const read = parseWithZod(posted(texts), { schema: cableFormSchema('m') })
    if (read.status !== 'success') throw new Error('not read')
    expect(readCable(read.value, before, { id: 'new', today: '2026-01-01' }).learned).toEqual([
      { basis: 'claimed', on: '2026-01-01', grade: 'usb4-80', amps: 5, volts: 50 },
    ])
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
    for (const kind of genericCatalogue().kinds) {
      const read = parseWithZod(posted(textsOfKind(kind)), { schema: kindFormSchema })
      if (read.status !== 'success') throw new Error(`${kind.name}: ${JSON.stringify(read.error)}`)
      expect(readKind(read.value, kind.id)).toEqual(kind)
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
    const sent = chipForm.parse({ tag: 'N-1', length: '3 ft', words: wordsOf(words), revision: '3' })
    expect(sent).toMatchObject({ tag: 'N-1', chip: words })
    const evidence = chipEvidence(words, '2026-01-01')
    expect(evidence).toEqual({ basis: 'chip', on: '2026-01-01', grade: 'usb2', amps: 3, words: text.split(' ') })
    const cable = cableWithChip(demo, 'C-0001', sent.length ?? 0, words, evidence)
    expect(cable).toMatchObject({ id: 'c-0001-2', construction: 'passive', evidence: [evidence] })
  })
  it('is taken for a folder where it has the lines of one, and refused in words where it is neither', () => {
    const lines = 'port0-cable/identity/id_header:0x1800abcd\nport0-cable/identity/product:0x1\n'
    expect(readPasted(lines, 3)).toMatchObject({ ok: true, value: [{ port: 'port0' }] })
    expect(readPasted('hello', 3)).toMatchObject({ ok: false })
    expect(chipForm.safeParse({ tag: 'N-1', words: '12', revision: '3' }).success).toBe(false)
  })
})

describe('a table, as the page and the server read it', () => {
  const context = importContext(demo, '2026-01-01')
  const read = (text: string, mapping = null) => readImport(new TextEncoder().encode(text), mapping, context)
  it('gives ids that are free, and shows some of many rows', () => {
    const lines = Array.from({ length: 120 }, (_, at) => `N ${at % 100},C,C,${at < 110 ? '1 m' : 'far'}`)
    const whole = read(`tag,first end,second end,length\n${lines.join('\n')}\n`)
    if (!whole.ok) throw new Error(whole.problem)
    expect([whole.value.good.length, whole.value.bad.length]).toEqual([100, 20])
    const preview = previewOf(whole.value)
    expect([preview.good.count, preview.good.first.length, preview.bad.count]).toEqual([100, 50, 20])
    expect(new Set(whole.value.good.map(({ cable }) => cable.id)).size).toBe(100)
  })
  it('takes the columns a form names, and none where it names none', () => {
    expect(mappingFrom(posted({ 'column-tag': '2', 'column-first-end': '0', 'column-note': '' }))).toEqual({
      tag: 2,
      'first end': 0,
    })
    expect(mappingFrom(posted({ 'column-tag': 'x' }))).toBeNull()
  })
})
