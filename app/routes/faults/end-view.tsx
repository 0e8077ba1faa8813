import type { ReactNode } from 'react'
import { Link as RouterLink, useNavigation } from 'react-router'
import type { FollowUp } from '../../../core/faults/cause'
import type { SearchStanding } from '../../../core/faults/search'
import { acceptedNow } from '../../../core/prove/proof'
import type { Run } from '../../../core/vocabulary/run'
import type { Search } from '../../../core/vocabulary/search'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { MainButton, QuietButton } from '../../ui/controls'
import { CheckField, LabelledField, PlainSelect, plainField, TextField } from '../../ui/field'
import { Form } from '../../ui/form'
import { Moment } from '../../ui/moment'
import row from '../../ui/row-form.module.css'
import { useSite } from '../../ui/site-context'
import { endWords } from './end-words'
import look from './faults.module.css'
import { percent } from './next-view'

/** What is done about a cause, as one technician says it to another. */
const doAboutIt: Record<FollowUp, string> = {
  'replace lead': 'Retire the lead, and lay another.',
  'shorter or better lead': 'Lay a shorter lead, or an active one that is made for the length.',
  'turn it round': 'Turn the lead round, and tag its host end.',
  'feed it': 'Give it its supply, of the stated voltage and polarity.',
  'push it in': 'Push the plugs home, and relieve them of strain.',
  'use another port': 'Use another port, and note that this one does not serve.',
  'correct the survey': 'Correct the survey: the port does less than it says.',
  'move neighbours': 'Move a neighbour to another controller, or this run.',
  'clean up drivers': 'Remove the entries of devices that are gone, and plug in again.',
  'restart it': 'It was stuck. Write down how often that happens.',
  'update it': 'Bring it up to date, or back to what worked. Then prove again what hangs on it.',
  'choose the mode': 'Choose the wanted mode and scaling.',
  'choose the input': 'Choose the input on the display.',
  'switch it on': 'Switch it on, and look whether it sleeps too soon.',
  'share the link better': 'Plug this display in first, make the other picture smaller, or lay a second run.',
  'replace the device': 'Replace it, or have it repaired. Do not open equipment connected to mains.',
  'better charger': 'Use a stronger supply, alone on its port.',
  'old lead': 'Charge it from a type-A charger with an A-to-C lead.',
  'own supply': 'Connect its own supply, or use a hub that has one.',
  'expect less': 'Nothing: it does what it can.',
  'rescue the data': 'Rescue the data first. Then repair or format the disk, on purpose.',
  'move it away': 'Move it away from motors and mains, or lay an optical lead.',
  'change the plan': 'Change the plan: Match says what would do.',
  'ask further': 'Write down what you know, and ask somebody who knows the equipment.',
}

/** How it ended, and what follows: each a press. */
export function Ended({
  run,
  ended,
  standing,
}: {
  run: Run
  ended: NonNullable<Search['ended']>
  standing: SearchStanding
}) {
  const { plan, index } = useSite()
  const home = `/sites/${plan.site.id}`
  const cause = standing.groups.flatMap(({ causes }) => causes).find(({ key }) => key === ended.cause)
  const cable = cause && index.cables.get(cause.part.id)
  const device = cause && index.devices.get(cause.part.id.split('/')[0] ?? '')
  const lies = cable && run.leads.some((lead) => 'cable' in lead && lead.cable === cable.id)
  return (
    <section className={look.ended} aria-labelledby="ended">
      <h2 id="ended">{endWords[ended.how].short}</h2>
      <p>
        {endWords[ended.how].says}{' '}
        {ended.words && (
          <b>
            {ended.words} {ended.odds !== undefined && `${percent(ended.odds)} sure.`}
          </b>
        )}{' '}
        <span className={text.quiet}>
          <Moment at={ended.at} />
          {ended.by && `, ${ended.by}`}
        </span>
      </p>
      {ended.note && <p>{ended.note}</p>}
      {cause && <p>{doAboutIt[cause.followUp]}</p>}
      <div className={look.follow}>
        {cable && cable.standing !== 'retired' && (
          <OnePress intent="retire" cable={cable.id}>
            Retire {cable.tag}
          </OnePress>
        )}
        {cable?.kind && lies && (
          <OnePress intent="buy" cable={cable.id}>
            Put a new one on the order list
          </OnePress>
        )}
        <RouterLink to={`${home}/runs/${run.id}`} className={text.link}>
          Lay another lead
        </RouterLink>
        {device && (
          <RouterLink to={`${home}/survey/${device.id}`} className={text.link}>
            Correct {device.name}
          </RouterLink>
        )}
        <RouterLink to={`${home}/prove/${run.id}`} className={text.link}>
          Prove {run.tag} again
        </RouterLink>
        {acceptedNow(index, run) && <OnePress intent="withdraw">Take back the acceptance of {run.tag}</OnePress>}
        <OnePress intent="reopen">Take up the search again</OnePress>
      </div>
    </section>
  )
}

function OnePress({ intent, cable, children }: { intent: string; cable?: string; children: ReactNode }) {
  return (
    <Form method="post" preventScrollReset>
      <MadeFrom />
      {cable && <input type="hidden" name="cable" value={cable} />}
      <QuietButton small name="intent" value={intent}>
        {children}
      </QuietButton>
    </Form>
  )
}

/** Ends a search: by what was found, or without. */
export function EndForm({ standing }: { standing: SearchStanding }) {
  const busy = useNavigation().state === 'submitting'
  const field = (name: string) => ({ ...plainField(name), id: `end-${name}` })
  const causes = standing.groups.flatMap(({ causes: each, odds }) =>
    each.slice(0, 1).map((cause) => ({ ...cause, odds })),
  )
  return (
    <section className={look.section} aria-labelledby="end">
      <h2 id="end">End the search</h2>
      <Form method="post" preventScrollReset className={row.form}>
        <MadeFrom />
        <input type="hidden" name="intent" value="end" />
        <input type="hidden" name="how" value="found" />
        <LabelledField field={field('cause')} label="What it was">
          <PlainSelect id={field('cause').id} name="cause" defaultValue={causes[0]?.key}>
            {causes.map(({ key, words, odds }) => (
              <option key={key} value={key}>
                {words} {percent(odds)}
              </option>
            ))}
          </PlainSelect>
        </LabelledField>
        <TextField field={field('note')} label="Note" maxLength={500} />
        <MainButton loading={busy}>{endWords.found.button}</MainButton>
      </Form>
      <Form method="post" preventScrollReset className={row.form}>
        <MadeFrom />
        <input type="hidden" name="intent" value="end" />
        <TextField field={{ ...field('note'), id: 'end-why' }} label="Note" maxLength={500} />
        <CheckField
          field={{ ...field('watch'), initialValue: 'on' }}
          label="If it went away: let it soak for 8 hours"
        />
        <QuietButton name="how" value="went away" loading={busy}>
          {endWords['went away'].button}
        </QuietButton>
        <QuietButton name="how" value="nothing wrong" loading={busy}>
          {endWords['nothing wrong'].button}
        </QuietButton>
        <QuietButton name="how" value="noted" loading={busy}>
          {endWords.noted.button}
        </QuietButton>
        <QuietButton name="how" value="not found" loading={busy}>
          {endWords['not found'].button}
        </QuietButton>
      </Form>
    </section>
  )
}
