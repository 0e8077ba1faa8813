import { readListing } from '../../core/order/listing'
import { Failure } from '../failure'
import type { Answer, Words } from './calc-words'

/** What the text of a shop page says of a lead. */
export function listingCalc({ positionals }: Words): Answer {
  const text = positionals.join(' ').trim()
  if (text === '') throw new Failure('Give the text of the listing, in quotation marks.')
  const listing = readListing(text)
  const { claims, problems, missing, questions } = listing
  return {
    json: listing,
    text: [
      ...claims.map(({ sort, says, words }) => `${sort}: ${says}${says === words ? '' : ` (“${words}”)`}`),
      ...(claims.length === 0 ? ['It claims nothing that Hallway can read.'] : []),
      ...problems.map((each) => `Problem: ${each}`),
      ...(missing.length === 0 ? [] : [`Missing: ${missing.join('; ')}.`]),
      ...questions.map((each) => `Ask: ${each}`),
    ],
  }
}
