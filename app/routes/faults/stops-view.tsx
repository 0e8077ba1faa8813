import { type Stop, stopFacts } from '../../../core/faults/stops'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { QuietButton } from '../../ui/controls'
import { CheckField, plainField, TextField } from '../../ui/field'
import { Form } from '../../ui/form'
import { Moment } from '../../ui/moment'
import look from './faults.module.css'

/** What has to be dealt with before anything else. It goes away by what somebody says and writes, not by a click. */
export function Stops({ stops }: { stops: readonly Stop[] }) {
  return stops.map(({ name, why, cleared }) => {
    const { title, steps, says } = stopFacts[name]
    const field = (of: string) => ({ ...plainField(of), id: `${of}-${name.replaceAll(' ', '-')}` })
    if (cleared)
      return (
        <p key={name} className={text.quiet}>
          {title}: dealt with <Moment at={cleared.at} />
          {cleared.by && `, ${cleared.by}`}. {cleared.how}
        </p>
      )
    return (
      <section key={name} className={look.stop} role="alert" aria-label={`Stop: ${title}`}>
        <h2>Stop. {title}</h2>
        <ol>
          {steps.map((step) => (
            <li key={step}>{step}</li>
          ))}
        </ol>
        <p className={text.small}>Why: {why}.</p>
        <Form method="post" preventScrollReset className={look.begin}>
          <MadeFrom />
          <input type="hidden" name="stop" value={name} />
          <CheckField field={field('sure')} label={`${says}.`} />
          <TextField field={field('how')} label="What was done about it" maxLength={500} required />
          <QuietButton name="intent" value="clear" grave>
            Go on with the search
          </QuietButton>
        </Form>
      </section>
    )
  })
}
