/** Letters that nobody sees: a name with them looks like another (Unicode, Default_Ignorable_Code_Point and format characters). */
const INVISIBLE = /[\p{Default_Ignorable_Code_Point}\p{Cf}\p{Zl}\p{Zp}\u2800\u00a0\u2000-\u200a\u3000]/u

/** Scripts that people write names in, each by itself. */
const SCRIPTS: readonly RegExp[] = [
  'Latin',
  'Greek',
  'Cyrillic',
  'Armenian',
  'Hebrew',
  'Arabic',
  'Devanagari',
  'Bengali',
  'Gurmukhi',
  'Gujarati',
  'Tamil',
  'Telugu',
  'Kannada',
  'Malayalam',
  'Sinhala',
  'Thai',
  'Lao',
  'Tibetan',
  'Myanmar',
  'Georgian',
  'Ethiopic',
  'Khmer',
  'Mongolian',
  'Cherokee',
].map((script) => new RegExp(`\\p{Script=${script}}`, 'u'))

/** Scripts that are written together in one name. */
const TOGETHER: readonly RegExp[] = [
  /[\p{Script=Latin}\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}]/u,
  /[\p{Script=Latin}\p{Script=Han}\p{Script=Hangul}]/u,
  /[\p{Script=Latin}\p{Script=Han}\p{Script=Bopomofo}]/u,
]

/**
 * Why a name may not be given to a new account, or null: it has letters that nobody sees, or of scripts that are not written together, and so could be taken
 * for another's. What may be written together is the "highly restrictive" level of Unicode's UTS #39, section 5.2.
 */
export function whyNotNewName(name: string): string | null {
  if (INVISIBLE.test(name))
    return 'This name has letters that nobody sees. Type it again, with plain letters and spaces.'
  const letters = [...name].filter(
    (letter) => /\p{L}/u.test(letter) && !/[\p{Script=Common}\p{Script=Inherited}]/u.test(letter),
  )
  const inOne = [...SCRIPTS, ...TOGETHER].some((script) => letters.every((letter) => script.test(letter)))
  return letters.length === 0 || inOne
    ? null
    : 'This name has letters of different scripts that look alike. Write it in one of them.'
}
