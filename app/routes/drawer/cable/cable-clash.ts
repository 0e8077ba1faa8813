import { formatLengthBoth } from '../../../../core/quantity/length'
import { describeEnd } from '../../../../core/standards/connectors'
import type { Cable } from '../../../../core/vocabulary/cable'
import type { ClashLine } from '../../../ui/clash-notice'

/** What two people made of one cable, in words. */
export function cableClashLines(fields: readonly string[], mine: Cable | null, theirs: Cable | null): ClashLine[] {
  if (!mine || !theirs) return []
  return (fields as (keyof Cable)[]).map((field) => ({
    name: names[field] ?? field,
    mine: inWords(mine, field),
    theirs: inWords(theirs, field),
  }))
}

const names: Partial<Record<keyof Cable, string>> = {
  tag: 'Tag',
  ends: 'Ends',
  oneWay: 'One way',
  length: 'Length',
  construction: 'Built',
  thickness: 'Thickness',
  awg: 'Gauge',
  feed: 'Feed',
  suppliedWith: 'Came with',
  kind: 'Kind',
  standing: 'Where it is',
  note: 'Note',
}

function inWords(cable: Cable, field: keyof Cable): string {
  switch (field) {
    case 'ends':
      return cable.ends.map(describeEnd).join(' and ')
    case 'length':
      return formatLengthBoth(cable.length)
    case 'oneWay':
      return cable.oneWay ? 'yes' : 'no'
    default:
      return String(cable[field] ?? '')
  }
}
