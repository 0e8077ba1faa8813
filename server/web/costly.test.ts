import { describe, expect, it } from 'vitest'
import { pointsOf } from './costly'

const get = (path: string) => pointsOf({ method: 'GET', path, bytes: 0 })
const post = (path: string, bytes = 0) => pointsOf({ method: 'POST', path, bytes })

describe('what a request costs', () => {
  it.each([
    '/sites/x/plan.zip',
    '/sites/x/plan.zip/',
    '/SITES/X/PLAN.ZIP',
    '/sites/x/plan.zip.data',
    '/sites/x/Plan.Zip.Data',
    '/sites/x/plan.zip.data/',
    '//sites//x/plan.zip',
  ])('is the same however it is written: %s', (path) => {
    expect(get(path)).toBe(get('/sites/x/plan.zip'))
    expect(pointsOf({ method: 'HEAD', path, bytes: 0 })).toBe(get(path))
    expect(get(path)).toBeGreaterThan(0)
  })
  it.each([
    '/',
    '/sites/x',
    '/sites/x.data',
    '/sites/x/survey/dock.data',
    '/sites/x/floors/ground.data',
    '/sites/x/drawer/catalogue.data',
    '/sites/x/tables.data',
    '/import.data',
    '/sites/x/copy',
    '/sites/x/live',
  ])('is nothing for a page and what it is made of: %s', (path) => {
    expect(get(path)).toBe(0)
  })
  it('grows with what is sent', () => {
    expect(post('/import', 0)).toBe(2)
    expect(post('/import', 200_000_000)).toBe(202)
    expect(post('/sites/x/walk.data', 4_000_000)).toBe(9)
    expect(post('/sites/x/runs/y', 100_000)).toBe(0)
  })
})
