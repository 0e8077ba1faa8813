import { expect, it } from 'vitest'
import { newClock, runner, workOf } from './thread'

const spin = (ms: number) => {
  for (const until = performance.now() + ms; performance.now() < until; );
}

it('tells what a thread has worked since its task began, and not what it waited', async () => {
  spin(50)
  const clock = newClock()
  expect(workOf(clock)).toBeNull()
  const run = runner({ wait: async (ms: number) => new Promise((done) => setTimeout(done, ms)), spin })
  await run({ name: 'wait', input: 300, clock })
  const waited = workOf(clock) ?? 0
  expect(waited).toBeLessThan(200)
  run({ name: 'spin', input: 200, clock })
  // on a busy machine a thread works less than the clock on the wall says, never more
  const worked = workOf(clock) ?? 0
  expect(worked).toBeGreaterThan(20)
  expect(worked).toBeLessThan(300)
})
it('knows its tasks by name', () => {
  expect(() => runner({})({ name: 'toString', input: 1, clock: newClock() })).toThrow('no task')
})
