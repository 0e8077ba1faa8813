/** Long work that can be done a step at a time, so that whoever waits beside it gets a turn. */
export type InSlices<T> = Generator<void, T>

/** The same work done in one go. */
export function finished<T>(steps: InSlices<T>): T {
  for (;;) {
    const { done, value } = steps.next()
    if (done) return value
  }
}
