import { Heading } from '@chakra-ui/react'
import { useState } from 'react'
import { Link as RouterLink } from 'react-router'
import type { Edit } from '../../../core/change/change'
import type { WantingRun } from '../../../core/order/choices'
import { waited } from '../../../core/order/waiting'
import { formatLength } from '../../../core/quantity/length'
import type { Run } from '../../../core/vocabulary/run'
import text from '../../theme/text.module.css'
import { InlineSelect, PlainInput } from '../../ui/field'
import { useSite } from '../../ui/site-context'
import { Take } from '../../ui/take'
import { useUnit } from '../../ui/units'
import look from './order.module.css'

/** Runs that are accepted as they lie until a lead is sold that does more, and what of it has come. */
export function Waiting() {
  const { plan, assessed } = useSite()
  const unit = useUnit()
  const all = waited(assessed)
  if (all.length === 0) return null
  return (
    <section className={look.block} aria-labelledby="waiting-heading">
      <Heading as="h2" size="md" mb="1" id="waiting-heading">
        Waiting for a lead that is not sold yet
      </Heading>
      <ul className={look.due}>
        {all.map(({ run, now }) => (
          <li key={run.id} data-near={now ? 'near' : 'later'}>
            <RouterLink to={`/sites/${plan.site.id}/runs/${run.id}`} className={`${text.link} ${text.mono}`}>
              {run.tag}
            </RouterLink>{' '}
            waits for {run.waits?.why}, since {run.waits?.on}.{' '}
            {now ? (
              <b>
                It is sold now: {now.kind.name}, {formatLength(now.length, unit)}.
              </b>
            ) : (
              'Nothing in the catalogue makes it clear yet.'
            )}
            <StopWaiting run={run} />
          </li>
        ))}
      </ul>
    </section>
  )
}

function StopWaiting({ run }: { run: Run }) {
  const { place } = useSite()
  const { waits: _, ...rest } = run
  return (
    <Take
      name="wait for lead"
      about={[run.tag]}
      edits={[{ list: 'runs', id: run.id, base: place, value: rest }]}
      label={`Stop waiting with ${run.tag}`}
    >
      Stop waiting
    </Take>
  )
}

/** Accepts a run as it lies: it is asked for again once something is sold that makes it clear. */
export function WaitInstead({ wanting, today }: { wanting: readonly WantingRun[]; today: string }) {
  const { index, place } = useSite()
  const [chosen, setChosen] = useState('')
  const [why, setWhy] = useState('')
  const run = index.runs.get(chosen)
  const words = why.trim() === '' ? 'a lead that does more' : why.trim()
  const edits: Edit[] = run
    ? [{ list: 'runs', id: run.id, base: place, value: { ...run, waits: { why: words, on: today } } }]
    : []
  if (wanting.length === 0) return null
  return (
    <section className={look.block} aria-labelledby="wait-heading">
      <Heading as="h2" size="md" mb="1" id="wait-heading">
        Or wait
      </Heading>
      <p>
        You can leave a run as it is until a better lead is sold. Order then buys nothing for it, and tells you when the
        catalogue has one.
      </p>
      <div className={look.wait}>
        <InlineSelect
          aria-label="Run that waits"
          value={chosen}
          onChange={({ currentTarget }) => setChosen(currentTarget.value)}
        >
          <option value="">choose a run</option>
          {wanting.map(({ run: id, tag }) => (
            <option key={id} value={id}>
              {tag}
            </option>
          ))}
        </InlineSelect>
        <PlainInput
          aria-label="What it waits for"
          placeholder="a passive lead of 3 m at 40 Gb/s"
          maxLength={120}
          value={why}
          onChange={({ currentTarget }) => setWhy(currentTarget.value)}
        />
        {run && (
          <Take name="wait for lead" about={[run.tag, words]} edits={edits}>
            Accept {run.tag} as it lies
          </Take>
        )}
      </div>
    </section>
  )
}
