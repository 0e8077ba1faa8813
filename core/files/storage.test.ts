import { expect, it } from 'vitest'
import { MOST_FILE_BYTES } from './file-types'
import { isNearlyFull, megabytes, storedOf, storedWords } from './storage'

it('says how much there is, and how much there may be', () => {
  const [plan, , files] = storedOf({ bytes: 431_000, grown: 0, files: 163_900_000 })
  expect(plan && storedWords(plan)).toBe('0.4 of 16 MB')
  expect(files && storedWords(files)).toBe('163 of 200 MB')
})
it('is nearly full from four fifths on, to the byte', () => {
  const at = (files: number) => storedOf({ bytes: 0, grown: 0, files }).some(isNearlyFull)
  expect(at(0.8 * MOST_FILE_BYTES)).toBe(true)
  expect(at(0.8 * MOST_FILE_BYTES - 1)).toBe(false)
})
it('never rounds up to what is not there yet', () => {
  expect(megabytes(199_999_999)).toBe('199')
  expect(megabytes(9_990_000)).toBe('9.9')
  expect(megabytes(0)).toBe('0')
  expect(megabytes(1)).toBe('under 0.1')
  expect(megabytes(100_000)).toBe('0.1')
})
