import { type MeterSample, type SimulatedLead, type SoundLead, sampleAt } from '../../core/bench/simulated-lead'

const SAMPLES_A_SECOND = 2
/** A meter nobody looks at any more stops by itself. */
const LONGEST_SECONDS = 3600

export type MeterOn = { cable: string; lead: SimulatedLead; sound: SoundLead; pace: number }

/**
 * The simulated bench meter: two samples a second until the answer is called. `pace` lets its clock run faster than the wall's. It stands in for a real
 * instrument behind the same events.
 */
export function playMeter({ cable, lead, sound, pace }: MeterOn, tell: (sample: MeterSample) => void): () => void {
  let at = 0
  const sample = () => {
    if (at > LONGEST_SECONDS * SAMPLES_A_SECOND) clearInterval(timer)
    else tell(sampleAt((at / SAMPLES_A_SECOND) * pace, cable, lead, sound))
    at += 1
  }
  const timer = setInterval(sample, 1000 / SAMPLES_A_SECOND)
  sample()
  return () => clearInterval(timer)
}
