import { useState } from 'react'
import { useNavigation } from 'react-router'
import { besideAt } from '../../../core/bench/where'
import type { Subject } from '../../../core/observe/every'
import { type Observation, observationText } from '../../../core/observe/observation'
import { SAID_EXAMPLES, SEEN_EXAMPLES } from '../../../core/observe/seen-text'
import type { PortAddress } from '../../../core/vocabulary/run'
import text from '../../theme/text.module.css'
import { ChangeId } from '../../ui/change-fields'
import { QuietButton } from '../../ui/controls'
import { CheckField, plainField, TextField } from '../../ui/field'
import { Form } from '../../ui/form'
import { PortField } from '../../ui/port-field'
import { useSite } from '../../ui/site-context'
import look from './seen.module.css'
import { contextFor, readSeen } from './seen-context'

type Props = {
  subject: Subject
  from?: PortAddress
  to?: PortAddress
  /** Where the form is sent, where that is not its own page. */
  action?: string
}

/** One line of what somebody saw, with what it was understood as, and where it was. */
export function SeenForm({ subject, from, to, action }: Props) {
  const { index, plan } = useSite()
  const saving = useNavigation().state === 'submitting'
  const [line, setLine] = useState('')
  const [sockets, setSockets] = useState<Record<string, string>>({})
  const socket = from ?? addressOf(sockets.socket)
  const planned = socket ? (besideAt(index, socket, 'run' in subject ? subject.run : undefined).beside ?? []) : []
  const context = contextFor(index, subject, socket, to ?? addressOf(sockets.far))
  const read = line.trim() === '' ? null : readSeen(subject, line, context)
  const ofKind = 'kind' in subject
  return (
    <Form
      method="post"
      {...(action ? { action } : {})}
      className={look.form}
      onChange={({ target }) => {
        const { name, value } = target as unknown as HTMLSelectElement
        if (name === 'socket' || name === 'far') setSockets({ ...sockets, [name]: value })
      }}
    >
      <ChangeId />
      <TextField
        field={plainField('line')}
        label={ofKind ? 'What is said of it' : 'What you saw'}
        hint={
          <span aria-live="polite">
            {read === null
              ? `For example: ${(ofKind ? SAID_EXAMPLES : SEEN_EXAMPLES).join('; ')}.`
              : read.ok
                ? `Reads as: ${read.value.map((each) => observationText(each as Observation)).join('; ')}.`
                : read.problem}
          </span>
        }
        maxLength={400}
        value={line}
        onChange={({ target }) => setLine(target.value)}
      />
      {from || ofKind ? null : (
        <div className={look.row}>
          <PortField field={plainField('socket')} label="In the socket" none="Not noted" />
          <PortField field={plainField('far')} label="Other end in" none="Not noted" />
        </div>
      )}
      {ofKind ? null : <Circumstances planned={planned} />}
      <QuietButton name="intent" value="seen" loading={saving} disabled={plan.site.id === ''}>
        Save what you saw
      </QuietButton>
    </Form>
  )
}

/** What may have mattered beside the sockets: filled in from the plan, and open to be put right. */
function Circumstances({ planned }: { planned: readonly string[] }) {
  return (
    <details className={text.small}>
      <summary>What else may have mattered</summary>
      <div className={look.more}>
        <CheckField field={plainField('alone')} label="Everything else was unplugged" />
        <TextField
          field={plainField('beside')}
          label="What else was plugged in"
          hint={
            planned.length > 0
              ? `Left empty, it is as the plan has it: ${planned.join(', ')}. Commas between names.`
              : 'Commas between names.'
          }
          maxLength={600}
        />
        <TextField
          field={plainField('adapters')}
          label="Adapters in between"
          hint="Commas between names."
          maxLength={600}
        />
        <TextField field={plainField('supply')} label="Charger or supply" maxLength={120} />
        <CheckField field={plainField('strange')} label="That charger or supply came from elsewhere" />
        <TextField
          field={plainField('charge')}
          label="How full the battery was, in percent"
          hint="A battery that is nearly full takes few watts, whatever the lead could carry."
          inputMode="numeric"
          maxLength={6}
        />
      </div>
    </details>
  )
}

function addressOf(value: string | undefined): PortAddress | undefined {
  const [device, port] = (value ?? '').split('/')
  return device && port ? { device, port } : undefined
}
