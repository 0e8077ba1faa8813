import { useNavigation } from 'react-router'
import type { SearchStanding, TryView } from '../../../core/faults/search'
import { tryNames } from '../../../core/faults/try-names'
import { TRIES } from '../../../core/vocabulary/search'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { MainButton, Notice, QuietButton } from '../../ui/controls'
import { LabelledField, PlainSelect, plainField, TextField } from '../../ui/field'
import { Form } from '../../ui/form'
import { useSite } from '../../ui/site-context'
import look from './faults.module.css'

export const percent = (odds: number): string =>
  odds >= 0.995 ? 'over 99 %' : odds < 0.01 ? 'under 1 %' : `${Math.round(odds * 100)} %`

/** The one thing to try next, why this one, and what each outcome would mean. */
export function NextTry({ standing }: { standing: SearchStanding }) {
  const { plan } = useSite()
  const { conclusion, next, stops, forbidden, groups } = standing
  const halted = stops.some(({ cleared }) => cleared === null)
  const [first] = next
  const top = groups[0]?.causes[0]
  return (
    <>
      {conclusion.state === 'found' && top && (
        <Notice tone="clear">
          <b>{top.words}</b> {percent(conclusion.odds)} sure. If you agree, say so under “End the search”.
        </Notice>
      )}
      {conclusion.state === 'narrowed' && (
        <Notice tone="tight">
          Nothing at hand tells these apart:{' '}
          {groups
            .slice(0, conclusion.groups.length)
            .map(({ causes }) => causes[0]?.words)
            .join(' Or: ')}
        </Notice>
      )}
      {conclusion.state === 'nothing left' && !halted && (
        <Notice tone="note">
          None of the causes that Hallway lists explains it well, and nothing is left to try that would tell. Look
          whether something below was answered wrongly.
        </Notice>
      )}
      {first && !halted && conclusion.state !== 'found' && (
        <section className={look.next} aria-labelledby="next">
          <h2 id="next">Try this next</h2>
          <p className={look.how}>{first.how}</p>
          <p className={text.quiet}>
            About {first.minutes} {first.minutes === 1 ? 'minute' : 'minutes'}.{' '}
            {first.name === 'another lead' && plan.policy.searching === 'lead first'
              ? 'By the rules of this site another lead comes first.'
              : `It tells the most for the time it takes${first.bits >= MUCH ? '' : ', though not much'}.`}
          </p>
          <Outcomes attempt={first} main />
        </section>
      )}
      {forbidden.length > 0 && halted && (
        <p className={text.quiet}>Not before the stop is dealt with: {forbidden.length} things that would be tried.</p>
      )}
      {standing.lacking.length > 0 && !halted && conclusion.state !== 'found' && (
        <p className={look.beside}>It would help to have {standing.lacking.map(({ lacks }) => lacks).join('; ')}.</p>
      )}
    </>
  )
}

/** Bits from which on a try tells much. */
const MUCH = 0.3

/** The outcomes of a try as buttons, each with what it would mean. */
export function Outcomes({ attempt, main }: { attempt: TryView; main?: true }) {
  const busy = useNavigation().state === 'submitting'
  const { key, outcomes } = attempt
  const field = (name: string) => ({ ...plainField(name), id: `${name}-${key.replace(/[^a-z0-9]/gi, '-')}` })
  const Button = main ? MainButton : QuietButton
  return (
    <Form method="post" preventScrollReset>
      <MadeFrom />
      <input type="hidden" name="intent" value="try" />
      <input type="hidden" name="try" value={key} />
      <ul className={look.outcomes}>
        {outcomes.map(({ name, says, means, meansOdds }) => (
          <li key={name}>
            <Button small={!main} name="outcome" value={name} loading={busy} aria-label={`${says}: ${attempt.how}`}>
              {says}
            </Button>
            <span className={text.quiet}>
              Then most likely: {means} {percent(meansOdds)}.
            </span>
          </li>
        ))}
      </ul>
      <details className={text.small}>
        <summary>I changed something else as well</summary>
        <LabelledField
          field={field('also')}
          label="What else"
          hint="Two changes at once prove less: nobody knows which of them did it."
        >
          <PlainSelect id={field('also').id} name="also" defaultValue="">
            <option value="">nothing else</option>
            {TRIES.filter((each) => each !== attempt.name).map((each) => (
              <option key={each} value={each}>
                {tryNames[each]}
              </option>
            ))}
          </PlainSelect>
        </LabelledField>
        <TextField field={field('note')} label="Note" maxLength={500} />
      </details>
    </Form>
  )
}

/** Everything else that would tell something, in its order. */
export function OtherTries({ standing: { next, conclusion } }: { standing: SearchStanding }) {
  const others = conclusion.state === 'found' ? next : next.slice(1)
  if (others.length === 0) return null
  return (
    <details className={look.section}>
      <summary className={text.link}>Something else was tried, or is easier here ({others.length})</summary>
      <ul className={look.others}>
        {others.map((attempt) => (
          <li key={attempt.key}>
            <p>
              {attempt.how}{' '}
              <span className={text.quiet}>
                {attempt.minutes} {attempt.minutes === 1 ? 'minute' : 'minutes'}
              </span>
            </p>
            <Outcomes attempt={attempt} />
          </li>
        ))}
      </ul>
    </details>
  )
}
