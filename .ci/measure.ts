import { execFileSync } from 'node:child_process'
import { readFileSync } from 'node:fs'

/** How much of the code is tests: lines that hold code, in the files git knows. The aim is a quarter to a third. */

const files = execFileSync('git', ['ls-files', '--cached', '--others', '--exclude-standard'], { encoding: 'utf8' })
  .split('\n')
  .filter((file) => /\.(ts|tsx|cjs)$/.test(file))

const isTest = (file: string): boolean => file.startsWith('tests/') || /\.test\.ts$/.test(file)
const codeLines = (file: string): number =>
  readFileSync(file, 'utf8')
    .split('\n')
    .filter((line) => line.trim() !== '' && !/^\s*(\/\/|\/\*|\*)/.test(line)).length

const rooms = new Map<string, { code: number; tests: number }>()
for (const file of files) {
  const room = file.includes('/') ? (file.split('/')[0] ?? '') : '(top)'
  const counted = rooms.get(room) ?? { code: 0, tests: 0 }
  counted[isTest(file) ? 'tests' : 'code'] += codeLines(file)
  rooms.set(room, counted)
}
const sum = [...rooms.values()].reduce(
  (total, room) => ({ code: total.code + room.code, tests: total.tests + room.tests }),
  { code: 0, tests: 0 },
)
console.table(Object.fromEntries(rooms))
console.log(
  `code ${sum.code}, tests ${sum.tests}: tests are ${((100 * sum.tests) / (sum.code + sum.tests)).toFixed(1)} % of the lines`,
)
