import { Link as RouterLink, useNavigation } from 'react-router'
import { type JobSeen, jobTold } from '../../../core/prove/jobs'
import { formatLength } from '../../../core/quantity/length'
import type { Run } from '../../../core/vocabulary/run'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { Notice, QuietButton } from '../../ui/controls'
import { CheckField, plainField, TextField } from '../../ui/field'
import { Form } from '../../ui/form'
import { Moment } from '../../ui/moment'
import row from '../../ui/row-form.module.css'
import { useSite } from '../../ui/site-context'
import { useUnit } from '../../ui/units'
import look from './prove.module.css'

/** Real jobs as they were timed over a run: what it costs beside what it gains. */
export function Jobs({ run, jobs, wrong }: { run: Run; jobs: readonly JobSeen[]; wrong: string | null }) {
  const { plan, index } = useSite()
  const unit = useUnit()
  const busy = useNavigation().state === 'submitting'
  return (
    <section className={look.section} aria-labelledby="jobs">
      <h2 id="jobs">A real job</h2>
      <p className={text.quiet}>
        What people do all day counts more than a score. Time it over the direct way and over the run, in turn, with
        fresh files.{' '}
        <RouterLink to={`/sites/${plan.site.id}/compare`} className={text.link}>
          What the figures can show
        </RouterLink>
      </p>
      {jobs.length > 0 && (
        <ul className={look.list}>
          {jobs.map((seen) => {
            const { cost, gain, verdict } = jobTold(index, run, seen, (metres) => formatLength(metres, unit))
            return (
              <li key={seen.id}>
                <b>
                  {cost}
                  {seen.cached && ', files read before'}.
                </b>{' '}
                {gain && `Gain: ${gain}. `}
                {verdict.join(' ')} <Moment at={seen.at} />
                {seen.by && `, ${seen.by}`}
              </li>
            )
          })}
        </ul>
      )}
      {wrong && <Notice tone="blocked">{wrong}</Notice>}
      <details>
        <summary className={text.link}>Write a job down</summary>
        <Form method="post" preventScrollReset className={row.form}>
          <MadeFrom />
          <input type="hidden" name="test" value="job" />
          <JobFields tag={run.tag} />
          <QuietButton name="intent" value="job" loading={busy}>
            Write the job down
          </QuietButton>
        </Form>
      </details>
    </section>
  )
}

function JobFields({ tag }: { tag: string }) {
  const field = (name: string, value?: string) => ({ ...plainField(name, value), id: `job-${name}` })
  return (
    <>
      <TextField field={field('what')} label="The job" placeholder="copy the rushes, 100 GB" maxLength={120} />
      <TextField field={field('two')} label={`Over ${tag}`} placeholder="361 358 365" maxLength={600} />
      <TextField field={field('broke')} label="How often it broke off" placeholder="0" maxLength={2} />
      <TextField field={field('one')} label="Over the direct way" placeholder="301 299 304" maxLength={600} />
      <TextField field={field('first')} label="Which is" placeholder="supplied lead, 0.8 m" maxLength={80} />
      <TextField field={field('length')} label="How long that way is" placeholder="0.8 m" maxLength={40} />
      <TextField field={field('unit', 's')} label="Figures in" maxLength={20} />
      <CheckField field={field('more')} label="More is better (frames, MB/s)" />
      <CheckField field={field('cached')} label="Its files had been read before" />
    </>
  )
}
