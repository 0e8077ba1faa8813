import { isRunSoak, type RunSoak, type Soak } from '../vocabulary/session'

/** How a soak of a run stands at a moment. */
export type SoakStanding = {
  soak: RunSoak
  /** Seconds since it began, by the clock of whoever asks. A clock that was put back gives none. */
  seconds: number
  /** It has lasted as long as was asked. */
  over: boolean
}

/** The soaks of runs that go on at a moment, those that are over first, then the longest. */
export const runSoaksOf = (soaks: readonly Soak[], now: Date): SoakStanding[] =>
  soaks
    .filter(isRunSoak)
    .map((soak) => soakStanding(soak, now))
    .sort((one, other) => Number(other.over) - Number(one.over) || other.seconds - one.seconds)

export function soakStanding(soak: RunSoak, now: Date): SoakStanding {
  const seconds = Math.max(0, Math.floor((now.getTime() - Date.parse(soak.since)) / 1000))
  return { soak, seconds, over: seconds >= soak.seconds }
}
