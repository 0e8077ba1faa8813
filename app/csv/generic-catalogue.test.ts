import { expect, it } from 'vitest'
import { genericCatalogue } from './generic-catalogue'

it('the catalogue that ships with Hallway reads without a fault, and every kind has lengths with prices', () => {
  const { kinds, bad } = genericCatalogue()
  expect(bad).toEqual([])
  expect(kinds.length).toBeGreaterThan(15)
  for (const { name, stock, leadDays } of kinds) {
    expect([name, stock.length > 0, stock.every(({ price }) => price > 0), leadDays !== undefined]).toEqual([
      name,
      true,
      true,
      true,
    ])
  }
})
