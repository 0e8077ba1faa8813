import { type RefObject, useMemo } from 'react'
import { gradeWords } from '../../../core/checks/sentences'
import type { Run } from '../../../core/plan/run'
import { formatLength } from '../../../core/quantity/length'
import { type Trial, trialsFor } from '../../../core/remedy/trials'
import { MainButton, QuietButton } from '../../ui/controls'
import { DoorGlyph } from '../../ui/grade'
import { useSite } from '../../ui/site-context'
import { useUnit } from '../../ui/units'
import type { Draft } from './use-draft'
import look from './what-if.module.css'

type Props = {
  draft: Draft
  /** The run as it stands. */
  before: Run | null
  formRef: RefObject<HTMLFormElement | null>
  trial: Trial | null
  setTrial: (trial: Trial | null) => void
  putBack: () => void
}

/** What if: a length to slide, a policy to try; and, of whatever is tried here or in the form below, what it changes against the saved plan. */
export function WhatIf({ draft, before, formRef, trial, setTrial, putBack }: Props) {
  const unit = useUnit()
  const { index, assessed } = useSite()
  const { length } = draft.run.route
  const most = Math.max(15, Math.ceil(length * 2))
  const slide = (metres: number) => {
    const field = formRef.current?.elements.namedItem('length')
    if (!(field instanceof HTMLInputElement)) return
    field.value = formatLength(metres, unit)
    field.dispatchEvent(new Event('input', { bubbles: true }))
  }
  const trials = useMemo(() => {
    const standing = before ?? draft.run
    return index.runs.has(standing.id)
      ? trialsFor(index, standing, assessed.walks.crossings.get(standing.id) ?? [])
      : []
  }, [index, assessed, before, draft.run])
  const sorts = [...new Set(trials.map(({ sort }) => sort))]
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
        and{' '}
        <select
          value={trial?.words ?? ''}
          onChange={({ currentTarget }) => setTrial(trials.find(({ words }) => words === currentTarget.value) ?? null)}
          className={look.trial}
        >
          <option value="">nothing else were different</option>
          {sorts.map((sort) => (
            <optgroup key={sort} label={sort}>
              {trials
                .filter((each) => each.sort === sort)
                .map(({ words }) => (
                  <option key={words}>{words}</option>
                ))}
            </optgroup>
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
