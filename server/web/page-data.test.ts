import type { AddressInfo } from 'node:net'
import express from 'express'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { pageDataOnly } from './page-data'

const routes = {
  site: { id: 'site', path: 'sites/:site', module: { default: () => null, loader: () => null } },
  page: { id: 'page', parentId: 'site', index: true, module: { default: () => null } },
  live: { id: 'live', path: 'sites/:site/live', module: { loader: () => null } },
  take: { id: 'take', path: 'sites/:site/take', module: { action: () => null } },
} as never

const app = express().use(pageDataOnly({ routes }), (_request, response) => void response.send('passed'))
const server = app.listen(0, '127.0.0.1')
let address: string
beforeAll(async () => {
  if (!server.listening) await new Promise((done) => server.once('listening', done))
  address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`
})
afterAll(() => void server.close())

it.each([
  ['GET', '/sites/x/live', 200],
  ['GET', '/sites/x/live.data', 404],
  ['HEAD', '/sites/x/live.data', 404],
  ['GET', '/SITES/x/LIVE.DATA', 404],
  ['GET', '/sites/x/live.data/', 404],
  ['GET', '/sites/x.data', 200],
  ['POST', '/sites/x/take.data', 200],
])('%s %s', async (method, path, status) => {
  expect((await fetch(`${address}${path}`, { method })).status).toBe(status)
})
