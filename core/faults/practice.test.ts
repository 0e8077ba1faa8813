import { describe, expect, it } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { assessAnew } from '../checks/assess'
import { situationOf } from '../checks/situation'
import { observationSchema } from '../observe/observation'
import { MEGABYTE_PER_SECOND } from '../quantity/rate'
import type { Symptom } from '../vocabulary/search'
import { type CauseName, causesOf } from './causes'
import { symptomEvidence } from './evidence'
import { factKey, readLog } from './log-lines'
import { ladderOfCopy } from './nothing-wrong'
import { posterior } from './odds'
import { sceneOf } from './scene'

const { index, walks } = assessAnew(demo)
const sceneAt = (id: string) => {
  const run = index.runs.get(id)
  if (!run) throw new Error(`no run ${id}`)
  return sceneOf({ index, crossings: walks.crossings.get(id) ?? [], blocked: [] }, run)
}

/** Names of causes by how likely they are once some symptoms are seen at a run, the likeliest first. */
function ranked(run: string, symptoms: readonly Symptom[]): CauseName[] {
  const causes = causesOf(sceneAt(run))
  const shares = posterior(
    causes.map(({ odds }) => odds),
    symptoms.map((symptom) => symptomEvidence(causes, symptom, 'seen')),
  )
  return causes
    .map(({ name }, at) => ({ name, share: shares[at] ?? 0 }))
    .sort((one, other) => other.share - one.share)
    .map(({ name }) => name)
}

/** What people say lies behind a symptom (common practice): it is among the first causes of a run where it can be. */
describe('what lies behind a symptom, as practitioners have it', () => {
  const pairs: [string, string, Symptom[], CauseName][] = [
    ['charges but nothing else: a charging lead', 'r-17', ['charges only'], 'lesser lead'],
    ['comes up as USB 2.0: the lead', 'r-12', ['usb2 only'], 'lesser lead'],
    ['works only with others unplugged: they share a controller', 'r-12', ['alone only'], 'busy controller'],
    ['nothing new appears after years: stale drivers', 'r-15', ['nothing new appears'], 'stale driver'],
    ['the second display only at 30 Hz: the first holds too much', 'r-11', ['low refresh'], 'first picture'],
    ['a blurred picture: a mode or scaling matter', 'r-20', ['blurred'], 'mode not chosen'],
    ['a disk asks to be formatted: its files', 'r-12', ['wants format'], 'damaged files'],
    ['charges slowly: a weak or shared charger', 'r-13', ['charges slowly'], 'weak charger'],
    ['a plug that is hot: a bad contact in the lead', 'r-13', ['hot'], 'short circuit'],
    ['only wakes on an old charger', 'r-13', ['wakes on old charger', 'no power'], 'no resistors'],
    ['drops after a minute: a lead near its limit, or worn', 'r-06', ['drops'], 'worn lead'],
    ['copies below the rating: the drive itself', 'r-18', ['slow copy'], 'slow drive'],
  ]
  for (const [what, run, symptoms, cause] of pairs)
    it(what, () => expect(ranked(run, symptoms).slice(0, 4)).toContain(cause))
})

describe('a log', () => {
  it('is read line by line, each fact with the words it came from, and the rest is passed over', () => {
    const read = readLog(
      [
        '[ 1201.332] usb 2-1: new high-speed USB device number 9 using xhci_hcd',
        '[ 1201.900] usb 2-1: device descriptor read/64, error -71',
        '[ 1202.001] usb 2-1: device not accepting address 9, error -71',
        '[ 1202.002] eth0: link is up',
        '',
        'Another program speaks here.',
      ].join('\n'),
    )
    expect(read.facts.map(({ fact, times }) => [factKey(fact), times])).toEqual([
      ['came up usb2', 1],
      ['not detected', 2],
    ])
    expect(read.facts[1]?.lines[0]).toContain('device descriptor read/64')
    expect(read.passedOver).toEqual(['[ 1202.002] eth0: link is up', 'Another program speaks here.'])
    expect(read).toMatchObject({ read: 5, passed: 2, cut: false })
  })

  it('is read as far as it goes when it is cut, in another language or without end', () => {
    expect(readLog('usb 1-1: device not accep').facts).toEqual([])
    expect(readLog('Das Gerät wurde nicht erkannt.').facts).toEqual([])
    const long = 'usb 4-2: USB disconnect, device number 7\n'.repeat(250_000)
    const read = readLog(long)
    expect(read.facts).toHaveLength(1)
    expect(read.cut).toBe(true)
    expect(readLog('x'.repeat(10_000_000)).facts).toEqual([])
  })

  it('guesses nothing from words that only sound alike', () => {
    for (const line of ['the over-currency of the project', 'a disk was formatted last year', 'no signals were harmed'])
      expect(readLog(line).facts).toEqual([])
  })
})

describe('a figure held against what can be expected', () => {
  const [run] = [sceneAt('r-18')]
  const situation = situationOf(index, run.run, run.crossings)
  const ladder = (megabytes: number) => {
    const [crossing] = situation.crossings
    const made = crossing && ladderOfCopy(situation, crossing, 'write', megabytes * MEGABYTE_PER_SECOND)
    if (!made) throw new Error('a storage run has a ladder')
    return made
  }

  it('is walked down from the box: 40 Gb/s, 5000 MB/s, four lanes of PCIe 3, 20 to 25 % (common practice: about 3000 to 3200)', () => {
    expect(ladder(3000).steps.map(({ figure }) => figure)).toEqual([
      '5000 MB/s',
      '4848 MB/s',
      '3938 MB/s',
      '20 to 25 %',
      '6000 MB/s',
      '2954 MB/s to 3151 MB/s',
    ])
  })

  it('is what it should be exactly at the low end, less below it, and wrong far below', () => {
    const verdicts = [5000, 3151, 2954, 2953, 2364, 2362, 40].map((each) => ladder(each).verdict)
    expect(verdicts).toEqual(['more', 'as it should', 'as it should', 'less', 'less', 'far less', 'far less'])
  })
})

it("a kind that failed at this site is suspected sooner, and one that held later: the site's own record outweighs what is usual", () => {
  const run = index.runs.get('r-12')
  const [lead] = run?.leads ?? []
  const own = lead && 'cable' in lead ? index.cables.get(lead.cable) : undefined
  const kind = demo.kinds[0]?.id
  if (!run || !own || !kind) throw new Error('R-12 has a lead')
  const { planned } = sceneAt('r-12')
  const oddsWith = (cameUp: typeof planned): number => {
    const others = Array.from({ length: 8 }, (_, at) => ({ ...own, kind, id: `like-${at}`, tag: `L-${at}` }))
    const seen = others.map(({ id }, at) =>
      observationSchema.parse({
        id: `like-seen-${at}`,
        at: '2026-10-01T10:00:00.000Z',
        subject: { cable: id },
        kind: 'trial',
        basis: 'soaked',
        tried: planned,
        cameUp,
        seconds: 90,
      }),
    )
    const made = {
      ...demo,
      cables: [...demo.cables.map((each) => (each.id === own.id ? { ...own, kind } : each)), ...others],
      observations: [...demo.observations, ...seen],
    }
    const site = assessAnew(made)
    const scene = sceneOf({ index: site.index, crossings: site.walks.crossings.get('r-12') ?? [], blocked: [] }, run)
    return causesOf(scene).find(({ name }) => name === 'worn lead')?.odds ?? 0
  }
  const usual = causesOf(sceneAt('r-12')).find(({ name }) => name === 'worn lead')?.odds ?? 0
  expect(oddsWith('usb2')).toBeGreaterThan(1.5 * usual)
  expect(oddsWith(planned)).toBeLessThan(usual)
})
