import { Heading, Text } from '@chakra-ui/react'
import { data, Link as RouterLink, redirect, useNavigation } from 'react-router'
import { soakOfRun } from '../../../core/change/changes/prove'
import { cautionSentences } from '../../../core/checks/wording'
import { isAtHand } from '../../../core/link/captive'
import { observationsOf } from '../../../core/observe/learned'
import type { Observation } from '../../../core/observe/observation'
import { leadCable, socketAt } from '../../../core/plan/site-index'
import type { JobSeen } from '../../../core/prove/jobs'
import { missingOf, proofOf, type RunProof } from '../../../core/prove/proof'
import { BEFORE_NOTED, lessWords, restsWords, staleWords } from '../../../core/prove/proof-words'
import { soakStanding } from '../../../core/prove/run-soak'
import { soakPromise } from '../../../core/prove/soak-promise'
import { stateWords, testName } from '../../../core/prove/test-words'
import { durationText } from '../../../core/quantity/duration'
import type { Run } from '../../../core/vocabulary/run'
import { type InstrumentNews, newsOf } from '../../../server/series/news'
import { readForm } from '../../read-form.server'
import { addressWith, changeBy, load, loadSite, whyNotSaved } from '../../stored.server'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { MainButton, Notice, QuietButton } from '../../ui/controls'
import { ErrorView } from '../../ui/error-view'
import { plainField, TextAreaField } from '../../ui/field'
import { Form } from '../../ui/form'
import { Moment } from '../../ui/moment'
import row from '../../ui/row-form.module.css'
import { useSite } from '../../ui/site-context'
import { Took } from '../../ui/take'
import { handOf } from '../../who.server'
import type { Route } from './+types/prove-run'
import { InstrumentsNow } from './instruments-now'
import { Jobs } from './jobs'
import look from './prove.module.css'
import { draftProof } from './prove-action.server'
import { SoakClock } from './soak-clock'
import { StateSteps } from './state-steps'
import { TestCard } from './test-card'

/** The time by the server's clock, by which soaks are counted, and the instruments on the run. */
export async function loader({ params }: Route.LoaderArgs) {
  const { plan } = (await loadSite(params.site)).copy
  if (!plan.runs.some(({ id }) => id === params.run)) throw data(null, { status: 404 })
  return {
    jobs: observationsOf(plan, { run: params.run }).filter(isJob),
    now: new Date().toISOString(),
    instruments: await load((knex) => newsOf(knex, params.site, params.run)),
  }
}

const isJob = (seen: Observation): seen is JobSeen => seen.kind === 'reading' && seen.measure === 'job'

/** A result, a soak begun, told of or ended, an acceptance. Each is saved by itself. */
export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request)
  const hand = await handOf(request, form)
  const saved = await changeBy(hand, params.site, (copy) => draftProof(copy, params.run, form, hand))
  const here = `/sites/${params.site}/prove/${encodeURIComponent(params.run)}`
  if (saved?.outcome === 'saved') return redirect(addressWith(here, { took: saved.id }))
  const { problem, status } = whyNotSaved(saved)
  return data({ problem, test: String(form.get('test') ?? '') }, { status })
}

export default function ProveRun({ loaderData, actionData, params }: Route.ComponentProps) {
  const { index } = useSite()
  const run = index.runs.get(params.run)
  if (!run) return <ErrorView status={404} />
  return <Proof key={run.id} run={run} {...loaderData} wrong={actionData} />
}

type Wrong = { problem: string; test: string } | undefined

type ProofProps = {
  run: Run
  now: string
  jobs: readonly JobSeen[]
  instruments: readonly InstrumentNews[]
  wrong: Wrong
}

/** One run, proved as it lies. */
function Proof({ run, now, jobs, instruments, wrong }: ProofProps) {
  const { plan, index, assessed, assessment } = useSite()
  const proof = proofOf(assessed, run)
  const [from, to] = [socketAt(index, run.from), socketAt(index, run.to)]
  const atHand = isAtHand(index, run)
  const cautions = assessment.runs.find(({ id }) => id === run.id)?.findings.flatMap(({ caution }) => caution ?? [])
  return (
    <>
      <Heading as="h1" size="xl" mb="1">
        Prove {run.tag}
      </Heading>
      <p>
        {from.device.name}, {from.port.name} to {to.device.name}, {to.port.name}:{' '}
        <span className={text.mono}>
          {run.leads.map((lead) => leadCable(index, lead).tag).join(' + ') || (atHand ? 'its own lead' : 'no lead yet')}
        </span>
        .{' '}
        <RouterLink to={`/sites/${plan.site.id}/runs/${run.id}`} className={text.link}>
          Its plan and all that was seen of it
        </RouterLink>
      </p>
      <StateSteps proof={proof} />
      <Text mb="2">
        {stateWords[proof.state].says} {proof.asked > 0 && `${proof.passed} of ${proof.asked} tests have passed.`}
        {proof.failed > 0 && (
          <>
            {' '}
            {proof.failed} failed.{' '}
            <RouterLink to={`/sites/${plan.site.id}/faults?run=${run.id}`} className={text.link}>
              Find the fault
            </RouterLink>
          </>
        )}
      </Text>
      <WhatChanged run={run} proof={proof} />
      <Took />
      {wrong && wrong.test === '' && <Notice tone="blocked">{wrong.problem}</Notice>}
      {[...new Set(cautions)].map((caution) => (
        <Notice key={caution} tone="tight">
          {cautionSentences[caution]}
        </Notice>
      ))}
      {!atHand ? (
        <Notice tone="note">
          It can be proved once all its leads are here.{' '}
          <RouterLink to={`/sites/${plan.site.id}/install`} className={text.link}>
            What to lay
          </RouterLink>
        </Notice>
      ) : (
        <>
          <SoakUnderWay run={run} now={now} />
          <InstrumentsNow run={run} known={instruments} />
          <Hardest proof={proof} />
          <section className={look.section} aria-labelledby="tests">
            <h2 id="tests">Tests</h2>
            <p className={text.quiet}>
              Each beside what Match predicts for it, without what was tested here. Start and end with a lead you know:
              if it reads differently, doubt the instrument.
            </p>
            {proof.tests.length === 0 && (
              <p>No need crosses it, and its ends speak no USB: there is nothing to test.</p>
            )}
            <ul className={look.tests}>
              {proof.tests.map((standing) => (
                <TestCard
                  key={standing.test.key}
                  run={run}
                  standing={standing}
                  hardest={proof.hardest}
                  wrong={wrong?.test === standing.test.key ? wrong.problem : null}
                />
              ))}
            </ul>
          </section>
          <Jobs run={run} jobs={jobs} wrong={wrong?.test === 'job' ? wrong.problem : null} />
          <Acceptance proof={proof} run={run} />
        </>
      )}
    </>
  )
}

/** What changed since it was tested or accepted. */
function WhatChanged({ run, proof }: { run: Run; proof: RunProof }) {
  const { index } = useSite()
  const changes = staleWords(index, run, proof)
  if (changes.length === 0) return null
  return (
    <Notice tone="tight">
      {proof.outdated.length > 0 ? 'What changed since it was accepted' : 'What changed since it was tested'}:{' '}
      {changes.join('; ')}.
    </Notice>
  )
}

function Hardest({ proof }: { proof: RunProof }) {
  if (proof.hardest.length === 0) return null
  return (
    <section className={look.section} aria-labelledby="hardest">
      <h2 id="hardest">The hardest case, all at once</h2>
      <ul className={look.list}>
        {proof.hardest.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
      <p className={text.quiet}>If less goes on, the soak says so and does not prove the run.</p>
    </section>
  )
}

function SoakUnderWay({ run, now }: { run: Run; now: string }) {
  const { plan } = useSite()
  const busy = useNavigation().state === 'submitting'
  const soak = soakOfRun(plan, run.id)
  if (!soak) return null
  const standing = soakStanding(soak, new Date(now))
  const drops = soak.drops ?? []
  return (
    <section
      className={look.soak}
      aria-label="Soak under way"
      data-over={standing.over || undefined}
      data-dropped={drops.length > 0 || undefined}
    >
      <p>
        <b>Soaks</b> since <Moment at={soak.since} />
        {soak.by && `, ${soak.by}`}: <SoakClock key={soak.since + now} standing={standing} />
        {soak.hard ? ', with everything at once' : ', with less than the hardest case'}.
      </p>
      {drops.length > 0 && (
        <p>
          Dropped{' '}
          {drops.slice(-6).map((at, position) => (
            <span key={at}>
              {position > 0 && ', '}
              <Moment at={at} />
            </span>
          ))}
          {drops.length > 6 && ` and ${drops.length - 6} times before`}.
        </p>
      )}
      <p className={text.small}>
        If it ended now: {soakPromise(drops, standing.seconds)}
        {!standing.over && ` It is good only after ${durationText(soak.seconds)}.`}
      </p>
      <Form method="post" preventScrollReset className={row.form}>
        <MadeFrom />
        <MainButton name="intent" value="end" loading={busy}>
          End it and write it down
        </MainButton>
        <QuietButton name="intent" value="drop">
          It just dropped
        </QuietButton>
        <QuietButton name="intent" value="call-off" grave>
          Stop without a result
        </QuietButton>
      </Form>
    </section>
  )
}

function Acceptance({ proof, run }: { proof: RunProof; run: Run }) {
  const { index } = useSite()
  const busy = useNavigation().state === 'submitting'
  const { accepted } = proof
  const missing = missingOf(proof)
  const named = missing.map(({ test }) => testName(index, test, run))
  const field = (name: string) => ({ ...plainField(name), id: `${name}-${run.id}` })
  return (
    <section className={look.section} aria-labelledby="acceptance">
      <h2 id="acceptance">Acceptance</h2>
      {accepted && (
        <>
          <p>
            Accepted <Moment at={accepted.at} />
            {accepted.by && `, ${accepted.by}`}
            {accepted.less && `, ${lessWords(index, run, proof)}`}
            {accepted.conditions && `. Conditions: ${accepted.conditions.replace(/\.$/, '')}`}.
            {proof.state !== 'accepted' && <b> It does not stand any more.</b>}
          </p>
          <p className={text.quiet}>
            {accepted.rests
              ? `It rests on: ${restsWords(index, run, accepted.rests).join('; ')}.`
              : `It is ${BEFORE_NOTED}.`}
          </p>
          <Form method="post" preventScrollReset>
            <MadeFrom />
            <QuietButton small grave name="intent" value="withdraw">
              Take the acceptance back
            </QuietButton>
          </Form>
        </>
      )}
      {proof.state !== 'accepted' && (
        <Form method="post" preventScrollReset className={look.accept}>
          <MadeFrom />
          {missing.length > 0 && (
            <TextAreaField
              field={field('less')}
              label={`${missing.length === 1 ? '1 test has' : `${missing.length} tests have`} not passed. Why is it accepted all the same?`}
              hint={`Accepted without: ${named.join('; ')}.`}
              rows={2}
            />
          )}
          <TextAreaField field={field('conditions')} label="What it may be used for, and conditions" rows={2} />
          <MainButton name="intent" value="accept" loading={busy}>
            {missing.length > 0 ? 'Accept it with less' : accepted ? 'Accept it again' : 'Accept it'}
          </MainButton>
        </Form>
      )}
    </section>
  )
}
