import { execFileSync } from 'node:child_process'
import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { describe, expect, it } from 'vitest'

const documents = [
  'README.md',
  ...readdirSync('docs')
    .filter((name) => name.endsWith('.md'))
    .map((name) => `docs/${name}`),
]
const hallway = (words: readonly string[]): string =>
  execFileSync('node', ['build/command/hallway.js', ...words], { encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'] })
const helped = new Map<string, string>()
/** What a command says of itself; many documents tell of the same one. */
function helpOf(...words: string[]): string {
  const key = words.join(' ')
  const said = helped.get(key) ?? hallway([...words, '--help'])
  helped.set(key, said)
  return said
}

/** Every `./hallway ...` that stands in a document, with the document. */
const commands = documents.flatMap((file) =>
  [...readFileSync(file, 'utf8').matchAll(/\.\/hallway ([a-z][^`\n|]*?)(?: {2,}#[^\n]*)?(?=[`\n|])/g)].map(
    ([, words = '']) => ({ file, words: words.trim() }),
  ),
)

describe('what the documents say', () => {
  it('every command in them is one, with every option it is given', () => {
    expect(commands.length).toBeGreaterThan(15)
    const known = helpOf()
    const wrong = commands.filter(({ words }) => {
      const [name = '', ...rest] = words.split(/[\s,]+/)
      if (name === 'help') return false
      if (!new RegExp(`^  ${name}\\b`, 'm').test(known)) return true
      const own = helpOf(name)
      // some have commands of their own
      const [within = ''] = rest
      const help = new RegExp(`^  ${within}\\b`, 'm').test(own) && /^[a-z]+$/.test(within) ? helpOf(name, within) : own
      return rest.some((word) => word.startsWith('--') && word !== '--help' && !help.includes(word))
    })
    expect(wrong).toEqual([])
  })
  it('every calculation in them that is written out works', () => {
    const written = commands.filter(
      ({ words }) => /^calc [a-z]+ \S/.test(words) && !words.includes('NAME') && !words.includes('--help'),
    )
    for (const { words } of written) {
      const split = [...words.matchAll(/"([^"]*)"|(\S+)/g)].map((found) => found[1] ?? found[2] ?? '')
      expect(hallway(split), words).toMatch(/\S/)
    }
  })
  it('every npm script in them is one', () => {
    const { scripts } = JSON.parse(readFileSync('package.json', 'utf8'))
    for (const file of documents)
      for (const [, name = ''] of readFileSync(file, 'utf8').matchAll(/npm run (?:-s )?([a-z]+(?:[:-][a-z]+)*)/g))
        expect(Object.keys(scripts), `${file}: ${name}`).toContain(name)
  })
  it('every link in them leads to a file', () => {
    const broken = documents.flatMap((file) =>
      [...readFileSync(file, 'utf8').matchAll(/\]\((?!https?:|#|\/)([^)#]+)/g)].flatMap(([, to = '']) =>
        existsSync(join(dirname(file), to)) ? [] : `${file}: ${to}`,
      ),
    )
    expect(broken).toEqual([])
  })
})
