import { expect, it } from 'vitest'
import { runStage, type Stage } from '../../.ci/stage'

const stage = (script: string, more: Partial<Stage> = {}): Stage => ({
  name: 'a stage',
  command: 'sh',
  words: ['-c', script],
  minutes: 1,
  ...more,
})

it('a stage that is not done by its deadline is ended with all it started, and says what it was at', async () => {
  const outcome = await runStage(
    stage('echo begun; echo working on the third; exec sleep 60', { minutes: 0.02 }),
    'at its end',
  )
  expect(outcome).toMatchObject({ ok: false, failed: 1, cutShortAt: 'begun | working on the third' })
})
it('a stage passes or fails as its command does, and a runner that leaves no results has failed', async () => {
  expect(await runStage(stage('true'), 'at its end')).toMatchObject({
    ok: true,
    passed: 1,
    failed: 0,
    cutShortAt: null,
  })
  expect(await runStage(stage('exit 3'), 'at its end')).toMatchObject({ ok: false, passed: 0, failed: 1 })
  const results = { file: 'test-results/never-written.json', by: 'vitest' } as const
  expect(await runStage(stage('true', { results }), 'at its end')).toMatchObject({ ok: false, failed: 1 })
})
