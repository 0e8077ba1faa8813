import { expect, it } from 'vitest'
import { standardTables } from './tables'

it('docs/tables.md has every reach, rate and power table of the code (npm run schema writes it anew)', async () => {
  await expect(standardTables()).toMatchFileSnapshot('../../docs/tables.md')
})
it('names a source and its standing in every row', () => {
  const rows = standardTables()
    .split('\n')
    .filter((line) => line.startsWith('| ') && !/^\| (link|rating|port|ends|---)/.test(line))
  expect(rows.length).toBeGreaterThan(80)
  for (const row of rows) expect(row).toMatch(/\((published|common practice|from memory)\) \|$/)
  // what is remembered is looked up where something can be found that says the same
  expect(rows.filter((row) => row.includes('(from memory)')).length).toBeLessThanOrEqual(60)
})
