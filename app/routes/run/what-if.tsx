import type { ReactNode, RefObject } from 'react'
import { Link as RouterLink } from 'react-router'
import { gradeWords } from '../../../core/checks/wording'
import { formatLength } from '../../../core/quantity/length'
import text from '../../theme/text.module.css'
import { triedText } from '../../tried'
import { MainButton, QuietButton } from '../../ui/controls'
import { InlineSelect } from '../../ui/field'
import { DoorGlyph } from '../../ui/grade'
import { useSite } from '../../ui/site-context'
import { typeInto } from '../../ui/type-into'
import { useUnit } from '../../ui/units'
import type { TriedBeside } from './use-what-if'
import look from './what-if.module.css'

type Props = TriedBeside & {
  /** What else can be tried here, before the list. */
  children?: ReactNode
  /** Something else than the what-if was changed as well. */
  changed: boolean
  /** The form that keeps it, by its id, and what it sends then. */
  form: string
  kept?: string
  tryOut: (words: string | null) => void
  putBack: () => void
}

/** What if: something to try; and, of whatever is tried here or in the form below, what it changes against the saved plan. It is kept as one change, or put back. */
export function WhatIf({ whatIfs, whatIf, turned, children, changed, form, kept, tryOut, putBack }: Props) {
  const { plan } = useSite()
  const sorts = [...new Set(whatIfs.map(({ sort }) => sort))]
  return (
    <section aria-label="What if" className={look.strip} data-paper="no">
      {children}
      {/* biome-ignore lint/a11y/noLabelWithoutControl: the choice within is a control */}
      <label>
        and{' '}
        <InlineSelect value={whatIf?.words ?? ''} onChange={({ currentTarget }) => tryOut(currentTarget.value || null)}>
          <option value="">nothing else were different</option>
          {sorts.map((sort) => (
            <optgroup key={sort} label={sort}>
              {whatIfs
                .filter((each) => each.sort === sort)
                .map(({ words }) => (
                  <option key={words}>{words}</option>
                ))}
            </optgroup>
          ))}
        </InlineSelect>
      </label>
      {(changed || whatIf) && (
        <div className={look.changed}>
          <p aria-live="polite">
            Against the saved plan:{' '}
            {turned.length === 0
              ? 'no verdict changes.'
              : turned.slice(0, MOST_TOLD).map(({ id, label, from, to }, at) => (
                  <span key={`${id} ${label}`} className={look.turned}>
                    {at > 0 && ' · '}
                    <DoorGlyph grade={to} size={14} /> {label} {from && `${gradeWords[from]} to `}
                    {gradeWords[to]}
                  </span>
                ))}
            {turned.length > MOST_TOLD && ` and ${turned.length - MOST_TOLD} more`}
            {whatIf?.sort === 'the site goes' && (
              <>
                {' '}
                If you keep it, it holds for the whole site:{' '}
                <RouterLink to={`/sites/${plan.site.id}/policy`} className={text.link}>
                  what else that changes
                </RouterLink>
                .
              </>
            )}
          </p>
          <MainButton form={form} name="tried" value={kept ?? (whatIf ? triedText(whatIf.words) : '')}>
            Keep it
          </MainButton>
          <QuietButton type="button" onClick={putBack}>
            Reset
          </QuietButton>
        </div>
      )}
    </section>
  )
}

const MOST_TOLD = 6

/** A length to slide. */
export function LengthSlide({
  words,
  label,
  length,
  slide,
}: {
  words: ReactNode
  /** What it is for whoever hears it without what stands before. */
  label?: string
  length: number
  slide: (metres: number) => void
}) {
  const unit = useUnit()
  return (
    <label className={look.slide}>
      {words}
      <input
        type="range"
        min={0.1}
        max={Math.max(15, Math.ceil(length * 2))}
        step={0.1}
        value={length}
        onChange={({ currentTarget }) => slide(Number(currentTarget.value))}
        aria-label={label}
        aria-valuetext={formatLength(length, unit)}
      />
      <output>{formatLength(length, unit)}</output>
    </label>
  )
}

/** Puts a length into the form of a run. */
export function putLength(form: RefObject<HTMLFormElement | null>, text: string): void {
  const field = form.current?.elements.namedItem('length')
  if (field instanceof HTMLInputElement) typeInto(field, text)
}
