import type { RefObject } from 'react'
import { gradeWords } from '../../../core/checks/sentences'
import type { Policy } from '../../../core/plan/policy'
import { formatLength } from '../../../core/quantity/length'
import { MainButton, QuietButton } from '../../ui/controls'
import { DoorGlyph } from '../../ui/grade'
import { useSite } from '../../ui/site-context'
import { useUnit } from '../../ui/units'
import type { Draft } from './use-draft'
import look from './what-if.module.css'

/** Other ways a site could go by, to try on one run. Which one it really goes by is chosen on its own page. */
const TRIALS: readonly [string, Partial<Policy>][] = [
  ['by the book', { length: 'book' }],
  ['by the bench', { length: 'bench' }],
  ['pictures reserve whole links', { reservation: 'link' }],
  ['pictures reserve their own rate', { reservation: 'stream' }],
  ['with supplied leads only', { cables: 'supplied' }],
]

type Props = {
  draft: Draft
  formRef: RefObject<HTMLFormElement | null>
  trial: Partial<Policy> | null
  setTrial: (trial: Partial<Policy> | null) => void
  putBack: () => void
}

/** What if: a length to slide, a policy to try; and, of whatever is tried here or in the form below, what it changes against the saved plan. */
export function WhatIf({ draft, formRef, trial, setTrial, putBack }: Props) {
  const unit = useUnit()
  const { plan } = useSite()
  const { length } = draft.run.route
  const most = Math.max(15, Math.ceil(length * 2))
  const slide = (metres: number) => {
    const field = formRef.current?.elements.namedItem('length')
    if (!(field instanceof HTMLInputElement)) return
    field.value = formatLength(metres, unit)
    field.dispatchEvent(new Event('input', { bubbles: true }))
  }
  const others = TRIALS.filter(([, choice]) =>
    Object.entries(choice).some(([name, value]) => plan.policy[name as keyof Policy] !== value),
  )
  const changed = draft.typed !== null || trial !== null
  return (
    <section aria-label="What if" className={look.strip}>
      <label className={look.slide}>
        What if the way were
        <input
          type="range"
          min={0.1}
          max={most}
          step={0.1}
          value={Math.min(most, length)}
          onChange={({ currentTarget }) => slide(Number(currentTarget.value))}
          aria-valuetext={formatLength(length, unit)}
        />
        <output>{formatLength(length, unit)}</output>
      </label>
      <label>
        judged{' '}
        <select
          value={trial ? JSON.stringify(trial) : ''}
          onChange={({ currentTarget }) => setTrial(currentTarget.value ? JSON.parse(currentTarget.value) : null)}
          className={look.trial}
        >
          <option value="">as this site goes by</option>
          {others.map(([words, choice]) => (
            <option key={words} value={JSON.stringify(choice)}>
              {words}
            </option>
          ))}
        </select>
      </label>
      {changed && (
        <div className={look.changed}>
          <p aria-live="polite">
            Against the saved plan:{' '}
            {draft.turned.length === 0
              ? 'no verdict changes.'
              : draft.turned.slice(0, MOST_TOLD).map(({ id, label, from, to }, at) => (
                  <span key={`${id} ${label}`} className={look.turned}>
                    {at > 0 && ' · '}
                    <DoorGlyph grade={to} size={14} /> {label} {from && `${gradeWords[from]} to `}
                    {gradeWords[to]}
                  </span>
                ))}
            {draft.turned.length > MOST_TOLD && ` and ${draft.turned.length - MOST_TOLD} more`}
          </p>
          {draft.typed && (
            <MainButton type="button" onClick={() => formRef.current?.requestSubmit()}>
              Keep it
            </MainButton>
          )}
          <QuietButton
            type="button"
            onClick={() => {
              setTrial(null)
              if (draft.typed) putBack()
            }}
          >
            Put back
          </QuietButton>
        </div>
      )}
    </section>
  )
}

const MOST_TOLD = 6
