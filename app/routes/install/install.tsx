import { Heading, Text } from '@chakra-ui/react'
import { data, Link as RouterLink, redirect, useNavigation, useSearchParams } from 'react-router'
import { bringUp, installRun, leadsByTags, takeOutRun } from '../../../core/change/changes/install'
import { cautionSentences } from '../../../core/checks/wording'
import { type InstallStop, type Job, runsToLay, workList } from '../../../core/install/work-list'
import { byId } from '../../../core/plan/lookup'
import { formatLength, parseLength } from '../../../core/quantity/length'
import { refused } from '../../../server/sites/change-site'
import { readForm } from '../../read-form.server'
import { addressWith, baseOf, changeBy, whyNotSaved } from '../../stored.server'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { MainButton, Notice, QuietButton } from '../../ui/controls'
import { LabelledField, PlainInput, PlainSelect, plainField } from '../../ui/field'
import { Form } from '../../ui/form'
import { lengthText } from '../../ui/form-text'
import { takesLength } from '../../ui/keep-typed-unit'
import { Moment } from '../../ui/moment'
import row from '../../ui/row-form.module.css'
import { useSite } from '../../ui/site-context'
import { Took } from '../../ui/take'
import { useUnit } from '../../ui/units'
import { readUnit } from '../../unit-cookie'
import { handOf } from '../../who.server'
import { witnessOf } from '../../witness.server'
import { Photos } from '../walk/photos'
import walk from '../walk/walk.module.css'
import type { Route } from './+types/install'
import look from './install.module.css'

/** A run was laid, taken out, or brought up part by part. */
export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request)
  const unit = readUnit(request)
  const hand = await handOf(request, form)
  const witness = witnessOf(hand)
  const id = String(form.get('run') ?? '')
  const saved = await changeBy(hand, params.site, ({ plan }) => {
    const run = byId(plan.runs).get(id)
    if (!run) return refused('run', 'somebody removed this run meanwhile')
    switch (form.get('intent')) {
      case 'laid': {
        const tags = String(form.get('leads') ?? '')
          .split(/[,;+\n]/)
          .map((tag) => tag.trim())
          .filter(Boolean)
        const leads = leadsByTags(plan, run, tags)
        if ('unknown' in leads) return refused('leads', `the drawer has no cable ${leads.unknown}`)
        if (leads.length === 0) return refused('leads', 'say which leads you laid')
        const typed = String(form.get('length') ?? '').trim()
        const length = typed === '' || typed === lengthText(run.route.length, unit) ? null : parseLength(typed, unit)
        if (length && !length.ok) return refused('length', length.problem)
        const note = String(form.get('note') ?? '')
          .trim()
          .slice(0, 500)
        return installRun(
          plan,
          baseOf(form),
          run,
          { leads, length: length?.value ?? null, note: note || undefined },
          witness,
        )
      }
      case 'out':
        return run.leads.every((lead) => 'cable' in lead) && run.leads.length > 0
          ? takeOutRun(run, witness)
          : refused('run', 'it has no lead')
      case 'brought up':
        return run.leads.some((lead) => 'cable' in lead)
          ? bringUp(run, String(form.get('broke') ?? '').slice(0, 200) || null, witness)
          : refused('run', 'it has no lead')
      default:
        return refused('intent', 'nothing was asked for')
    }
  })
  if (saved?.outcome === 'saved') {
    const all = form.get('all') === 'on' ? 'on' : null
    return redirect(`${addressWith(`/sites/${params.site}/install`, { all, took: saved.id })}#${id}`)
  }
  const { problem, status } = whyNotSaved(saved)
  return data({ problem, run: id }, { status })
}

/** Nobody lays more at once. */
const MOST_SHOWN = 40

/** Install: what to lay where, place by place, for a phone in one hand. */
export default function Install({ actionData }: Route.ComponentProps) {
  const { plan, index, assessment } = useSite()
  const [params, setParams] = useSearchParams()
  const all = params.get('all') === 'on'
  const toLay = runsToLay(index).length
  const stops = workList(index, assessment)
  const jobs = stops.flatMap((stop) => stop.jobs)
  const laid = jobs.filter((job) => job.laid).length
  const shown = all ? stops : stops.filter((stop) => [...stop.jobs, ...stop.ends].some((job) => !job.laid))
  return (
    <>
      <Heading as="h1" size="xl" mb="2">
        Install
      </Heading>
      <Took />
      {jobs.length === 0 ? (
        <Text>
          No run has a lead yet:{' '}
          <RouterLink to={`/sites/${plan.site.id}`} className={text.link}>
            choose leads under Match
          </RouterLink>
          , and what to lay where stands here.
        </Text>
      ) : (
        <>
          <Text mb="1">
            <b>
              {laid} of {jobs.length}
            </b>{' '}
            runs are laid. {toLay} can be laid now. Floor by floor, from the lowest up. Coil the full length on the
            floor and try it before you pull it in.
          </Text>
          <progress className={walk.progress} value={laid} max={jobs.length} aria-label="How many runs are laid" />
          <p className={text.small}>
            <QuietButton type="button" small onClick={() => setParams(all ? {} : { all: 'on' }, { replace: true })}>
              {all ? 'Show only what is left' : 'Show laid runs too'}
            </QuietButton>
          </p>
          {shown.length === 0 && <Notice tone="clear">Everything is laid. Prove it next.</Notice>}
          <ol className={walk.stops}>
            {shown.slice(0, MOST_SHOWN).map((stop) => (
              <StopCard key={stop.place?.id ?? ''} stop={stop} all={all} wrong={actionData} />
            ))}
          </ol>
          {shown.length > MOST_SHOWN && (
            <Text color="quiet">and {shown.length - MOST_SHOWN} more places after these.</Text>
          )}
        </>
      )}
    </>
  )
}

type Wrong = { problem: string; run: string } | undefined

function StopCard({ stop, all, wrong }: { stop: InstallStop; all: boolean; wrong: Wrong }) {
  const { place, floor, ends } = stop
  const jobs = all ? stop.jobs : stop.jobs.filter((job) => !job.laid)
  const arriving = all ? ends : ends.filter((job) => !job.laid)
  return (
    <li className={walk.stop}>
      <h2>
        {place?.name ?? 'On no place yet'} <span className={text.quiet}>{floor?.name ?? 'on no floor yet'}</span>
      </h2>
      {arriving.length > 0 && (
        <p className={text.small}>
          Comes out here:{' '}
          {arriving.map(({ run, to }) => (
            <span key={run.id}>
              <a href={`#${run.id}`} className={`${text.link} ${text.mono}`}>
                {run.tag}
              </a>{' '}
              into {to}.{' '}
            </span>
          ))}
        </p>
      )}
      {jobs.map((job) => (
        <JobCard key={job.run.id} job={job} all={all} wrong={wrong?.run === job.run.id ? wrong.problem : null} />
      ))}
      {place && jobs.length > 0 && (
        <details>
          <summary>
            Photos{(place.photos ?? []).length > 0 && `, ${place.photos?.length}`}
            <span className={text.hidden}> of {place.name}</span>
          </summary>
          <Photos place={place} from="install" />
        </details>
      )}
    </li>
  )
}

function JobCard({ job, all, wrong }: { job: Job; all: boolean; wrong: string | null }) {
  const { plan } = useSite()
  const unit = useUnit()
  const busy = useNavigation().state === 'submitting'
  const { run, from, to, toPlace, leads, slack, cautions, laid } = job
  const missing = leads.filter(({ atHand }) => !atHand)
  const field = (name: string) => ({ ...plainField(name), id: `${name}-${run.id}` })
  const named = (label: string) => (
    <>
      {label}
      <span className={text.hidden}>, {run.tag}</span>
    </>
  )
  const hidden = (
    <>
      <MadeFrom />
      <input type="hidden" name="run" value={run.id} />
      {all && <input type="hidden" name="all" value="on" />}
    </>
  )
  return (
    <section className={look.job} id={run.id} aria-label={run.tag}>
      <h3>
        <RouterLink to={`/sites/${plan.site.id}/runs/${run.id}`} className={`${text.link} ${text.mono}`}>
          {run.tag}
        </RouterLink>{' '}
        {laid && (
          <span className={text.quiet}>
            laid <Moment at={laid.at} />
            {laid.by && `, ${laid.by}`}
          </span>
        )}
      </h3>
      {wrong && <Notice tone="blocked">{wrong}</Notice>}
      <ul>
        <li>
          Host end here: <b>{from}</b>
        </li>
        {leads.map((lead) => (
          <li key={lead.key}>
            <b className={text.mono}>{lead.tag}</b>, {formatLength(lead.length, unit)}
            {!lead.atHand && ', not here yet'}
            {lead.oneWay && ', its arrow points away from the host'}
            {lead.reversed && !lead.oneWay && ', its second end to the host'}
            {lead.feed && `, ${lead.feed.needed ? 'needs' : 'may need'} its supply at the ${lead.feed.at} end`}
          </li>
        ))}
        <li>
          Other end: <b>{to}</b>
          {toPlace && ` (${toPlace})`}
        </li>
        <li>
          Route {formatLength(run.route.length, unit)}, {formatLength(slack, unit)} of slack at each end. Strain relief
          at both.
          {run.route.bend !== undefined && ` Tightest bend ${run.route.bend} mm.`}
        </li>
        {cautions.map((caution) => (
          <li key={caution}>
            {caution === 'local-code' && <b>For licensed people, not ticked here: </b>}
            {cautionSentences[caution]}
          </li>
        ))}
      </ul>
      {missing.length > 0 && <p className={text.quiet}>It waits for {missing.map(({ tag }) => tag).join(' and ')}.</p>}
      <Form method="post" preventScrollReset className={row.form}>
        {hidden}
        <LabelledField field={field('leads')} label={named('Leads, from the host on')}>
          <PlainInput
            id={field('leads').id}
            name="leads"
            mono
            required
            defaultValue={leads.flatMap(({ tag, atHand }) => (atHand ? tag : [])).join(' + ')}
          />
        </LabelledField>
        <LabelledField field={field('length')} label={named('Route')}>
          <PlainInput
            id={field('length').id}
            name="length"
            defaultValue={lengthText(run.route.length, unit)}
            {...takesLength}
          />
        </LabelledField>
        <LabelledField field={field('note')} label={named('Note')}>
          <PlainInput id={field('note').id} name="note" maxLength={500} />
        </LabelledField>
        <MainButton name="intent" value="laid" large loading={busy} aria-label={`${run.tag} is laid`}>
          It is laid
        </MainButton>
      </Form>
      {laid && (
        <Form method="post" preventScrollReset>
          {hidden}
          <QuietButton small grave name="intent" value="out" aria-label={`The leads of ${run.tag} are taken out`}>
            Its leads are taken out
          </QuietButton>
        </Form>
      )}
      {missing.length < leads.length && (
        <details>
          <summary>Bring it up part by part</summary>
          <p>
            Add one part at a time, and look whether it works after each. The first part that breaks it is the answer.
          </p>
          <Form method="post" preventScrollReset className={row.form}>
            {hidden}
            <LabelledField field={field('broke')} label={named('It broke when this was added')}>
              <PlainSelect id={field('broke').id} name="broke" defaultValue="">
                <option value="">nothing: all of it works</option>
                {[...leads.map(({ tag }) => tag), to].map((part) => (
                  <option key={part} value={part}>
                    {part}
                  </option>
                ))}
              </PlainSelect>
            </LabelledField>
            <QuietButton name="intent" value="brought up" aria-label={`${run.tag} is brought up`}>
              Write it down
            </QuietButton>
          </Form>
          <p className={text.small}>
            If a part breaks it, try another lead of the same length, then another port:{' '}
            <RouterLink to={`/sites/${plan.site.id}/runs/${run.id}`} className={text.link}>
              what else would do for {run.tag}
            </RouterLink>
          </p>
        </details>
      )}
    </section>
  )
}
