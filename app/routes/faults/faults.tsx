import { Heading, Text } from '@chakra-ui/react'
import { data, Link as RouterLink, redirect, useNavigation, useSearchParams } from 'react-router'
import { symptomFacts } from '../../../core/faults/symptoms'
import { socketAt } from '../../../core/plan/site-index'
import { isOpen, type Search, SYMPTOMS } from '../../../core/vocabulary/search'
import { readForm } from '../../read-form.server'
import { addressWith, changeBy, loadSite, whyNotSaved } from '../../stored.server'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { MainButton, Notice } from '../../ui/controls'
import { LabelledField, PlainInput, plainField, TextAreaField } from '../../ui/field'
import { Form } from '../../ui/form'
import { Moment } from '../../ui/moment'
import { useSite } from '../../ui/site-context'
import { Took } from '../../ui/take'
import { handOf } from '../../who.server'
import type { Route } from './+types/faults'
import { endWords } from './end-words'
import look from './faults.module.css'
import { draftBegin, LONGEST_LOG, passedOver, saidIn } from './search-action.server'

/** Begins a search at a run, and goes on to it. */
export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request, { longest: LONGEST_LOG })
  const pasted = await saidIn(form)
  const hand = await handOf(request, form)
  const saved = await changeBy(hand, params.site, (copy) => draftBegin(copy, form, pasted, hand))
  if (saved?.outcome === 'saved') {
    const { plan } = (await loadSite(params.site)).copy
    const wanted = String(form.get('run') ?? '')
      .trim()
      .toLowerCase()
    const run = plan.runs.find(({ id, tag }) => id === wanted || tag.toLowerCase() === wanted)
    const search = plan.searches.find((each) => each.run === run?.id && isOpen(each))
    const here = `/sites/${params.site}/faults`
    return redirect(addressWith(search ? `${here}/${search.id}` : here, { took: saved.id, ...passedOver(pasted) }))
  }
  const { problem, status } = whyNotSaved(saved)
  return data({ problem }, { status })
}

/** Ended searches that are shown at once. */
const MOST_ENDED = 40

/** Faults: what is searched now, what was found, and where a search begins. */
export default function Faults({ actionData }: Route.ComponentProps) {
  const { plan } = useSite()
  const open = plan.searches.filter(isOpen)
  const ended = plan.searches
    .filter((search) => !isOpen(search))
    .sort((one, other) => ((one.ended?.at ?? '') < (other.ended?.at ?? '') ? 1 : -1))
  return (
    <>
      <Heading as="h1" size="xl" mb="2">
        Faults
      </Heading>
      <Text mb="2">
        Say what you see. Hallway ranks what can be wrong with that run, and says the one thing to try next and why.
      </Text>
      <Took />
      {actionData && <Notice tone="blocked">{actionData.problem}</Notice>}
      {open.length > 0 && (
        <section className={look.section} aria-labelledby="open">
          <h2 id="open">Searched now</h2>
          <ul className={look.searches}>
            {open.map((search) => (
              <OneSearch key={search.id} search={search} />
            ))}
          </ul>
        </section>
      )}
      <BeginSearch />
      {ended.length > 0 && (
        <section className={look.section} aria-labelledby="ended">
          <h2 id="ended">Ended</h2>
          <ul className={look.searches}>
            {ended.slice(0, MOST_ENDED).map((search) => (
              <OneSearch key={search.id} search={search} />
            ))}
          </ul>
          {ended.length > MOST_ENDED && <p className={text.quiet}>and {ended.length - MOST_ENDED} before those.</p>}
        </section>
      )}
    </>
  )
}

function OneSearch({ search }: { search: Search }) {
  const { plan, index } = useSite()
  const run = index.runs.get(search.run)
  const { ended } = search
  if (!run) return null
  const [from, to] = [socketAt(index, run.from), socketAt(index, run.to)]
  return (
    <li className={look.search} data-open={isOpen(search) || undefined}>
      <RouterLink to={`/sites/${plan.site.id}/faults/${search.id}`} className={text.link}>
        <span className={text.mono}>{run.tag}</span>, {from.device.name} to {to.device.name}
      </RouterLink>
      <p className={text.quiet}>
        {ended ? (
          <>
            {endWords[ended.how].short}
            {ended.words && `: ${ended.words}`} <Moment at={ended.at} dayOnly />
            {ended.by && `, ${ended.by}`}
          </>
        ) : (
          <>
            Since <Moment at={search.since} />
            {search.by && `, ${search.by}`}
          </>
        )}
      </p>
    </li>
  )
}

/** What do you see? A run, what is seen of it by choosing, in words, or by what the computer says. */
function BeginSearch() {
  const { plan, index } = useSite()
  const [params] = useSearchParams()
  const busy = useNavigation().state === 'submitting'
  const device = params.get('device') ?? ''
  const atDevice = (index.runsAt.get(device) ?? []).slice(0, 20)
  const wanted = params.get('run') ?? (atDevice.length === 1 ? (atDevice[0]?.id ?? '') : '')
  const field = (name: string, value?: string) => ({ ...plainField(name, value), id: `begin-${name}` })
  if (plan.runs.length === 0)
    return (
      <Text>
        There is no run yet.{' '}
        <RouterLink to={`/sites/${plan.site.id}`} className={text.link}>
          Lay one under Match
        </RouterLink>
        .
      </Text>
    )
  return (
    <section className={look.section} aria-labelledby="begin">
      <h2 id="begin">What do you see?</h2>
      <Form method="post" className={look.begin}>
        <MadeFrom />
        <LabelledField field={field('run')} label="Which run" hint="Its tag, as it stands on both ends.">
          <PlainInput
            id={field('run').id}
            name="run"
            list="runs-to-search"
            defaultValue={index.runs.get(wanted)?.tag ?? ''}
            maxLength={80}
            required
          />
        </LabelledField>
        <datalist id="runs-to-search">
          {(atDevice.length > 0 ? atDevice : plan.runs.slice(0, 200)).map((run) => (
            <option key={run.id} value={run.tag}>
              {index.devices.get(run.from.device)?.name} to {index.devices.get(run.to.device)?.name}
            </option>
          ))}
        </datalist>
        <SymptomChoice />
        <TextAreaField
          field={field('pasted')}
          label="Or paste what the computer says"
          hint="A kernel log, a listing, or the words of a message. Lines that are not understood are passed over."
          rows={3}
        />
        <MainButton loading={busy}>Search for the fault</MainButton>
      </Form>
    </section>
  )
}

/** The usual symptoms, each to be ticked. */
export function SymptomChoice() {
  return (
    <fieldset className={look.choice}>
      <legend>Tick all that is so</legend>
      {SYMPTOMS.map((symptom) => (
        <label key={symptom}>
          <input type="checkbox" name="symptom" value={symptom} />
          <span>
            {symptomFacts[symptom].saw}
            <span className={text.quiet}> {symptomFacts[symptom].look}</span>
          </span>
        </label>
      ))}
    </fieldset>
  )
}
