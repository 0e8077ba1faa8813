import type { MiddlewareFunction } from 'react-router'
import { catchUpWithCluster, clusterPlace, readPlace, writePlace } from '../server/database/cluster'
import { database, isDatabaseAway } from '../server/database/connection'
import { READS, unlessAway } from './asker.server'
import { carriedBy, carry } from './carried.server'

/**
 * Whoever saved something at one node of a cluster finds it at every other: their browser carries how far the cluster had come, and a node that is not
 * there yet catches up before it answers. What is sent is always made of what the whole cluster has.
 */
export const notBehind: MiddlewareFunction<Response> = async ({ request }, next) => {
  const reads = READS.has(request.method)
  if (reads)
    await unlessAway(async () => {
      const place = readPlace((await carriedBy(request)).place)
      if (place) await catchUpWithCluster(database(), place)
    })
  // whoever takes what was sent finds the database away by itself, and says so beside what was typed
  else await evenIfAway(() => catchUpWithCluster(database()))
  const answer = await next()
  // what gives a browser something to carry has written it down as well
  if (reads && !answer.headers.has('Set-Cookie')) return answer
  // where the database is away the answer stands as it is: it tells what became of what was sent
  await evenIfAway(async () => {
    const place = await clusterPlace(database())
    if (place) answer.headers.append('Set-Cookie', await carry('place', writePlace(place)))
  })
  return answer
}

async function evenIfAway(work: () => Promise<void>): Promise<void> {
  try {
    await work()
  } catch (error) {
    if (!isDatabaseAway(error)) throw error
  }
}
