import { execFileSync } from 'node:child_process'
import { existsSync, readFileSync } from 'node:fs'
import { dirname } from 'node:path'
import { filesAt } from '../tests/support/page-list'
import { PICTURES } from '../tests/support/pictures'

/** How much of the code is tests: lines that hold code, in the files git knows. The aim is a quarter to a third. */

const git = (...words: string[]): string => execFileSync('git', words, { encoding: 'utf8' })
const files = git('ls-files')
  .split('\n')
  // one that was taken away is known to git until the next commit
  .filter((file) => /\.(ts|tsx|cjs)$/.test(file) && existsSync(file))

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

// a picture is made anew where its view changed after it
const changedLast = (...paths: string[]): number => Number(git('log', '-1', '--format=%ct', '--', ...paths)) || 0
for (const [name, address] of Object.entries(PICTURES)) {
  const picture = `docs/screenshots/${name}.png`
  const view = filesAt(address).at(-1) ?? ''
  // a view with a folder of its own is all of that folder
  const paths = dirname(view) === 'routes' ? [`app/${view}`] : [`app/${dirname(view)}`]
  if (!existsSync(picture)) console.log(`There is no picture of ${name}: npm run screenshots`)
  else if (changedLast(picture) < changedLast(...paths))
    console.log(`${picture} is older than its view (${paths}): npm run screenshots`)
}
