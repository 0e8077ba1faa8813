import { useDeferredValue, useEffect, useId, useMemo, useRef, useState } from 'react'
import { useNavigation } from 'react-router'
import { parseSurveyLines, surveyExample } from '../../../core/survey/device-line'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { MainButton } from '../../ui/controls'
import { LabelledField, PlainTextArea, plainField, tiedTo } from '../../ui/field'
import { Form } from '../../ui/form'
import { useSite } from '../../ui/site-context'
import { PlaceSelect } from './place-select'
import look from './survey.module.css'

/** Places and devices typed or pasted as lines, with what is understood of each as it is typed. */
export function SurveyLines({ place, choosePlace }: { place: string; choosePlace: (id: string) => void }) {
  const { plan } = useSite()
  const saving = useNavigation().state === 'submitting'
  const [typed, setTyped] = useState('')
  const late = useDeferredValue(typed)
  const said = useMemo(() => parseSurveyLines(late), [late])
  const taken = useMemo(() => new Set(plan.devices.map(({ name }) => name.toLowerCase())), [plan.devices])
  const area = useRef<HTMLTextAreaElement>(null)
  // what was sent and is saved has done its work; whoever typed it has more to type
  const sent = useRef(false)
  const count = plan.devices.length + plan.places.length
  // biome-ignore lint/correctness/useExhaustiveDependencies: once there is more on the site than there was
  useEffect(() => {
    if (!sent.current) return
    sent.current = false
    setTyped('')
    area.current?.focus()
  }, [count])
  const hint = useId()
  const field = { ...plainField('lines'), descriptionId: hint }
  return (
    <Form
      method="post"
      onSubmit={() => {
        sent.current = true
      }}
    >
      <MadeFrom />
      <LabelledField
        field={field}
        label="Places and devices, a line each"
        hint="“Desk 1:” is a place. A device is its name; what it is; and its ports, where they are not the usual ones. Lines and cells pasted from a spreadsheet do as well."
      >
        <PlainTextArea
          {...tiedTo({ field, hint: true })}
          ref={area}
          name="lines"
          value={typed}
          onChange={({ currentTarget }) => setTyped(currentTarget.value)}
          placeholder={surveyExample}
          rows={Math.min(16, Math.max(4, typed.split('\n').length + 1))}
          spellCheck={false}
          mono
          required
        />
      </LabelledField>
      <div className={look.addRow}>
        <PlaceSelect label="Put those without a place at" name="place" initial={place} chosen={choosePlace} />
        <MainButton name="intent" value="lines" loading={saving}>
          Add these
        </MainButton>
      </div>
      {said.faults.length > 0 && (
        <ul role="alert" className={look.wrong}>
          {said.faults.slice(0, 5).map(({ line, problem }) => (
            <li key={line}>
              Line {line}: {problem}
            </li>
          ))}
        </ul>
      )}
      {said.devices.length + said.places.length > 0 && (
        <ul className={`${text.small} ${look.understood}`} aria-label="As understood">
          {said.places.map((name) => (
            <li key={`place ${name}`}>
              <b>{name}</b>: a place
            </li>
          ))}
          {said.devices.slice(0, MOST_SHOWN).map(({ line, device, from, place: at }) => (
            <li key={line}>
              <b>{device.name}</b>: {from ?? device.kind}
              {`, ${device.ports.length} ${device.ports.length === 1 ? 'port' : 'ports'}`}
              {at ? `, at ${at}` : ''}
              {taken.has(device.name.toLowerCase()) && <span className={text.warn}> (that name is taken)</span>}
            </li>
          ))}
          {said.devices.length > MOST_SHOWN && <li>and {said.devices.length - MOST_SHOWN} more</li>}
        </ul>
      )}
    </Form>
  )
}
const MOST_SHOWN = 30
