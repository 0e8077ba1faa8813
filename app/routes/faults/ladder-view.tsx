import type { Ladder } from '../../../core/faults/nothing-wrong'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { Notice, QuietButton } from '../../ui/controls'
import { LabelledField, PlainSelect, plainField, TextField } from '../../ui/field'
import { Form } from '../../ui/form'
import row from '../../ui/row-form.module.css'
import look from './faults.module.css'

const verdictWords: Record<Ladder['verdict'], string> = {
  'as it should': 'Nothing is wrong: it is what to expect here.',
  less: 'It is a little less than expected. Measure it once more before you search.',
  'far less': 'It is far less than expected: something is wrong.',
  more: 'That is more than there can be. Look at the unit, and whether it was read from a cache.',
}
const tones = { 'as it should': 'clear', less: 'tight', 'far less': 'blocked', more: 'note' } as const

/** First of all: is anything wrong? A sound link held against the number on the box is the commonest complaint. */
export function AnyWrong({
  ladders,
  tried,
}: {
  ladders: readonly { measure: string; ladder: Ladder }[]
  tried: number
}) {
  const field = (name: string) => ({ ...plainField(name), id: `measured-${name}` })
  return (
    <details className={look.section} open={ladders.length > 0 || undefined}>
      <summary className={text.link}>
        {tried === 0 ? 'First: is anything wrong?' : 'Is what you measure really wrong?'}
      </summary>
      <p>
        Write down what you measured. It is held against what can be expected here, not against the number on the box.
      </p>
      <Form method="post" preventScrollReset className={row.form}>
        <MadeFrom />
        <LabelledField field={field('measure')} label="What">
          <PlainSelect id={field('measure').id} name="measure" defaultValue="write">
            <option value="write">a copy to the disk</option>
            <option value="read">a copy from the disk</option>
            <option value="watts">watts</option>
          </PlainSelect>
        </LabelledField>
        <TextField field={field('value')} label="How much" hint="MB/s, or watts" maxLength={40} required />
        <QuietButton name="intent" value="reading">
          Hold it against the plan
        </QuietButton>
      </Form>
      {ladders.map(({ measure, ladder }) => (
        <div key={measure}>
          <Notice tone={tones[ladder.verdict]}>
            {ladder.measured} were measured, {ladder.expected} can be expected. {verdictWords[ladder.verdict]}
          </Notice>
          <ol className={look.ladder}>
            {ladder.steps.map(({ label, figure, why }) => (
              <li key={label}>
                <span>{label}</span> <b className={text.mono}>{figure}</b> <span className={text.quiet}>{why}</span>
              </li>
            ))}
          </ol>
          <p>What would raise it: {ladder.raise}</p>
        </div>
      ))}
    </details>
  )
}
