import { isIPv4 } from 'node:net'
import ipaddr from 'ipaddr.js'
import { Failure } from '../failure'

/** How Hallway is reached: where it listens, and the address people use where a proxy stands in front of it. */
export type Reach = {
  host: string
  /** Names it answers to besides those of loopback; null: any. */
  names: ReadonlySet<string> | null
  publicUrl: URL | null
  /** The addresses of the proxy in front: nobody else is believed about who sends. */
  proxies: readonly string[]
  /** It is reached from other machines: by listening beyond loopback, or through a proxy under a name of its own. */
  open: boolean
}

export const PUBLIC_URL_VARIABLE = 'HALLWAY_URL'

/** Any name or address of this machine that leads nowhere else. */
export const isLoopback = (host: string): boolean =>
  host === 'localhost' ||
  host.endsWith('.localhost') ||
  host === '::1' ||
  host === '[::1]' ||
  (isIPv4(host) && host.startsWith('127.'))

/** The name in a Host header, without its port; nothing where it is none. */
export const hostName = (header: string | undefined): string =>
  header !== undefined && URL.canParse(`http://${header}`) ? new URL(`http://${header}`).hostname : ''

/** The address people use, if one is set; a word that is none is told. */
export function publicUrl(text = process.env[PUBLIC_URL_VARIABLE]): URL | null {
  if (text === undefined || text === '') return null
  const url = URL.canParse(text) ? new URL(text) : null
  const plain = url && (url.protocol === 'https:' || url.protocol === 'http:') && url.pathname === '/' && !url.search
  if (!plain)
    throw new Failure(`${PUBLIC_URL_VARIABLE} is a plain web address such as https://hallway.example, not "${text}".`)
  return url
}

export const PROXY_VARIABLE = 'HALLWAY_PROXY'

/** Where the proxy in front sends from: addresses or networks with commas between; this machine unless another is said. */
export function proxies(text = process.env[PROXY_VARIABLE]): readonly string[] {
  if (text === undefined || text.trim() === '') return ['loopback']
  const told = text.split(',').map((each) => each.trim())
  for (const each of told)
    if (!ipaddr.isValid(each) && !ipaddr.isValidCIDR(each))
      throw new Failure(`${PROXY_VARIABLE} is the address of the proxy, such as 192.0.2.7, not "${each}".`)
  return told
}

/** How Hallway is reached on an address that it listens on, with what the surroundings say of names. */
export function reachOf(host: string): Reach {
  const url = publicUrl()
  const everywhere = !isLoopback(host)
  const told = (process.env.HALLWAY_NAMES ?? '')
    .split(',')
    .map((name) => name.trim())
    .filter(Boolean)
  const names = url ? [...told, url.hostname] : told
  return {
    host,
    open: everywhere || (url !== null && !isLoopback(url.hostname)),
    publicUrl: url,
    proxies: proxies(),
    names: everywhere && names.length === 0 ? null : new Set(names),
  }
}
