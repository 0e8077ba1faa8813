import { expect, it } from 'vitest'
import { type SoundLead, sampleAt } from '../../core/bench/simulated-lead'
import { meterStream } from './simulated-meter'

const nothing = { write: null, read: null, watts: null, voltsLost: null, picture: null }
const sound: SoundLead = { ...nothing, mode: 'usb4-40' }
it('streams samples as server-sent events until nobody looks', async () => {
  const away = new AbortController()
  const reader = meterStream({ cable: 'cable-1', lead: 'as marked', sound, pace: 30 }, away.signal).getReader()
  const decoder = new TextDecoder()
  const next = async () => {
    const { value } = await reader.read()
    const found = /^event: sample\ndata: (.*)\n\n$/.exec(decoder.decode(value))
    return JSON.parse(found?.[1] ?? 'null')
  }
  expect(await next()).toEqual(sampleAt(0, 'cable-1', 'as marked', sound))
  expect((await next()).seconds).toBe(15)
  away.abort()
  // what stops is the clock, without an error for anybody
  await reader.cancel()
})
