import { useId } from 'react'
import { MAINS_WORDS, mainsText } from '../../core/survey/mains-text'
import type { Place } from '../../core/vocabulary/place'
import { LabelledField, PlainSelect, plainField } from './field'

const labels = { yes: 'within reach', no: 'not within reach', 'not known': 'not known yet' } as const

/** Whether there is mains at a place: a question with three answers. */
export function MainsField({ mains }: { mains: Place['mains'] }) {
  const id = useId()
  return (
    <LabelledField field={{ ...plainField('mains'), id }} label="Mains">
      <PlainSelect id={id} name="mains" defaultValue={mainsText(mains)} style={{ width: 'auto' }}>
        {(Object.keys(MAINS_WORDS) as (keyof typeof labels)[]).map((word) => (
          <option key={word} value={word}>
            {labels[word]}
          </option>
        ))}
      </PlainSelect>
    </LabelledField>
  )
}
