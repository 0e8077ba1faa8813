import { type KeyboardEvent, useEffect, useRef } from 'react'
import { useNavigation } from 'react-router'
import { MadeFrom } from '../../ui/change-fields'
import { QuietButton } from '../../ui/controls'
import { LabelledField, PlainTextArea, plainField } from '../../ui/field'
import { Form } from '../../ui/form'
import { MainsField } from '../../ui/mains-field'
import { useSite } from '../../ui/site-context'
import look from './survey.module.css'

/** A new place, or several from pasted lines. Enter adds it; the field stays ready for the next. */
export function NewPlace() {
  const saving = useNavigation().state === 'submitting'
  const { plan } = useSite()
  const area = useRef<HTMLTextAreaElement>(null)
  const sent = useRef(false)
  const count = plan.places.length
  // biome-ignore lint/correctness/useExhaustiveDependencies: once there is one more than there was
  useEffect(() => {
    if (!sent.current || !area.current) return
    sent.current = false
    area.current.value = ''
    area.current.focus()
  }, [count])
  return (
    <Form
      method="post"
      className={look.place}
      onSubmit={() => {
        sent.current = true
      }}
    >
      <MadeFrom />
      <LabelledField field={plainField('placeName')} label="A new place">
        <PlainTextArea
          id="field-placeName"
          ref={area}
          name="placeName"
          required
          rows={1}
          placeholder="or several, a line each"
          maxLength={20_000}
          onKeyDown={sendByEnter}
        />
      </LabelledField>
      <MainsField mains={true} />
      <QuietButton name="intent" value="place" loading={saving}>
        Add the place
      </QuietButton>
    </Form>
  )
}

/** Enter sends what is typed, as it does from a line; with shift it begins another line. */
function sendByEnter(event: KeyboardEvent<HTMLTextAreaElement>): void {
  if (event.key !== 'Enter' || event.shiftKey || event.nativeEvent.isComposing) return
  event.preventDefault()
  const { form } = event.currentTarget
  form?.requestSubmit(form.querySelector<HTMLButtonElement>('button[value=place]'))
}
