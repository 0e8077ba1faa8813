import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import type { Plan } from '../plan/plan'
import { readPlanText } from '../plan/read'
import { indexPlan } from '../plan/site-index'
import type { Need } from '../vocabulary/need'
import { findPath } from './find-path'

const read = readPlanText(readFileSync('demo/saltmarsh.json', 'utf8'))
if (!read.ok) throw new Error('the demo plan has faults')
const demo = read.plan
const wayOf = (need: Partial<Need>, plan: Plan = demo) =>
  findPath(indexPlan(plan), { id: 'n', kind: 'data', rate: 1e6, ...need } as Need)?.map(
    ({ run, way }) => `${run.tag} ${way}`,
  )

describe('the way of a need', () => {
  it('leads over docks, hubs and extender ends, and knows which way each run is walked', () => {
    expect(wayOf({ from: 'gallery-laptop', to: 'gallery-log' })).toEqual(['R-09 down', 'R-11 down'])
    expect(wayOf({ from: 'helm', to: 'image-a' })).toEqual(['R-08 up', 'R-07 up', 'R-06 up'])
  })
  it('does not lead through a computer', () => {
    expect(wayOf({ from: 'view-1', to: 'view-2' })).toBeUndefined()
  })
  it('goes over no run twice, whatever is pinned', () => {
    const sensor = demo.runs.find(({ tag }) => tag === 'R-17')
    const ends = { from: sensor?.to.device, to: sensor?.from.device }
    expect(wayOf(ends)).toEqual(['R-17 up'])
    expect(wayOf({ ...ends, through: ['r-15'] })).toBeUndefined()
  })
  it('is none where nothing is laid', () => {
    expect(wayOf({ from: 'projector', to: 'replay' })).toBeUndefined()
  })
  it('takes the pinned run where there are two, and the first of the list where nothing is pinned', () => {
    const second = {
      ...(demo.runs[8] as Plan['runs'][number]),
      id: 'r-99',
      tag: 'R-99',
      from: { device: 'gallery-laptop', port: 'right' },
      leads: [],
    }
    const twin: Plan = { ...demo, runs: [...demo.runs, second] }
    const ends = { from: 'gallery-laptop', to: 'gallery-log' }
    expect(wayOf(ends, twin)).toEqual(['R-09 down', 'R-11 down'])
    expect(wayOf({ ...ends, through: ['r-99'] }, twin)).toEqual(['R-99 down', 'R-11 down'])
    expect(wayOf({ ...ends, through: ['r-11'] }, twin)).toEqual(['R-09 down', 'R-11 down'])
  })
  it('prefers runs that can carry the kind: a picture does not take the USB lead', () => {
    const usb = {
      ...(demo.runs[13] as Plan['runs'][number]),
      id: 'r-00',
      tag: 'R-00',
      from: { device: 'scoring-desk', port: 'a' },
      leads: [],
    }
    const both: Plan = { ...demo, runs: [usb, ...demo.runs] }
    const picture = {
      kind: 'picture',
      mode: { width: 1920, height: 1080, refresh: 60, bits: 8, chroma: '444' },
    } as Partial<Need>
    expect(wayOf({ ...picture, from: 'scoring-desk', to: 'scoring-view' }, both)).toEqual(['R-14 down'])
    expect(wayOf({ from: 'scoring-desk', to: 'scoring-view' }, both)).toEqual(['R-00 down'])
  })
})
