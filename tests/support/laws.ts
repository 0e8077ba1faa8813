import fc from 'fast-check'

// How thoroughly laws are tried: a share of their full number of made-up cases and always the same ones with every change, all of them and new ones at night.

const share = Number(process.env.HALLWAY_LAWS ?? 0.25)
const seed = Number(process.env.HALLWAY_SEED ?? 20_261_201)

/** So few a law is tried with at least, where its full number is not smaller still. */
const LEAST = 12

/** With how many made-up cases a law is tried, of its full number. */
export const cases = (full: number): number => Math.min(full, Math.max(LEAST, Math.ceil(full * share)))

/** How many of something a law has to come upon with that share of its cases, of what it has to come upon with all of them. */
export const inProportion = (full: number): number => Math.floor(full * Math.min(1, share))

// what a law came upon is found again by HALLWAY_SEED, which a failure prints
fc.configureGlobal({ seed, numRuns: cases(100) })
