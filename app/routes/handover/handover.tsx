import { Heading, Text } from '@chakra-ui/react'
import { data, Link as RouterLink, redirect, useNavigation } from 'react-router'
import { handOver } from '../../../core/change/changes/handovers'
import { JUDGING_RULES } from '../../../core/checks/judging-rules'
import { openPoints, openSentences } from '../../../core/handover/ready'
import { sections } from '../../../core/handover/sections'
import { BOOK_UNITS, type Handover, handoverSchema, PAPERS, SECTIONS } from '../../../core/vocabulary/handover'
import { filesNamed } from '../../../server/files/files'
import { refused } from '../../../server/sites/change-site'
import { readForm } from '../../read-form.server'
import { addressWith, changeBy, loadSite, save, whyNotSaved } from '../../stored.server'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { MainButton, Notice } from '../../ui/controls'
import { LabelledField, PlainInput, PlainSelect, plainField, TextAreaField } from '../../ui/field'
import { Form } from '../../ui/form'
import { Moment } from '../../ui/moment'
import { useSite } from '../../ui/site-context'
import { openView } from '../../views.server'
import { handOf, NOBODY } from '../../who.server'
import type { Route } from './+types/handover'
import look from './handover.module.css'
import { addressOf, beginPack } from './pack-job.server'

/** Hands the site over as it stands, and begins to make what is handed over. */
export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request)
  const hand = await handOf(request, form)
  const { identity } = await loadSite(params.site)
  const id = `handover-${(hand.id ?? crypto.randomUUID()).slice(0, 40)}`
  const saved = await changeBy(hand, params.site, async (copy) => {
    const { plan, place } = copy
    const { assessed } = await openView(params.site, copy, identity)
    const read = handoverSchema.safeParse({
      id,
      name: form.get('name'),
      client: form.get('client'),
      at: new Date().toISOString(),
      ...(hand.by === NOBODY ? {} : { by: hand.by }),
      log: identity,
      place,
      judged: JUDGING_RULES,
      ...(form.get('conditions') ? { conditions: form.get('conditions') } : {}),
      open: openSentences(openPoints(assessed)),
      pins: [...filesNamed({ ...plan, handovers: [] })],
      paper: form.get('paper') ?? undefined,
      units: form.get('units') ?? undefined,
      sections: form.getAll('section'),
    })
    if (read.success) return handOver(read.data)
    const [issue] = read.error.issues
    const field = String(issue?.path[0] ?? 'name')
    return refused(field, WRONG[field] ?? `${field}: ${issue?.message ?? 'it is not readable'}`)
  })
  if (saved?.outcome === 'saved') {
    // where that cannot begin now, the page of the handover begins it
    await save(() => beginPack(params.site, id, addressOf(request), hand.by))
    return redirect(addressWith(`/sites/${params.site}/handover/${id}`, { took: saved.id }))
  }
  const { problem, status } = whyNotSaved(saved)
  return data({ problem }, { status })
}

/** What is said where a field cannot be read. */
const WRONG: Readonly<Record<string, string>> = {
  name: 'give it a name of 1 to 120 letters',
  client: 'say who it is for, in 1 to 120 letters',
  conditions: 'conditions have at most 2000 letters',
  sections: 'choose one part of the book at least',
}

const unitWords = { m: 'metres', ft: 'feet', both: 'both' } as const
const paperWords = { a4: 'A4', letter: 'US letter' } as const

/** Handover: what is not settled yet, what is to be made, and what was handed over before. */
export default function HandoverPage({ actionData }: Route.ComponentProps) {
  const { plan, assessed } = useSite()
  const busy = useNavigation().state === 'submitting'
  const points = openPoints(assessed)
  const [last] = plan.handovers.slice(-1)
  return (
    <>
      <Heading as="h1" size="xl" mb="2">
        Handover
      </Heading>
      <Text mb="3">
        What the client keeps: a book, tables, drawings and the plan, as the site stands now. It is kept as it is made;
        what changes later is told beside it.
      </Text>
      {actionData && <Notice tone="blocked">{actionData.problem}</Notice>}
      {plan.handovers.length > 0 && <Handed handovers={plan.handovers} />}
      <section className={look.section} aria-labelledby="ready">
        <h2 id="ready">Ready?</h2>
        {points.length === 0 ? (
          <Notice tone="clear">Everything is settled: all runs are proved or accepted, and nothing waits.</Notice>
        ) : (
          <>
            <p className={text.quiet}>
              You can hand over all the same. The book then says on its first page what was open.
            </p>
            <ul className={look.points}>
              {points.map(({ name, says, things }) => (
                <li key={name}>
                  <b>
                    {name}: {things.length}
                  </b>{' '}
                  <span className={text.quiet}>{says}</span>
                  <span className={look.things}>
                    {things.slice(0, MOST_THINGS).map(({ label, page }) => (
                      <RouterLink key={`${page} ${label}`} to={`/sites/${plan.site.id}/${page}`} className={text.link}>
                        {label}
                      </RouterLink>
                    ))}
                    {things.length > MOST_THINGS && (
                      <span className={text.quiet}>and {things.length - MOST_THINGS} more</span>
                    )}
                  </span>
                </li>
              ))}
            </ul>
          </>
        )}
      </section>
      <section className={look.section} aria-labelledby="make">
        <h2 id="make">Hand over</h2>
        <Form method="post" needs="lead" className={look.form}>
          <MadeFrom />
          <LabelledField field={plainField('name')} label="Name">
            <PlainInput
              id="field-name"
              name="name"
              required
              maxLength={120}
              defaultValue={last ? '' : plan.site.name}
              placeholder="bridge hall, spring"
            />
          </LabelledField>
          <LabelledField field={plainField('client')} label="For whom">
            <PlainInput id="field-client" name="client" required maxLength={120} defaultValue={last?.client ?? ''} />
          </LabelledField>
          <TextAreaField
            field={plainField('conditions')}
            label="Conditions"
            hint="What holds for all of it, if anything."
            rows={2}
          />
          <div className={look.pair}>
            <LabelledField field={plainField('paper')} label="Paper">
              <PlainSelect id="field-paper" name="paper" defaultValue={last?.paper ?? 'a4'}>
                {PAPERS.map((paper) => (
                  <option key={paper} value={paper}>
                    {paperWords[paper]}
                  </option>
                ))}
              </PlainSelect>
            </LabelledField>
            <LabelledField field={plainField('units')} label="Lengths in">
              <PlainSelect id="field-units" name="units" defaultValue={last?.units ?? 'both'}>
                {BOOK_UNITS.map((unit) => (
                  <option key={unit} value={unit}>
                    {unitWords[unit]}
                  </option>
                ))}
              </PlainSelect>
            </LabelledField>
          </div>
          <details className={look.parts}>
            <summary>Parts of the book</summary>
            <fieldset>
              <legend className={text.hidden}>Parts of the book</legend>
              {SECTIONS.map((name) => (
                <label key={name}>
                  <input
                    type="checkbox"
                    name="section"
                    value={name}
                    defaultChecked={last?.sections.includes(name) ?? true}
                  />
                  <span>
                    {sections[name].title}
                    <span className={text.quiet}> {sections[name].says}</span>
                  </span>
                </label>
              ))}
            </fieldset>
          </details>
          <MainButton loading={busy}>Hand over</MainButton>
        </Form>
      </section>
    </>
  )
}

const MOST_THINGS = 12

function Handed({ handovers }: { handovers: readonly Handover[] }) {
  const { plan } = useSite()
  const home = `/sites/${plan.site.id}/handover`
  return (
    <section className={look.section} aria-labelledby="handed">
      <h2 id="handed">Handed over</h2>
      <ul className={look.handed}>
        {[...handovers].reverse().map(({ id, name, client, at, by, open }) => (
          <li key={id}>
            <RouterLink to={`${home}/${id}`} className={text.link}>
              {name}
            </RouterLink>{' '}
            for {client}, <Moment at={at} dayOnly />
            {by && `, ${by}`}
            {open.length > 0 && <span className={text.quiet}>, with {open.length} things open</span>}.{' '}
            <RouterLink to={`${home}/${id}/since`} className={text.link}>
              What has changed since
              <span className={text.hidden}> {name}</span>
            </RouterLink>
          </li>
        ))}
      </ul>
    </section>
  )
}
