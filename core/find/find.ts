import { leadTag } from '../change/differences'
import { formatNeedSize } from '../needs/need-text'
import type { SiteIndex } from '../plan/site-index'
import { connectorNames } from '../standards/connectors'
import { needLabel } from '../vocabulary/need'

/** What of a site can be found by its name. */
export const FOUND = ['run', 'cable', 'device', 'place', 'need', 'kind'] as const
export type FoundKind = (typeof FOUND)[number]

/** Something that has all the words looked for: what it is called, and what tells it from others. */
export type Hit = { kind: FoundKind; id: string; name: string; about: string }

/** The words of a question, in any order. */
export const wordsOf = (text: string): string[] => text.toLowerCase().split(/\s+/).filter(Boolean)

/** Everything of a site that has all the words of a text somewhere in its name, its ends or its note; what is called so comes first. Nothing is found for no words. */
export function find(index: SiteIndex, text: string): Hit[] {
  const words = wordsOf(text)
  if (words.length === 0) return []
  const { plan } = index
  const deviceName = (id: string): string => index.devices.get(id)?.name ?? ''
  const hits: { hit: Hit; rank: number }[] = []
  const look = (kind: FoundKind, id: string, name: string, about: string, ...more: (string | undefined)[]): void => {
    const all = [name, about, ...more].join(' ').toLowerCase()
    if (!words.every((word) => all.includes(word))) return
    const own = name.toLowerCase()
    const rank = own === words.join(' ') ? 0 : words.every((word) => own.includes(word)) ? 1 : 2
    hits.push({ hit: { kind, id, name, about }, rank })
  }
  for (const run of plan.runs)
    look(
      'run',
      run.id,
      run.tag,
      `${deviceName(run.from.device)} to ${deviceName(run.to.device)}`,
      ...run.leads.map((lead) => leadTag(plan, lead)),
      run.note,
    )
  for (const { id, tag, ends, kind, suppliedWith, note } of plan.cables)
    look(
      'cable',
      id,
      tag,
      ends.map(({ connector }) => connectorNames[connector]).join(' to '),
      index.kinds.get(kind ?? '')?.name,
      deviceName(suppliedWith ?? ''),
      note,
    )
  for (const { id, name, kind, place, note } of plan.devices)
    look('device', id, name, [kind, index.places.get(place ?? '')?.name].filter(Boolean).join(', '), note)
  for (const { id, name, note } of plan.places) look('place', id, name, note ?? '')
  for (const need of plan.needs)
    look(
      'need',
      need.id,
      needLabel(need, index.devices),
      `${deviceName(need.from)} to ${deviceName(need.to)}, ${formatNeedSize(need)}`,
      need.kind,
      need.note,
    )
  for (const { id, name, note } of plan.kinds) look('kind', id, name, note ?? '')
  return hits.sort((one, other) => one.rank - other.rank).map(({ hit }) => hit)
}
