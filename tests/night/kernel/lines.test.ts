import { afterAll, beforeAll, expect, it } from 'vitest'
import { logPatterns } from '../../../core/faults/log-lines'
import { type KernelSource, unpackKernel } from './kernel-source'

// Our patterns of kernel lines, held against the format strings of the kernel itself.

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

let kernel: KernelSource
let strings: string[][]
beforeAll(() => {
  kernel = unpackKernel('linux-source-6.1', FOLDERS)
  strings = FOLDERS.flatMap((folder) => kernel.files(folder).flatMap((path) => saidIn(kernel.text(path))))
})
afterAll(() => kernel.remove())

it.each(logPatterns.filter(({ from }) => from !== 'desktop' && from !== 'disk'))(
  'a line of the kernel reads as $name',
  ({ form }) => {
    expect(strings.some((said) => said.some((line) => form.test(line)))).toBe(true)
  },
)

/** The strings of a source file as lines that they would print: neighbouring literals joined, and what is filled in filled in. */
function saidIn(source: string): string[][] {
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
