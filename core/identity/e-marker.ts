import type { Metres } from '../quantity/length'
import type { CableGrade, Construction } from '../standards/grades'
import { fromMemory, published, type Source } from '../standards/source'
import {
  activeFields,
  activeSecondFields,
  bitsOf,
  cableFieldsRevision2,
  certFields,
  type DecodedField,
  decodeFields,
  FIRST_VERSION_WITH_EXTENDED_RANGE,
  type FieldSpec,
  idHeaderFields,
  passiveFields,
  productFields,
} from './fields'

/** The words of a Discover Identity answer from a cable plug, in the order they come. */
export type IdentityWords = {
  idHeader: number
  certStat: number
  product: number
  vdo1: number | null
  vdo2: number | null
  /** Major revision of USB Power Delivery the chip speaks: it decides what the bits mean. */
  revision: 2 | 3
}

export type DecodedWord = { name: string; hex: string; fields: DecodedField[] }

/** What the chip says of the cable, in the terms the rest of Hallway uses; null where it does not say. */
export type ChipFacts = {
  product: 'passive' | 'active' | 'powered device' | 'not a cable'
  construction: Construction | null
  grade: CableGrade | null
  amps: 0 | 3 | 5 | null
  volts: 20 | 50
  /** Lengths its latency code covers. */
  length: { above: Metres; upTo: Metres | null } | null
  /** Words that this kind of cable owes and did not give. */
  missing: readonly string[]
  /** Bits set that must be zero: "passive cable 8:7". */
  reservedSet: readonly string[]
}

export type DecodedIdentity = { words: DecodedWord[]; facts: ChipFacts; source: Source }

const layout = published('Linux kernel header pd_vdo.h, field layout')
const laterLayout = fromMemory('USB Power Delivery 3.1 and later, bit 17 and speed 4')

export const hexWord = (word: number): string => `0x${word.toString(16).padStart(8, '0')}`

/**
 * Decodes what a cable's identity chip answers, field by field, and folds it into facts.
 *
 * The product type in the ID header decides how the words after it read; Power Delivery 2.0 has one layout for passive and
 * active cables, 3.x one each and a second word for active ones. Field layout: Linux kernel header `pd_vdo.h`.
 */
export function decodeIdentity(words: IdentityWords): DecodedIdentity {
  const { idHeader, certStat, product, vdo1, vdo2, revision } = words
  const type = bitsOf(idHeader, 29, 27)
  const active = type === 4
  const cable = active || type === 3
  const version = vdo1 === null ? 0 : bitsOf(vdo1, 23, 21)
  const shown: [string, number, readonly FieldSpec[]][] = [
    ['ID header', idHeader, idHeaderFields(revision)],
    ['certification', certStat, certFields],
    ['product', product, productFields],
  ]
  if (vdo1 !== null && cable) {
    if (revision === 2) shown.push(['cable', vdo1, cableFieldsRevision2])
    else
      shown.push(
        active ? ['active cable', vdo1, activeFields(version)] : ['passive cable', vdo1, passiveFields(version)],
      )
  }
  if (vdo2 !== null && active && revision === 3) shown.push(['active cable, second word', vdo2, activeSecondFields])
  const decoded = shown.map(([name, word, specs]) => ({ name, hex: hexWord(word), fields: decodeFields(word, specs) }))
  const later =
    revision === 3 && (version >= FIRST_VERSION_WITH_EXTENDED_RANGE || (vdo1 !== null && bitsOf(vdo1, 2, 0) === 4))
  return { words: decoded, facts: factsFrom(words, type, decoded), source: later ? laterLayout : layout }
}

function factsFrom({ vdo1, vdo2, revision }: IdentityWords, type: number, decoded: readonly DecodedWord[]): ChipFacts {
  const active = type === 4
  const cable = active || type === 3
  const reservedSet = decoded.flatMap(({ name, fields }) =>
    fields.filter((field) => field.reservedSet).map((field) => `${name} ${field.bits}`),
  )
  const product = active ? 'active' : type === 3 ? 'passive' : type === 6 ? 'powered device' : 'not a cable'
  if (!cable || vdo1 === null) {
    const missing = cable ? [`${product} cable word`] : []
    return { product, construction: null, grade: null, amps: null, volts: 20, length: null, missing, reservedSet }
  }
  const optical = vdo2 !== null && bitsOf(vdo2, 10, 10) === 1
  return {
    product,
    construction: active ? (optical ? 'optical' : 'active') : 'passive',
    grade: gradeFrom(vdo1, active ? vdo2 : null, revision),
    amps: ampsFrom(vdo1, active || revision === 2),
    volts: revision === 3 && bitsOf(vdo1, 10, 9) === 3 ? 50 : 20,
    length: lengthFrom(bitsOf(vdo1, 16, 13), active),
    missing: active && vdo2 === null && revision === 3 ? ['second word of an active cable'] : [],
    reservedSet,
  }
}

function gradeFrom(vdo1: number, vdo2: number | null, revision: 2 | 3): CableGrade | null {
  const speed = bitsOf(vdo1, 2, 0)
  if (revision === 2) return ([null, 'gen1', 'gen2'] as const)[speed] ?? (speed === 0 ? 'usb2' : null)
  const usb4 = vdo2 === null || bitsOf(vdo2, 8, 8) === 0
  const byUsb4: (CableGrade | null)[] = ['usb2', 'gen1', 'usb4-20', 'usb4-40', 'usb4-80']
  const byUsb3: (CableGrade | null)[] = ['usb2', 'gen1', 'gen2', 'gen2', 'gen2']
  return (usb4 ? byUsb4 : byUsb3)[speed] ?? null
}

/** Some active and older cables say whether the supply passes at all. */
function ampsFrom(vdo1: number, saysSupply: boolean): ChipFacts['amps'] {
  if (saysSupply && bitsOf(vdo1, 4, 4) === 0) return 0
  return ([null, 3, 5] as const)[bitsOf(vdo1, 6, 5)] ?? null
}

function lengthFrom(code: number, active: boolean): ChipFacts['length'] {
  if (code >= 1 && code <= 7) return { above: code - 1, upTo: code }
  if (code === 8) return active ? { above: 7, upTo: 100 } : { above: 7, upTo: null }
  if (active && (code === 9 || code === 10)) return { above: (code - 8) * 100, upTo: (code - 7) * 100 }
  return null
}
