import { readdirSync, readFileSync } from 'node:fs'
import { expect, it } from 'vitest'

// Checks of figures say where these are from by their shape (tests/support/figures.ts); beside them stands none that says nothing.

/** Rooms whose checks hold figures of the trade. */
const ROOMS = ['core/power', 'core/storage', 'core/headset', 'core/tunnel', 'core/placement']
const tests = (room: string): string[] =>
  readdirSync(room, { recursive: true, encoding: 'utf8' })
    .filter((file) => file.endsWith('.test.ts'))
    .map((file) => `${room}/${file}`)
const text = (file: string): string => readFileSync(file, 'utf8')
const usesMarks = (file: string): boolean => text(file).includes('tests/support/figures')

it('every check of a room that holds figures bears a mark', () => {
  expect(ROOMS.flatMap(tests).filter((file) => !usesMarks(file))).toEqual([])
})
it('where some checks bear a mark all do, and none says it in words alone', () => {
  const marked = ['core', 'app', 'server'].flatMap(tests).filter(usesMarks)
  expect(marked.length).toBeGreaterThan(15)
  for (const file of marked) {
    expect(text(file), file).not.toMatch(/\b(it|test)(\.each\(|\()/)
    expect(text(file), file).not.toMatch(
      /^\s*(ours|practice|remembered|publishedIn).*\((common practice|from memory|published)\)/m,
    )
  }
})
