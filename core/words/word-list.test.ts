import { expect, it } from 'vitest'
import { WORDS, wordsDocument } from './word-list'

it('docs/words.md is the list that the page shows (npm run schema writes it anew)', async () => {
  await expect(wordsDocument()).toMatchFileSnapshot('../../docs/words.md')
})

it('every word is explained once, in a sentence of 25 words at most', () => {
  expect(new Set(WORDS.map(({ word }) => word)).size).toBe(WORDS.length)
  for (const { word, means } of WORDS) expect(means.split(' ').length, word).toBeLessThanOrEqual(25)
})
