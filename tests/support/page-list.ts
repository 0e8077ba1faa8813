import { existsSync } from 'node:fs'
import type { RouteConfigEntry } from '@react-router/dev/routes'
import { matchRoutes } from 'react-router'
import routes from '../../app/routes'

/** A page of the demo as people come to it: its address below the site, with what is chosen on it. */
const OF_A_SITE = [
  '',
  '/survey',
  '/survey/gallery-dock',
  '/floors',
  '/floors/ground?run=r-07&pathway=wheelhouse-conduit',
  '/walk',
  '/tables',
  '/needs',
  '/needs/new?host=gallery-laptop',
  '/needs/log-picture',
  '/visitors',
  '/growth',
  '/order',
  '/install',
  '/prove',
  '/prove/r-06',
  '/record',
  '/compare?one=61+62+63&two=70+71+72',
  '/test-plan',
  '/faults',
  '/faults/search-debrief',
  '/faults/search-gallery',
  '/faults/search-debrief/afar',
  '/runs/r-12/faults',
  '/handover',
  '/handover/spring',
  '/handover/spring/book',
  '/handover/spring/since',
  '/handover/spring/ahead?sort=power&size=240+W',
  '/prove/r-06/readings/demo-readings',
  '/orders',
  '/suppliers',
  '/listing',
  '/docks/gallery-dock',
  '/reach',
  '/verdicts',
  '/find?q=gallery',
  '/policy',
  '/history',
  '/many?list=devices&do=rename&find=a&replace=b&id=image-a',
  '/runs/new',
  '/runs/r-09',
  '/drawer?job=40+Gb/s',
  '/drawer/add',
  '/drawer/import',
  '/drawer/chip',
  '/drawer/tags?cables=c-0021',
  '/drawer/catalogue',
  '/drawer/sessions',
  '/drawer/sessions/new?cables=c-0021',
  '/drawer/sessions/gallery-drawer',
  '/cables/c-0056',
] as const

const OF_NO_SITE = ['/', '/import', '/words', '/who', '/nowhere'] as const

/** Only where there are accounts: looked at there, with the same eyes (accounts.spec). */
const OF_ACCOUNTS = ['/sign-in', '/welcome/never-made', '/account', '/people', '/sites/saltmarsh/people']

export const pagesOf = (site: string): string[] => OF_A_SITE.map((path) => `${site}${path}`)
export const pages = (site: string): string[] => [...OF_NO_SITE, ...pagesOf(site)]

type Route = { path?: string; index?: boolean; file: string; children?: Route[] }
const routed = (entries: readonly RouteConfigEntry[]): Route[] =>
  entries.map(({ path, index, file, children }) => ({
    ...(path === undefined ? {} : { path }),
    ...(index ? { index: true } : {}),
    file,
    ...(children ? { children: routed(children) } : {}),
  })) as Route[]
const tree = routed(routes)

/** The files of the routes an address leads through, the outermost first. */
export const filesAt = (address: string): string[] =>
  (matchRoutes(tree as never, address.replace(/\?.*$/, '')) ?? []).map(({ route }) => (route as unknown as Route).file)

const filesOf = (entries: readonly Route[]): string[] =>
  entries.flatMap(({ file, children }) => [file, ...filesOf(children ?? [])])
/** The file of every route there is. */
export const routeFiles: readonly string[] = filesOf(tree).filter((file) => existsSync(`app/${file}`))

/** The pages that nobody looks at: none. A page is a route that draws something. */
export const pagesLeftOut = (): string[] => {
  const looked = new Set([...pages('/sites/saltmarsh'), ...OF_ACCOUNTS].flatMap(filesAt))
  return routeFiles.filter((file) => file.endsWith('.tsx') && !looked.has(file))
}
