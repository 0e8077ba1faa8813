import { describe, expect, it } from 'vitest'
import { applyChange } from '../../../core/change/apply'
import type { ChangeToMake, Copy } from '../../../core/change/change'
import { deleteRun } from '../../../core/change/changes/run'
import { copyOf } from '../../../core/change/copy'
import { readSaid } from '../../../core/faults/said'
import { standingOfSearch } from '../../../core/faults/search'
import { seenIn } from '../../../core/faults/seen-in'
import { learntOfCable } from '../../../core/observe/learned'
import type { Plan } from '../../../core/plan/plan'
import { indexPlan } from '../../../core/plan/site-index'
import { ENDS } from '../../../core/vocabulary/search'
import type { Hand } from '../../../server/sites/change-site'
import { demo } from '../../../tests/support/demo-plan'
import { draftBegin, draftSearch } from './search-action.server'
import { sceneAt, searchIn, siteOf } from './search-view.server'

let sent = 0
const hand = (): Hand => {
  sent += 1
  return { by: 'Ada', id: `change-${sent}-made`, digest: '', over: null } as Hand
}
const formOf = (fields: Record<string, string | string[]>): FormData => {
  const form = new FormData()
  for (const [name, value] of Object.entries(fields)) for (const each of [value].flat()) form.append(name, each)
  return form
}
function taken(copy: Copy, made: ReturnType<typeof draftBegin>): Copy {
  if (made === null || 'outcome' in made) throw new Error(JSON.stringify(made))
  const applied = applyChange(copy, { edits: (made as ChangeToMake).edits })
  if (applied.outcome !== 'applied') throw new Error(JSON.stringify(applied))
  return applied.copy
}
const reasonOf = (made: ReturnType<typeof draftBegin>): string => {
  if (made === null || !('outcome' in made)) throw new Error('it was not refused')
  return JSON.stringify(made)
}
const start = copyOf({ ...demo, searches: [], observations: demo.observations.filter((each) => each.kind !== 'try') })
type Fields = Record<string, string | string[]>
const pastedIn = ({ pasted }: Fields) => (typeof pasted === 'string' ? readSaid(pasted) : null)
const beginWith = (copy: Copy, fields: Fields) => draftBegin(copy, formOf(fields), pastedIn(fields), hand())
const sendTo = (copy: Copy, fields: Fields, id = idOf(copy)) =>
  draftSearch(copy, id, formOf(fields), pastedIn(fields), hand())
const begun = (fields: Record<string, string | string[]>): Copy => taken(start, beginWith(start, fields))
const idOf = ({ plan }: Copy): string => plan.searches[0]?.id ?? ''
const send = (copy: Copy, fields: Record<string, string | string[]>): Copy => taken(copy, sendTo(copy, fields))
const standing = ({ plan }: Copy) => {
  const { search, run } = searchIn(plan, plan.searches[0]?.id)
  return standingOfSearch(sceneAt(siteOf(plan), run), search, seenIn(plan, search))
}
const oddsOf = (copy: Copy): Record<string, number> =>
  Object.fromEntries(standing(copy).groups.flatMap(({ causes }) => causes.map(({ key, odds }) => [key, odds])))

/** How often a lead was tried. */
const timesTried = (plan: Plan, cable: string): number =>
  (learntOfCable(indexPlan(plan).learned, cable)?.links ?? []).reduce((sum, { times }) => sum + times, 0)

describe('a search', () => {
  it('begins by what is chosen and by what a log says, and keeps the words it came from', () => {
    const copy = begun({
      run: 'r-12',
      symptom: 'slow copy',
      pasted: 'usb 4-2: USB disconnect, device number 7\nsomething else',
    })
    const { search } = searchIn(copy.plan, idOf(copy))
    expect(search).toMatchObject({ run: 'r-12', by: 'Ada' })
    expect(seenIn(copy.plan, search).symptoms.map(({ what, line }) => [what, line])).toEqual([
      ['drops', 'usb 4-2: USB disconnect, device number 7'],
      ['slow copy', undefined],
    ])
    const again = taken(copy, beginWith(copy, { run: 'R-12', symptom: 'usb2 only' }))
    expect(again.plan.searches).toHaveLength(1)
  })

  it('reads a listing of devices or displays as well, and makes a symptom only of what is less than planned', () => {
    const seenOf = (run: string, pasted: string) => {
      const copy = taken(start, beginWith(start, { run, symptom: 'drops', pasted }))
      return seenIn(copy.plan, searchIn(copy.plan, idOf(copy)).search).symptoms.flatMap(({ what }) => what ?? [])
    }
    expect(seenOf('r-12', 'Disk, speed: 480 Mb/s')).toContain('usb2 only')
    expect(seenOf('r-12', 'Disk, speed: 10 Gb/s')).toEqual(['drops'])
    expect(seenOf('r-20', 'HDMI-1 connected\n   1920x1080     30.00*  60.00')).toContain('low refresh')
    expect(seenOf('r-20', 'HDMI-1 connected\n   1280x720      60.00*')).toContain('fewer modes')
    expect(seenOf('r-20', 'HDMI-1 connected\n   1920x1080     59.94*')).toEqual(['drops'])
  })

  it('refuses in words what cannot be read, and what is no run', () => {
    expect(reasonOf(beginWith(start, { run: 'R-99', symptom: 'drops' }))).toContain('there is no run R-99')
    expect(reasonOf(beginWith(start, { run: 'r-12' }))).toContain('choose what you see')
    expect(reasonOf(beginWith(start, { run: 'r-12', pasted: 'nonsense' }))).toContain('no line of it')
  })

  it('is where it was before once a try is taken back', () => {
    const copy = begun({ run: 'r-12', symptom: 'drops' })
    const before = oddsOf(copy)
    const [next] = standing(copy).next
    const tried = send(copy, { intent: 'try', try: next?.key ?? '', outcome: next?.outcomes[0]?.name ?? '' })
    expect(oddsOf(tried)).not.toEqual(before)
    expect(standing(tried).next.some(({ key }) => key === next?.key)).toBe(false)
    const seen = seenIn(tried.plan, searchIn(tried.plan, idOf(tried)).search).tries[0]
    const back = send(tried, { intent: 'take-back', observation: seen?.id ?? '' })
    expect(oddsOf(back)).toEqual(before)
  })

  it('names the answer that does not fit the others', () => {
    let copy = begun({ run: 'r-12', symptom: 'drops' })
    copy = send(copy, { intent: 'try', try: 'another lead: c-0027', outcome: 'gone' })
    copy = send(copy, { intent: 'try', try: 'shorter lead', outcome: 'gone' })
    expect(standing(copy).misfit).toBeNull()
    copy = send(copy, { intent: 'try', try: 'other computer', outcome: 'gone' })
    copy = send(copy, { intent: 'try', try: 'reseat', outcome: 'same' })
    expect(standing(copy).misfit?.words).toBeTruthy()
  })

  it('tells of a lead that was put in that it held, and of one that was found to fail that it failed', () => {
    const copy = begun({ run: 'r-12', symptom: 'usb2 only' })
    const swap = standing(copy).next.find(({ name }) => name === 'another lead')
    if (!swap) throw new Error('the demo has a lead to swap in')
    const spare = copy.plan.cables.find(({ tag }) => tag === swap.with)?.id ?? ''
    const before = timesTried(copy.plan, spare)
    const tried = send(copy, { intent: 'try', try: swap.key, outcome: 'gone' })
    expect(timesTried(tried.plan, spare)).toBe(before + 1)
    const both = send(copy, { intent: 'try', try: swap.key, outcome: 'gone', also: 'restart' })
    expect(timesTried(both.plan, spare)).toBe(before)
    const cause = standing(tried).groups[0]?.causes[0]
    expect(cause?.part.id).toBe('c-0027')
    const found = send(tried, { intent: 'end', how: 'found', cause: cause?.key ?? '' })
    expect(found.plan.searches[0]?.ended).toMatchObject({ how: 'found', words: cause?.words })
    const links = learntOfCable(indexPlan(found.plan).learned, 'c-0027')?.links ?? []
    const at = links
      .map((series) => series.at)
      .sort()
      .at(-1)
    expect(links.find((series) => series.at === at)).toMatchObject({ cameUp: 'usb2' })
    expect(reasonOf(sendTo(found, { intent: 'try', try: swap.key, outcome: 'gone' }, idOf(found)))).toContain(
      'has ended',
    )
    const retired = send(found, { intent: 'retire', cable: 'c-0027' })
    expect(retired.plan.cables.find(({ id }) => id === 'c-0027')?.standing).toBe('retired')
    const open = send(found, { intent: 'reopen' })
    expect(open.plan.searches[0]?.ended).toBeUndefined()
  })

  it('says of a try that it no longer counts once the run has another lead', () => {
    const copy = send(begun({ run: 'r-12', symptom: 'drops' }), {
      intent: 'try',
      try: 'another lead: c-0027',
      outcome: 'same',
    })
    expect(standing(copy).outdated).toEqual([])
    const run = indexPlan(copy.plan).runs.get('r-12')
    if (!run) throw new Error('no run')
    const other: Copy = {
      ...copy,
      plan: { ...copy.plan, runs: copy.plan.runs.map((each) => (each.id === 'r-12' ? { ...run, leads: [] } : each)) },
    }
    expect(standing(other).outdated).toHaveLength(1)
  })

  it('lets nothing be tried before a stop is dealt with, and wants to know how', () => {
    const copy = begun({ run: 'r-12', symptom: 'wants format' })
    const asked = { intent: 'try', try: 'restart', outcome: 'gone' }
    expect(reasonOf(sendTo(copy, { ...asked, try: 'reseat' }, idOf(copy)))).toContain('not now')
    const clear = { intent: 'clear', stop: 'format', how: 'copied everything off it' }
    expect(reasonOf(sendTo(copy, clear, idOf(copy)))).toContain('say that it is so')
    expect(reasonOf(sendTo(copy, { ...clear, how: ' ', sure: 'on' }, idOf(copy)))).toContain('what was done')
    const cleared = send(copy, { ...clear, sure: 'on' })
    expect(standing(cleared).next.length).toBeGreaterThan(0)
    expect(() => send(cleared, { intent: 'try', try: 'reseat', outcome: 'gone' })).not.toThrow()
  })

  it('puts a new lead of the same kind in place of the old one, and says where nobody knows the kind', () => {
    const kind = demo.kinds[0]?.id ?? ''
    const cables = start.plan.cables.map((each) => (each.id === 'c-0027' ? { ...each, kind } : each))
    const known = copyOf({ ...start.plan, cables })
    const copy = taken(known, beginWith(known, { run: 'r-12', symptom: 'drops' }))
    const bought = send(copy, { intent: 'buy', cable: 'c-0027' })
    expect(indexPlan(bought.plan).runs.get('r-12')?.leads).toMatchObject([{ kind }])
    const unknown = begun({ run: 'r-12', symptom: 'drops' })
    expect(reasonOf(sendTo(unknown, { intent: 'buy', cable: 'c-0027' }))).toContain('which kind')
  })

  it('holds a figure against what can be expected, and makes it a symptom only where it is far less', () => {
    const copy = begun({ run: 'r-18', symptom: 'slow copy' })
    const symptoms = (of: Copy) => seenIn(of.plan, searchIn(of.plan, idOf(of)).search).symptoms.length
    expect(symptoms(send(copy, { intent: 'reading', measure: 'write', value: '5000' }))).toBe(1)
    expect(symptoms(send(copy, { intent: 'reading', measure: 'write', value: '12' }))).toBe(2)
    expect(reasonOf(sendTo(copy, { intent: 'reading', measure: 'write', value: 'fast' }, idOf(copy)))).toContain(
      'not a rate',
    )
  })

  it('ends in each of the ways there are, and goes with its run', () => {
    for (const how of ENDS) {
      const copy = begun({ run: 'r-12', symptom: 'drops' })
      const cause = standing(copy).groups[0]?.causes[0]?.key ?? ''
      const ended = send(copy, { intent: 'end', how, cause, watch: 'on' })
      expect(ended.plan.searches[0]?.ended?.how).toBe(how)
      expect(ended.plan.soaks.some((soak) => 'run' in soak && soak.run === 'r-12')).toBe(how === 'went away')
      const gone = taken(ended, deleteRun(ended.plan, ended.place, indexPlan(ended.plan).runs.get('r-12') as never))
      expect(gone.plan.searches).toEqual([])
      expect(reasonOf(sendTo(gone, { intent: 'tell', symptom: 'drops' }, idOf(ended)))).toContain('removed')
    }
  })
})
