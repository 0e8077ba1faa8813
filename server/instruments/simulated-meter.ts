import { setTimeout as wait } from 'node:timers/promises'
import { type SimulatedLead, type SoundLead, sampleAt } from '../../core/bench/simulated-lead'

const SAMPLES_A_SECOND = 2
/** A meter nobody looks at any more stops by itself. */
const LONGEST_SECONDS = 3600

/**
 * The simulated bench meter: server-sent events, two samples a second, each a `MeterSample` as JSON. `pace` lets its clock run faster than
 * the wall's. It stands in for a real instrument behind the same events.
 */
export function meterStream(
  { cable, lead, sound, pace }: { cable: string; lead: SimulatedLead; sound: SoundLead; pace: number },
  signal: AbortSignal,
): ReadableStream<Uint8Array> {
  const encoder = new TextEncoder()
  return new ReadableStream({
    async start(controller) {
      try {
        for (let at = 0; at <= LONGEST_SECONDS * SAMPLES_A_SECOND; at += 1) {
          const seconds = (at / SAMPLES_A_SECOND) * pace
          const sample = sampleAt(seconds, cable, lead, sound)
          controller.enqueue(encoder.encode(`event: sample\ndata: ${JSON.stringify(sample)}\n\n`))
          await wait(1000 / SAMPLES_A_SECOND, undefined, { signal })
        }
        controller.close()
      } catch (error) {
        // whoever watched went away
        if (!signal.aborted) controller.error(error)
      }
    },
  })
}
