import { Heading } from '@chakra-ui/react'
import { data, Link as RouterLink, redirect, useNavigation } from 'react-router'
import { standingOfSearch } from '../../../core/faults/search'
import { seenIn } from '../../../core/faults/seen-in'
import { stopFacts } from '../../../core/faults/stops'
import { knownOf } from '../../../core/link/lay'
import { type KnownCable, markedWatts } from '../../../core/observe/known'
import { leadCable, socketAt } from '../../../core/plan/site-index'
import { whereToLook } from '../../../core/prove/where-to-look'
import { decimal } from '../../../core/quantity/parsed'
import { GIGABIT } from '../../../core/quantity/rate'
import { connectorNames } from '../../../core/standards/connectors'
import { gradeFacts } from '../../../core/standards/grades'
import type { Run } from '../../../core/vocabulary/run'
import { readForm } from '../../read-form.server'
import { addressWith, changeBy, whyNotSaved } from '../../stored.server'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { ConnectorFace } from '../../ui/connector-face'
import { MainButton, Notice, QuietButton } from '../../ui/controls'
import { ErrorView } from '../../ui/error-view'
import { Form } from '../../ui/form'
import { useSite } from '../../ui/site-context'
import { handOf } from '../../who.server'
import type { Route } from './+types/afar'
import look from './faults.module.css'
import { draftSearch } from './search-action.server'
import { assessedSite, sceneAt, searchIn } from './search-view.server'

export async function loader({ params }: Route.LoaderArgs) {
  const assessed = await assessedSite(params.site)
  const { search, run } = searchIn(assessed.index.plan, params.search)
  const { stops, next, looks, conclusion } = standingOfSearch(
    sceneAt(assessed, run),
    search,
    seenIn(assessed.index.plan, search),
  )
  return { stops, next: next.slice(0, PRINTED), looks: looks.slice(0, 1), state: conclusion.state }
}
/** Steps on the printed list. */
const PRINTED = 5

/** An answer from whoever is there. It is the same search as on the page of whoever asks. */
export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request)
  const hand = await handOf(request, form)
  const saved = await changeBy(hand, params.site, (copy) => draftSearch(copy, params.search, form, null, hand))
  if (saved?.outcome === 'saved')
    return redirect(addressWith(`/sites/${params.site}/faults/${params.search}/afar`, { took: saved.id }))
  const { problem, status } = whyNotSaved(saved)
  return data({ problem }, { status })
}

/** The search for somebody who stands at the equipment: one step at a time, in plain words, with what to look at and answers to tap. */
export default function Afar({ loaderData, actionData, params }: Route.ComponentProps) {
  const { plan, index } = useSite()
  const busy = useNavigation().state === 'submitting'
  const search = plan.searches.find(({ id }) => id === params.search)
  const run = search && index.runs.get(search.run)
  if (!search || !run) return <ErrorView status={404} />
  const { stops, next, looks, state } = loaderData
  const halt = stops.find(({ cleared }) => cleared === null)
  const [first] = next
  const over = search.ended !== undefined || state === 'found'
  return (
    <>
      <Heading as="h1" size="xl" mb="1">
        {over ? 'Thank you, that is all' : 'One thing at a time'}
      </Heading>
      {actionData && <Notice tone="blocked">{actionData.problem}</Notice>}
      {halt ? (
        <section className={look.stop} role="alert">
          <h2>Stop. {stopFacts[halt.name].title}</h2>
          <ol>
            {stopFacts[halt.name].steps.map((step) => (
              <li key={step}>{step}</li>
            ))}
          </ol>
          <p>Then call whoever asked you to look.</p>
        </section>
      ) : over || !first ? (
        <p>Whoever asked you to look has your answers, and goes on from there.</p>
      ) : (
        <section className={look.next} aria-labelledby="step">
          <h2 id="step">{first.how}</h2>
          <Form method="post" className={look.taps}>
            <MadeFrom />
            <input type="hidden" name="intent" value="try" />
            <input type="hidden" name="try" value={first.key} />
            {first.outcomes.map(({ name, says }) => (
              <MainButton key={name} large name="outcome" value={name} loading={busy}>
                {says}
              </MainButton>
            ))}
          </Form>
        </section>
      )}
      {!halt && !over && looks[0] && (
        <section className={look.section}>
          <h2>{looks[0].saw}?</h2>
          <p>{looks[0].look}</p>
          <Form method="post" className={look.taps}>
            <MadeFrom />
            <input type="hidden" name="intent" value="look" />
            <input type="hidden" name="symptom" value={looks[0].symptom} />
            <QuietButton large name="told" value="yes">
              Yes
            </QuietButton>
            <QuietButton large name="told" value="no">
              No
            </QuietButton>
          </Form>
        </section>
      )}
      <WhatItIs run={run} />
      <section className={look.section} aria-labelledby="read">
        <h2 id="read">Where to read it</h2>
        <p>{whereToLook.link.desktop}</p>
        <p>On Linux: {whereToLook.link.linux}</p>
        <p>{whereToLook.picture.otherwise}</p>
      </section>
      {!over && next.length > 0 && (
        <section className={look.printed} aria-labelledby="paper">
          <h2 id="paper">On paper, where there is no network</h2>
          <p className={text.quiet}>
            Print this page. Tick one answer a step, stop at the first that is gone, and call.
          </p>
          <ol>
            {next.map(({ key, how, outcomes }) => (
              <li key={key}>
                {how} <span className={text.quiet}>{outcomes.map(({ says }) => `☐ ${says}`).join('   ')}</span>
              </li>
            ))}
          </ol>
        </section>
      )}
      <p>
        <RouterLink to={`/sites/${plan.site.id}/faults/${search.id}`} className={text.link}>
          All of this search
        </RouterLink>
      </p>
    </>
  )
}

/** Which lead it is about, how to know it, and what its plugs look like. */
function WhatItIs({ run }: { run: Run }) {
  const { index } = useSite()
  const ends = [socketAt(index, run.from), socketAt(index, run.to)]
  const leads = run.leads.map((lead) => leadCable(index, lead))
  const tags = leads.map(({ tag }) => tag)
  const marks = [...new Set(leads.flatMap((cable) => printedOn(knownOf(index, cable))))]
  return (
    <section className={look.section} aria-labelledby="which">
      <h2 id="which">Which lead it is</h2>
      <p>
        {tags.length > 0 ? (
          <>
            The lead with the tag <b className={text.mono}>{tags.join(', then ')}</b>
          </>
        ) : (
          'The lead that belongs to the device'
        )}
        , run <b className={text.mono}>{run.tag}</b>:
      </p>
      {marks.length > 0 && (
        <p>
          What may be printed on its plugs:{' '}
          {marks.map((mark) => (
            <span key={mark} className={look.mark}>
              {mark}
            </span>
          ))}
        </p>
      )}
      <ul className={look.ends}>
        {ends.map(({ device, port }) => (
          <li key={`${device.id}/${port.id}`}>
            <ConnectorFace connector={port.connector} />
            <span>
              {connectorNames[port.connector]}, in “{port.name}” of {device.name}
            </span>
          </li>
        ))}
      </ul>
    </section>
  )
}

/** The figures that marks of a lead show: its Gb/s, and its watts where they are more than 60. */
function printedOn(known: KnownCable): string[] {
  const { value } = known.grade
  const gigabits = value === null ? 0 : gradeFacts[value].marked / GIGABIT
  const watts = markedWatts(known)
  return [...(gigabits >= 5 ? [decimal(gigabits, 1)] : []), ...(watts > UNMARKED_WATTS ? [`${watts} W`] : [])]
}
/** A lead without a chip carries so much. */
const UNMARKED_WATTS = 60
