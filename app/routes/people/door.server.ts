import { isIP } from 'node:net'
import type { Door } from '../../../server/people/passkeys'
import { publicUrl } from '../../../server/web/reach'

/** The door that passkeys are for, as people reach it; null at an address of numbers, under which browsers keep none. */
export function doorOf(request: Request): Door | null {
  const { hostname, origin } = publicUrl() ?? new URL(request.url)
  return isIP(hostname.replace(/^\[|\]$/g, '')) === 0 ? { name: hostname, origin } : null
}
