import { useId } from 'react'
import { MAINS_WORDS, mainsText } from '../../core/survey/mains-text'
import type { Place } from '../../core/vocabulary/place'
import text from '../theme/text.module.css'
import { PlainSelect } from './field'

const labels = { yes: 'within reach', no: 'not within reach', 'not known': 'not known yet' } as const

/** Whether there is mains at a place: a question with three answers. */
export function MainsField({ mains }: { mains: Place['mains'] }) {
  const id = useId()
  return (
    <span>
      <label htmlFor={id} className={text.half}>
        Mains
      </label>{' '}
      <PlainSelect id={id} name="mains" defaultValue={mainsText(mains)} style={{ width: 'auto' }}>
        {(Object.keys(MAINS_WORDS) as (keyof typeof labels)[]).map((word) => (
          <option key={word} value={word}>
            {labels[word]}
          </option>
        ))}
      </PlainSelect>
    </span>
  )
}
