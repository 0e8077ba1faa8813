import type { NewDocument } from './documents'

/** A document of a handover as it came in an archive of a site. */
export type BroughtDocument = { handover: string; document: NewDocument }

/** The names that Hallway gives: whatever else is in an archive is left out. */
export const DOCUMENT_NAME =
  /^handovers\/([a-z0-9][a-z0-9._-]{0,63})\/(book\.pdf|plan\.json|(?:tables|drawings|readings)\/[a-z0-9][a-z0-9._-]{0,63}\.(?:csv|svg))$/i
/** A book of the largest site, and some. */
export const LARGEST_DOCUMENT_BYTES = 100_000_000

const types: Readonly<Record<string, string>> = {
  pdf: 'application/pdf',
  json: 'application/json',
  csv: 'text/csv; charset=utf-8',
  svg: 'image/svg+xml',
}

export function documentFrom(path: string, bytes: Uint8Array): BroughtDocument | null {
  const [, handover, name] = DOCUMENT_NAME.exec(path) ?? []
  const type = types[name?.split('.').at(-1)?.toLowerCase() ?? '']
  return handover && name && type ? { handover, document: { name, type, bytes } } : null
}
