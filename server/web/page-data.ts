import type { RequestHandler } from 'express'
import { matchPath, type ServerBuild } from 'react-router'

type Routes = ServerBuild['routes']

/** The whole pattern of a route, with those it lies under. */
function patternOf(routes: Routes, id: string): string {
  const route = routes[id]
  if (!route) return ''
  const above = route.parentId === undefined ? '' : patternOf(routes, route.parentId)
  return route.path === undefined ? above : `${above}/${route.path}`
}

/** Only pages have data of their own. A file or a stream asked for as data would be read whole before it is answered, and a stream has no end. */
export function pageDataOnly({ routes }: Pick<ServerBuild, 'routes'>): RequestHandler {
  const files = Object.entries(routes).flatMap(([id, route]) =>
    route && route.module.default === undefined && route.module.loader ? [patternOf(routes, id)] : [],
  )
  return (request, response, next) => {
    const [, address] = /^(.*)\.data\/?$/i.exec(request.path) ?? []
    const reads = request.method === 'GET' || request.method === 'HEAD'
    if (address !== undefined && reads && files.some((pattern) => matchPath(pattern, address) !== null))
      response.status(404).type('text').send('There is nothing of that name. Ask for it without ".data".\n')
    else next()
  }
}
