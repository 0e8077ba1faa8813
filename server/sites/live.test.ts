import { setTimeout as wait } from 'node:timers/promises'
import { describe, expect, it } from 'vitest'
import { freshSites } from '../../tests/support/demo-site'
import { announce, listen } from './live'

const { now } = freshSites()

describe('whoever listens to a site', () => {
  it('hears of every place it comes to once, in order, until they stop', () => {
    const heard: number[] = []
    const stop = listen(now.knex, now.site, (place) => heard.push(place))
    for (const place of [2, 3, 3, 2, 4]) announce(now.site, place)
    announce('another-site', 9)
    stop()
    announce(now.site, 5)
    expect(heard).toEqual([2, 3, 4])
  })

  it('hears of what another process did, which only the database tells', async () => {
    const heard: number[] = []
    const stop = listen(now.knex, now.site, (place) => heard.push(place))
    await now.knex('sites').where({ id: now.site }).update({ place: 7 })
    while (!heard.includes(7)) await wait(50)
    stop()
    expect(heard.at(-1)).toBe(7)
  })

  it('listens on while the database is away', async () => {
    const heard: number[] = []
    let away = true
    const asked = Object.assign((table: string) => {
      if (away) throw new Error('away')
      return now.knex(table)
    }, now.knex)
    const stop = listen(asked as typeof now.knex, now.site, (place) => heard.push(place))
    await wait(900)
    expect(heard).toEqual([])
    away = false
    while (heard.length === 0) await wait(50)
    stop()
  })
})
