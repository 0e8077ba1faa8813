import { chipSentence } from '../../core/identity/chip-sentence'
import { contradictionSentence, contradictionsOf } from '../../core/identity/contradictions'
import { decodeIdentity } from '../../core/identity/e-marker'
import { parseHexWords } from '../../core/identity/hex-words'
import { parseMark, parsePowerMark } from '../../core/standards/mark-text'
import { citeSource } from '../../core/standards/source'
import { type Answer, lengthOf, must, oneOf, textOf, type Words } from './calc-words'

/** What the words of a cable's chip say, field by field, and where that contradicts what is printed. */
export function chipCalc(words: Words): Answer {
  const revision = oneOf(words, 'revision', ['2', '3'] as const, '3')
  const identity = must(parseHexWords(words.positionals.join(' '), revision === '2' ? 2 : 3))
  const { words: decoded, facts, source } = decodeIdentity(identity)
  const mark = textOf(words, 'mark')
  const power = textOf(words, 'power')
  const contradictions = contradictionsOf(facts, {
    ...(textOf(words, 'length') === undefined ? {} : { length: lengthOf(words, 'length') }),
    ...(mark === undefined ? {} : { grade: must(parseMark(mark)) }),
    ...(power === undefined ? {} : must(parsePowerMark(power))),
  })
  const sentences = contradictions.map((each) => contradictionSentence(each))
  return {
    json: { facts, contradictions: sentences, words: decoded },
    text: [
      chipSentence(facts),
      ...sentences.map((sentence) => `! ${sentence}`),
      ...decoded.flatMap(({ name, hex, fields }) => [
        '',
        `${name} ${hex}`,
        ...fields.map(({ bits, name: field, meaning }) => `  ${bits.padStart(5)}  ${field.padEnd(28)} ${meaning}`),
      ]),
      '',
      `Layout: ${citeSource(source)}.`,
    ],
  }
}
