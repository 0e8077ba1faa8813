import type { FormEvent } from 'react'
import { leadFrom, leadKey, type Run, withLength } from '../../../core/vocabulary/run'
import { InlineSelect, plainField } from '../../ui/field'
import { addressFrom } from '../../ui/form-text'
import { PortField } from '../../ui/port-field'
import { LeadField } from '../run/choices'
import { LengthSlide } from '../run/what-if'
import look from './needs.module.css'

type Props = {
  runs: readonly Run[]
  run: Run
  choose: (id: string) => void
  /** Tries a run otherwise. */
  tryOut: (run: Run) => void
}

/** One of the runs of a need's way, to be tried otherwise: its length, its lead, its ports. */
export function TriedRun({ runs, run, choose, tryOut }: Props) {
  const named = ({ target }: FormEvent) => {
    if (!(target instanceof HTMLSelectElement) || target.value === '') return
    if (target.name === 'tried-lead') tryOut({ ...run, leads: [leadFrom(target.value)] })
    else if (target.name === 'tried-from') tryOut({ ...run, from: addressFrom(target.value) })
    else if (target.name === 'tried-to') tryOut({ ...run, to: addressFrom(target.value) })
  }
  const [lead, ...more] = run.leads
  return (
    <>
      {runs.length > 1 ? (
        <span className={look.which}>
          What if
          <InlineSelect aria-label="Run" value={run.id} onChange={({ currentTarget }) => choose(currentTarget.value)}>
            {runs.map(({ id, tag }) => (
              <option key={id} value={id}>
                {tag}
              </option>
            ))}
          </InlineSelect>
        </span>
      ) : null}
      <LengthSlide
        words={runs.length > 1 ? 'were' : `What if ${run.tag} were`}
        label={`What if ${run.tag} were`}
        length={run.route.length}
        slide={(metres) => tryOut({ ...run, route: withLength(run.route, metres) })}
      />
      <details className={look.other} key={run.id}>
        <summary>had another lead or port</summary>
        <div onInput={named}>
          {more.length === 0 && (
            <LeadField
              field={plainField('tried-lead', lead ? leadKey(lead) : '')}
              label={`Cable of ${run.tag}`}
              run={run}
            />
          )}
          <PortField field={plainField('tried-from', `${run.from.device}/${run.from.port}`)} label="Host port" />
          <PortField field={plainField('tried-to', `${run.to.device}/${run.to.port}`)} label="Device port" />
        </div>
      </details>
    </>
  )
}
