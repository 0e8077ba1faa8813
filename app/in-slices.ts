import type { InSlices } from '../core/work/in-slices'

/** As long as one slice may hold the page up. */
const SLICE_MS = 12

/** Runs long work a slice at a time, so that the page answers whoever uses it in between. */
export async function inSlices<T>(work: InSlices<T>): Promise<T> {
  for (;;) {
    const until = performance.now() + SLICE_MS
    do {
      const { done, value } = work.next()
      if (done) return value
    } while (performance.now() < until)
    await new Promise((resume) => setTimeout(resume))
  }
}
