import { execFileSync } from 'node:child_process'
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { logPatterns } from '../../core/faults/log-lines'

/**
 * Holds our patterns of kernel lines against the format strings in Debian's `linux-source` package: `npm run check:kernel-lines`, by hand, after
 * `apt-get install linux-source`. The package is large, so this is no part of CI. Nothing of it is copied; what is printed is which pattern met which file.
 */
const FOLDERS = ['drivers/usb/core', 'drivers/usb/typec', 'drivers/thunderbolt', 'drivers/gpu/drm']

/** What a kernel fills in for words where these lines are printed. */
const FILLINGS = [
  ['high speed hub'],
  ['all', 'all'],
  ['new', 'high-speed'],
  ['reset', 'high-speed'],
  ['new', '', ''],
  ['reset', '', ''],
  ['new', '', ' Gen 1'],
  ['new', ' Plus', ' Gen 2x1'],
  ['new', ' Plus', ' Gen 1x2'],
  ['new', ' Plus', ' Gen 2x2'],
  ['s', ''],
  ['', 's'],
]

const SOURCES = '/usr/src'
const archive = readdirSync(SOURCES).find((name) => /^linux-source-.*\.tar\.xz$/.test(name))
if (!archive) throw new Error('The package linux-source is not installed. Run: apt-get install linux-source')
const folder = mkdtempSync(join(tmpdir(), 'kernel-lines-'))
try {
  execFileSync('tar', [
    '-xf',
    join(SOURCES, archive),
    '-C',
    folder,
    '--strip-components=1',
    '--wildcards',
    ...FOLDERS.map((each) => `*/${each}/*.[ch]`),
  ])
  const strings = FOLDERS.flatMap((each) =>
    readdirSync(join(folder, each), { recursive: true, encoding: 'utf8' })
      .filter((name) => /\.[ch]$/.test(name))
      .flatMap((name) => saidIn(join(folder, each, name)).map((said) => ({ said, path: `${each}/${name}` }))),
  )
  let missing = 0
  for (const { name, from, form } of logPatterns) {
    if (from === 'desktop' || from === 'disk') continue
    const met = strings.find(({ said }) => said.some((line) => form.test(line)))
    if (!met) missing += 1
    console.log(`${met ? 'met    ' : 'MISSING'} ${name.padEnd(24)} ${met?.path ?? ''}`)
  }
  console.log(`${strings.length} strings of the kernel were looked at; ${missing} patterns met none.`)
  process.exitCode = missing === 0 ? 0 : 1
} finally {
  rmSync(folder, { recursive: true, force: true })
}

/** The strings of a source file as lines that they would print: neighbouring literals joined, and what is filled in filled in. */
function saidIn(path: string): string[][] {
  const source = readFileSync(path, 'utf8')
  return [...source.matchAll(/"(?:[^"\\\n]|\\.)*"(?:\s*"(?:[^"\\\n]|\\.)*")*/g)].map(([literal]) => {
    const plain = literal.replace(/"\s*"/g, '').slice(1, -1).replace(/\\n/g, '')
    return FILLINGS.map((words) => {
      let at = 0
      return plain.replace(/%[-#0-9.*]*(?:ll|l|h|z)?([a-zA-Z])\w?/g, (_, type) =>
        type === 's' ? (words[at++] ?? words[0] ?? '') : '1',
      )
    })
  })
}
