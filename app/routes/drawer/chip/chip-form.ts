import { z } from 'zod'
import { type FolderCable, filesFromText, readClassFolder } from '../../../../core/identity/class-folder'
import { decodeIdentity, hexWord, type IdentityWords } from '../../../../core/identity/e-marker'
import { parseHexWords } from '../../../../core/identity/hex-words'
import type { Statement, Unwritten } from '../../../../core/observe/observation'
import { freeIds, slugOf } from '../../../../core/plan/free-id'
import type { Plan } from '../../../../core/plan/plan'
import { type LengthUnit, parseLength } from '../../../../core/quantity/length'
import { type Parsed, parsed } from '../../../../core/quantity/parsed'
import type { Cable } from '../../../../core/vocabulary/cable'
import { tagField } from '../../../../core/vocabulary/fields'

/** Text as it was pasted: lines of a class folder where it has such lines, hex words of one cable otherwise. */
export function readPasted(text: string, revision: 2 | 3): Parsed<FolderCable[]> {
  if (/id_header\s*[:=]/.test(text)) return readClassFolder(filesFromText(text))
  const words = parseHexWords(text, revision)
  return words.ok ? parsed([{ port: '', words: words.value, plug: null, type: null }]) : words
}

/** The words of a chip as a form carries them. */
export const wordsOf = ({ idHeader, certStat, product, vdo1, vdo2 }: IdentityWords): string =>
  [idHeader, certStat, product, vdo1, vdo2].flatMap((word) => (word === null ? [] : [hexWord(word)])).join(' ')

/** What is sent to write a chip's answer down: which cable, its length where it is new, and the words themselves. */
export const chipForm = (unit: LengthUnit) =>
  z
    .object({
      tag: z.string().pipe(tagField),
      length: z
        .string()
        .optional()
        .transform((text, context) => {
          if (!text?.trim()) return undefined
          const read = parseLength(text, unit)
          if (read.ok) return read.value
          context.addIssue(read.problem)
          return z.NEVER
        }),
      words: z.string().max(200),
      revision: z.enum(['2', '3']),
    })
    .transform(({ words, revision, ...rest }, context) => {
      const read = parseHexWords(words, revision === '2' ? 2 : 3)
      if (read.ok) return { ...rest, chip: read.value }
      context.addIssue(read.problem)
      return z.NEVER
    })

/** What a chip says of its cable. */
export function chipStatement(words: IdentityWords): Unwritten<Statement> {
  const { grade, amps, volts } = decodeIdentity(words).facts
  return {
    kind: 'statement',
    basis: 'chip',
    ...(grade ? { grade } : {}),
    ...(amps === null ? {} : { amps }),
    ...(volts === 50 ? { volts } : {}),
    words: wordsOf(words).split(' '),
  }
}

/** A cable that is known by its chip alone: it has type-C at both ends, as only such cables have one. */
export function cableWithChip(plan: Plan, tag: string, length: number, words: IdentityWords): Cable {
  const { construction } = decodeIdentity(words).facts
  const idOf = freeIds(plan.cables.map((cable) => cable.id))
  const end = { connector: 'type-c', gender: 'plug' } as const
  return {
    id: idOf(slugOf(tag, 'cable')),
    tag,
    ends: [end, end],
    oneWay: false,
    length,
    construction: construction ?? 'passive',
    feed: 'bus',
    standing: 'drawer',
  }
}
