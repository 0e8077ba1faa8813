import { parsePictureMode } from '../../core/picture/mode-text'
import { parseLength } from '../../core/quantity/length'
import type { Parsed } from '../../core/quantity/parsed'
import { CHROMAS, type PictureMode } from '../../core/vocabulary/need'
import { Failure } from '../failure'

/** What a calculation answers: figures for machines, lines for people. */
export type Answer = { json: object; text: string[] }
export type Words = { positionals: string[]; values: Record<string, string | string[] | boolean | undefined> }

/** A parser's answer, or its sentence as a failure. */
export function must<T>(read: Parsed<T>): T {
  if (read.ok) return read.value
  throw new Failure(read.problem)
}

export function textOf({ values }: Words, name: string): string | undefined {
  const value = values[name]
  return typeof value === 'string' ? value : undefined
}

export function listOf({ values }: Words, name: string): string[] {
  const value = values[name]
  return Array.isArray(value) ? value : typeof value === 'string' ? [value] : []
}

export function needText(words: Words, name: string): string {
  const text = textOf(words, name)
  if (text === undefined) throw new Failure(`--${name} is missing.`)
  return text
}

/** A number within bounds; said with the bounds where it is not. */
export function numberOf(words: Words, name: string, lowest: number, highest: number, otherwise?: number): number {
  const text = textOf(words, name)
  if (text === undefined && otherwise !== undefined) return otherwise
  return boundedNumber(needText(words, name), `--${name}`, lowest, highest)
}

export function boundedNumber(text: string, name: string, lowest: number, highest: number): number {
  const number = text.trim() === '' ? Number.NaN : Number(text)
  if (!(number >= lowest && number <= highest))
    throw new Failure(`${name} takes a number from ${lowest} to ${highest}, not "${text}".`)
  return number
}

export const lengthOf = (words: Words, name: string, otherwise?: string): number =>
  must(parseLength(textOf(words, name) ?? otherwise ?? needText(words, name)))

export function oneOf<T extends string>(words: Words, name: string, allowed: readonly T[], otherwise: T): T {
  const text = textOf(words, name)
  if (text === undefined) return otherwise
  const found = allowed.find((each) => each === text)
  if (!found) throw new Failure(`--${name} takes ${allowed.join(', ')}, not "${text}".`)
  return found
}

/** The one mode of a calculation, with --bpc and --chroma over what the text says. */
export function modeOf(words: Words): PictureMode {
  const [text, ...rest] = words.positionals
  if (text === undefined || rest.length > 0) throw new Failure('One picture mode, please, such as 3840x2160@60.')
  const mode = must(parsePictureMode(text))
  const bits = textOf(words, 'bpc') === undefined ? mode.bits : numberOf(words, 'bpc', 6, 16)
  const allowed = [6, 8, 10, 12, 16] as const
  const known = allowed.find((each) => each === bits)
  if (known === undefined) throw new Failure(`--bpc takes ${allowed.join(', ')}, not "${bits}".`)
  return { ...mode, bits: known, chroma: oneOf(words, 'chroma', CHROMAS, mode.chroma) }
}

/** A size like 2x2. */
export function twoNumbers(text: string, name: string, lowest: number, highest: number): [number, number] {
  const [first = '', second = '', ...rest] = text.split('x')
  if (rest.length > 0) throw new Failure(`${name} takes two numbers, like 2x2.`)
  return [boundedNumber(first, name, lowest, highest), boundedNumber(second, name, lowest, highest)]
}
