import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { proposeTests } from '../../core/bench/propose'
import type { Plan } from '../../core/plan/plan'
import { readPlanText } from '../../core/plan/read'
import { indexPlan } from '../../core/plan/site-index'
import { database } from '../database/connection'
import { importPlan } from '../sites/sites'
import { type Paint, paintsOf } from './bench-paint'
import { timedAsync, withOwnDatabase, withServer } from './bench-server'
import { benchSite } from './bench-site'
import { zippedBytes } from './bench-store'
import { root } from './home'
import { median } from './timing'

const WARMING_UP = 12
const GOES = 15

/** What one page costs: rendering it anew and sending it as it is kept, in milliseconds; its elements; its bytes as they travel. */
export type PageCost = { page: string; anew: number; kept: number; elements: number; bytes: number }
export type SiteCost = { site: string; pages: PageCost[] }

/** The demo, the large site, and half of the large one, from which growth is seen. */
export const benchedSites = (): { name: string; plan: Plan }[] => [
  { name: 'demo', plan: demoPlan() },
  { name: 'half', plan: withSession(benchSite(1000, 2500)) },
  { name: 'large', plan: withSession(benchSite(2000, 5000)) },
]

export type PagesCost = { sites: SiteCost[]; paints: Paint[] | null }

/** What every page of three sites costs this server, over HTTP on one connection, and when a browser shows some of them. */
export const benchPages = (): Promise<PagesCost> =>
  withOwnDatabase(() =>
    withServer(async (address) => {
      const costs: SiteCost[] = []
      const painted: [string, string][] = []
      for (const { name, plan } of benchedSites()) {
        const siteId = await importPlan(database(), { by: 'the bench' }, plan)
        const home = `${address}/sites/${siteId}`
        const pages: PageCost[] = []
        for (const [page, path] of pagesOf(plan)) pages.push({ page, ...(await costOf(`${home}${path}`)) })
        costs.push({ site: name, pages })
        if (name !== 'half')
          for (const [page, path] of pagesOf(plan))
            if (PAINTED.has(page)) painted.push([`${name}, ${page}`, `${home}${path}`])
      }
      return { sites: costs, paints: await paintsOf(painted) }
    }),
  )

/** Pages looked at in a browser: lists, and a form that follows what is typed. */
const PAINTED = new Set(['board', 'drawer', 'run'])

/** Every page there is, by what it is called and where it lies below its site. */
export function pagesOf(plan: Plan): [string, string][] {
  const run = plan.runs[0]?.id ?? ''
  const cables = plan.cables.slice(0, 40).map(({ id }) => id)
  const session = plan.sessions[0]?.id ?? ''
  return [
    ['board', ''],
    ['needs', '/needs'],
    ['policy', '/policy'],
    ['history', '/history'],
    ['drawer', '/drawer'],
    ['add a cable', '/drawer/add'],
    ['table import', '/drawer/import'],
    ['chip', '/drawer/chip'],
    ['tags', `/drawer/tags?cables=${cables.join('+')}`],
    ['sessions', '/drawer/sessions'],
    ['new session', '/drawer/sessions/new'],
    ['session', `/drawer/sessions/${session}`],
    ['catalogue', '/drawer/catalogue'],
    ['cable', `/cables/${cables[0]}`],
    ['run', `/runs/${run}`],
    ['new run', '/runs/new'],
  ]
}

async function costOf(address: string): Promise<Omit<PageCost, 'page'>> {
  const joint = address.includes('?') ? '&' : '?'
  let number = 0
  const ask = async (url: string) => {
    const answer = await fetch(url)
    const html = await answer.text()
    if (answer.status !== 200) throw new Error(`${url} answers ${answer.status}`)
    return html
  }
  // another address each time, so that nothing kept is sent
  const anew = () => ask(`${address}${joint}go=${number++}`)
  for (let go = 0; go < WARMING_UP; go += 1) await anew()
  const anewTimes: number[] = []
  for (let go = 0; go < GOES; go += 1) anewTimes.push(await timedAsync(anew))
  const html = await ask(address)
  const keptTimes: number[] = []
  for (let go = 0; go < GOES; go += 1) keptTimes.push(await timedAsync(() => ask(address)))
  return {
    anew: median(anewTimes),
    kept: median(keptTimes),
    elements: html.match(/<[a-z]/g)?.length ?? 0,
    bytes: await zippedBytes(address),
  }
}

export function demoPlan(): Plan {
  const read = readPlanText(readFileSync(join(root, 'demo/saltmarsh.json'), 'utf8'))
  if (!read.ok) throw new Error('the demo plan cannot be read')
  return read.plan
}

/** A session in which the first cables of the drawer go through what the site's ports propose; it is as large as that of the demo. */
function withSession(plan: Plan): Plan {
  const cables = plan.cables.slice(0, 6)
  const tests = proposeTests(indexPlan(plan), cables)
  return {
    ...plan,
    sessions: [{ id: 'sort', name: 'Sort-out', on: '2026-11-25', cables: cables.map(({ id }) => id), tests }],
  }
}
