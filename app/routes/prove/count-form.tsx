import { LINK_MODES, linkModeFacts } from '../../../core/standards/link-modes'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { Notice, QuietButton } from '../../ui/controls'
import { LabelledField, PlainSelect, plainField, TextField } from '../../ui/field'
import { Form } from '../../ui/form'
import { KindSelect } from '../../ui/kind-select'
import row from '../../ui/row-form.module.css'
import { useSite } from '../../ui/site-context'

/** What a seller, a maker or another client counted: it stays apart from what was tried here. */
export function CountForm({ problem }: { problem: string | null }) {
  const { plan } = useSite()
  if (plan.kinds.length === 0) return null
  const field = (name: string) => ({ ...plainField(name), id: `count-${name}` })
  return (
    <details>
      <summary className={text.link}>Write down what somebody else counted</summary>
      {problem && <Notice tone="blocked">{problem}</Notice>}
      <Form method="post" className={row.form} preventScrollReset>
        <MadeFrom />
        <LabelledField field={field('kind')} label="Of which kind">
          <KindSelect id={field('kind').id} />
        </LabelledField>
        <LabelledField field={field('mode')} label="In which mode">
          <PlainSelect id={field('mode').id} name="mode" required>
            {LINK_MODES.map((mode) => (
              <option key={mode} value={mode}>
                {linkModeFacts[mode].name}
              </option>
            ))}
          </PlainSelect>
        </LabelledField>
        <TextField field={field('held')} label="Held" inputMode="numeric" maxLength={7} />
        <TextField field={field('tried')} label="Of how many" inputMode="numeric" maxLength={7} />
        <TextField field={field('from')} label="Who counted" placeholder="the seller" maxLength={80} />
        <QuietButton>Write it down</QuietButton>
      </Form>
    </details>
  )
}
