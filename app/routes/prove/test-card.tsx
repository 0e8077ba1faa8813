import { Link as RouterLink, useNavigation } from 'react-router'
import { gradeTexts, predictionText, readingText } from '../../../core/bench/grade-reading'
import { type AskedValue, valueExamples } from '../../../core/bench/read-value'
import { sharedModes } from '../../../core/link/shared-modes'
import { isGood } from '../../../core/observe/came'
import type { Tried } from '../../../core/observe/observation'
import { socketAt } from '../../../core/plan/site-index'
import { canTell } from '../../../core/prove/can-tell'
import { PASTED_KINDS } from '../../../core/prove/pasted'
import { predictedSituation, predictRun } from '../../../core/prove/predict-run'
import { changeWords } from '../../../core/prove/rests'
import type { RunTest, RunTestKind } from '../../../core/prove/run-tests'
import type { TestResult, TestStanding } from '../../../core/prove/test-standing'
import { testName } from '../../../core/prove/test-words'
import { whereToLook } from '../../../core/prove/where-to-look'
import { durationText } from '../../../core/quantity/duration'
import { linkModeFacts } from '../../../core/standards/link-modes'
import { SHORTEST_SOAK_SECONDS } from '../../../core/standards/soak'
import type { Run } from '../../../core/vocabulary/run'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { Notice, QuietButton } from '../../ui/controls'
import {
  CheckField,
  LabelledField,
  PlainInput,
  PlainSelect,
  plainField,
  TextAreaField,
  TextField,
} from '../../ui/field'
import { Form } from '../../ui/form'
import { GradeMark } from '../../ui/grade'
import { Moment } from '../../ui/moment'
import row from '../../ui/row-form.module.css'
import { useSite } from '../../ui/site-context'
import look from './prove.module.css'

type Props = { run: Run; standing: TestStanding; hardest: readonly string[]; wrong: string | null }

/** One test of a run: what it should do, what it did, where to look, what the result can prove. */
export function TestCard({ run, standing, hardest, wrong }: Props) {
  const { index, assessed } = useSite()
  const { test, result, passed, failed, waived } = standing
  const crossings = assessed.walks.crossings.get(run.id) ?? []
  const situation = predictedSituation(index, run, crossings, test.socket)
  const prediction = predictRun(situation, test)
  const tells = canTell(situation, test, prediction)
  const name = testName(index, test, run)
  const where = whereToLook[test.kind]
  return (
    <li className={look.test} data-passed={result ? passed : undefined}>
      <h3>
        {name}
        {test.optional && <span className={text.quiet}> (holds up no acceptance)</span>}
        {result?.grade && !result.stale && <GradeMark grade={result.grade.grade} />}
      </h3>
      <dl>
        <dt>Should</dt>
        <dd>{predictionText(prediction)}</dd>
        <dt>Did</dt>
        <dd>{result ? <Result run={run} result={result} /> : <span className={text.quiet}>not tested yet</span>}</dd>
      </dl>
      {waived && !passed && <p className={text.quiet}>Accepted without it.</p>}
      {failed && !waived && (
        <p>
          Failed.{' '}
          <RouterLink to={`/sites/${index.plan.site.id}/faults?run=${run.id}`} className={text.link}>
            Find the fault<span className={text.hidden}>, {name}</span>
          </RouterLink>
        </p>
      )}
      {wrong && <Notice tone="blocked">{wrong}</Notice>}
      <ResultForm run={run} test={test} name={name} hard={hardest.length > 0} />
      <details className={text.small}>
        <summary>Where to look</summary>
        <p>On the usual desktop systems: {where.desktop}</p>
        <p>On Linux: {where.linux}</p>
        {where.otherwise && <p>{where.otherwise}</p>}
      </details>
      <details className={text.small}>
        <summary>What it can tell</summary>
        <p>The limit will be {tells.limit}.</p>
        <p>If it passes: {tells.proves}</p>
        <p>What it cannot tell: {lowered(tells.cannot)}</p>
        {tells.borrow && <p>To prove more, borrow {tells.borrow}.</p>}
      </details>
    </li>
  )
}

const lowered = (sentence: string): string => `${sentence[0]?.toLowerCase() ?? ''}${sentence.slice(1)}`

function Result({ run, result }: { run: Run; result: TestResult }) {
  const { index } = useSite()
  const { reading, at, grade, came, counted, stale, easier, short } = result
  return (
    <>
      {readingText(reading as Tried)}
      {grade && !stale && isGood(came) && `, ${grade.beyond ? 'more than predicted' : gradeTexts[grade.grade]}`}
      {!grade && ', something else was the limit'}, <Moment at={at} />
      {came === 'comes and goes' && !stale && (
        <span className={text.warn}>
          {' '}
          Comes and goes: failed in {counted.failed} of {counted.held + counted.failed} tries.
        </span>
      )}
      {came === 'failed' && counted.held > 0 && !stale && (
        <span className={text.warn}>
          {' '}
          Failed in {counted.failed} of {counted.held + counted.failed} tries, and never held for{' '}
          {SHORTEST_SOAK_SECONDS} s.
        </span>
      )}
      {came === 'begun anew' && !stale && (
        <span className={text.warn}> Set right since: three tries and a soak will tell.</span>
      )}
      {stale && (
        <span className={text.warn}>
          {' '}
          Stale, prove it again: {stale.map((change) => changeWords(index, run, change)).join('; ')}.
        </span>
      )}
      {easier && !stale && <span className={text.warn}> Not everything ran at once.</span>}
      {short && !stale && grade?.grade !== 'blocked' && (
        <span className={text.warn}> Not watched for long enough.</span>
      )}
    </>
  )
}

/** A line for what was read, or for a soak its beginning. */
function ResultForm({ run, test, name, hard }: { run: Run; test: RunTest; name: string; hard: boolean }) {
  const { index } = useSite()
  const busy = useNavigation().state === 'submitting'
  const { kind, key } = test
  const field = (of: string) => ({ ...plainField(of), id: `${of}-${key.replace(/[^a-z0-9]+/gi, '-')}` })
  const named = (label: string) => (
    <>
      {label}
      <span className={text.hidden}>, {name}</span>
    </>
  )
  const hidden = (
    <>
      <MadeFrom />
      <input type="hidden" name="test" value={key} />
    </>
  )
  if (kind === 'soak')
    return (
      <Form method="post" preventScrollReset className={row.form}>
        {hidden}
        <LabelledField field={field('for')} label={named('Watch it for')}>
          <PlainInput id={field('for').id} name="for" defaultValue={durationText(test.seconds)} />
        </LabelledField>
        {hard && (
          <CheckField field={{ ...field('hard'), initialValue: 'on' }} label="Everything at once, as listed above" />
        )}
        <QuietButton name="intent" value="soak" loading={busy} aria-label={`Start the soak: ${name}`}>
          Start the soak
        </QuietButton>
      </Form>
    )
  return (
    <Form method="post" preventScrollReset className={row.form}>
      {hidden}
      <LabelledField field={field('value')} label={named('What you read')}>
        <ValueInput run={run} test={test} id={field('value').id} />
      </LabelledField>
      <QuietButton name="intent" value="result" loading={busy} aria-label={`Write it down: ${name}`}>
        Write it down
      </QuietButton>
      {PASTED_KINDS.some((each) => each === kind) && (
        <details className={text.small} style={{ flexBasis: '100%' }}>
          <summary>Or paste what the screen says</summary>
          <TextAreaField field={field('pasted')} label={named('Pasted')} rows={4} />
        </details>
      )}
      <details className={text.small} style={{ flexBasis: '100%' }}>
        <summary>What may have mattered</summary>
        <CheckField field={field('alone')} label="Everything else was unplugged" />
        {kind !== 'link' && kind !== 'picture' && (
          <LabelledField field={field('limit')} label={named('What was the limit')}>
            <PlainSelect id={field('limit').id} name="limit" defaultValue="">
              <option value="">as predicted, or not known</option>
              {['lead', 'disk', 'charger', 'display', 'device'].map((each) => (
                <option key={each} value={each}>
                  the {each}
                </option>
              ))}
            </PlainSelect>
          </LabelledField>
        )}
        {kind === 'watts' && (
          <TextField field={field('charge')} label={named('Battery, in percent')} inputMode="numeric" maxLength={6} />
        )}
        <TextField
          field={field('with')}
          label={named('With which disk, charger or display')}
          hint={`Left empty: ${socketAt(index, kind === 'watts' ? test.socket : run.to).device.name}.`}
          maxLength={120}
        />
        <TextField field={field('note')} label={named('Note')} maxLength={500} />
      </details>
    </Form>
  )
}

/** What can be answered where no figure is read. */
const answersOf: Partial<Record<RunTestKind, Record<string, string>>> = {
  picture: { held: 'it can be chosen, and stays', not: 'it cannot, or goes black' },
  sight: { right: 'it looks right', wrong: 'it flickers, sparkles or is blurred' },
}

function ValueInput({ run, test, id }: { run: Run; test: RunTest; id: string }) {
  const { index } = useSite()
  if (test.kind === 'link') {
    const spoken = sharedModes(index, { from: test.socket, to: run.to })
    return (
      <PlainSelect id={id} name="value" defaultValue="">
        <option value="">Choose</option>
        {spoken.map((mode) => (
          <option key={mode} value={mode}>
            {linkModeFacts[mode].name}
          </option>
        ))}
        <option value="nothing">nothing came up</option>
        <option value="dropped">it came up and dropped</option>
      </PlainSelect>
    )
  }
  const answers = answersOf[test.kind]
  if (answers)
    return (
      <PlainSelect id={id} name="value" defaultValue="">
        <option value="">Choose</option>
        {Object.entries(answers).map(([value, words]) => (
          <option key={value} value={value}>
            {words}
          </option>
        ))}
      </PlainSelect>
    )
  return (
    <PlainInput id={id} name="value" maxLength={4000} placeholder={valueExamples[test.kind as AskedValue['kind']]} />
  )
}
