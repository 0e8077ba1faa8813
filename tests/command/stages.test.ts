import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
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
it('a test that failed is named at the end, with what it said', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'hallway-stages-'))
  const told = {
    vitest: {
      numPassedTests: 1,
      numFailedTests: 1,
      testResults: [
        {
          name: 'a.test.ts',
          startTime: 0,
          endTime: 1000,
          assertionResults: [
            { fullName: 'good', status: 'passed', failureMessages: [] },
            { fullName: 'bad', status: 'failed', failureMessages: ['2 is not 3'] },
          ],
        },
      ],
    },
    playwright: {
      stats: { expected: 1, flaky: 0, unexpected: 1 },
      suites: [
        {
          file: 'a.spec.ts',
          specs: [{ title: 'good', tests: [{ results: [{ duration: 5 }] }] }],
          suites: [
            {
              file: 'a.spec.ts',
              specs: [{ title: 'bad', tests: [{ results: [{ duration: 5, error: { message: '\u001b[31mgone' } }] }] }],
            },
          ],
        },
      ],
    },
  } as const
  const complaintsOf = async (by: keyof typeof told) => {
    const file = join(folder, `${by}.json`)
    writeFileSync(`${file}.kept`, JSON.stringify(told[by]))
    const script = `cp ${file}.kept ${file}; exit 1`
    return (await runStage(stage(script, { results: { file, by } }), 'at its end')).complaints
  }
  expect(await complaintsOf('vitest')).toEqual(['bad\n2 is not 3'])
  expect(await complaintsOf('playwright')).toEqual(['a.spec.ts: bad\ngone'])
})
