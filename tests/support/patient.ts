/** For tests that are not about waiting: a busy machine may stand still for longer than a page waits. */
export const PATIENT = { patienceMs: 60_000 }
