import { formatLength } from '../../../core/quantity/length'
import { pointWords } from '../../../core/survey/points-text'
import type { Floor, Spot } from '../../../core/vocabulary/floor'
import type { Run } from '../../../core/vocabulary/run'
import text from '../../theme/text.module.css'
import { PlainSelect } from '../../ui/field'
import { useSite } from '../../ui/site-context'
import { Length, useUnit } from '../../ui/units'
import { useAsked } from '../../ui/use-asked'
import look from './floor.module.css'
import { RouteWords } from './route-words'

/** Which run's way is shown. */
export function WayChoice({ floor, run, choose }: { floor: Floor; run: string; choose: (id: string) => void }) {
  const { index, plan } = useSite()
  const here = new Set(
    plan.pathways
      .filter(({ points }) => points.some((point) => point.floor === floor.id))
      .flatMap(({ id }) => index.runsAlong.get(id) ?? []),
  )
  if (here.size === 0) return null
  return (
    // biome-ignore lint/a11y/noLabelWithoutControl: the choice within is a control
    <label className={look.way}>
      Show the route of{' '}
      <PlainSelect value={run} onChange={({ currentTarget }) => choose(currentTarget.value)}>
        <option value="">no run</option>
        {[...here].map(({ id, tag }) => (
          <option key={id} value={id}>
            {tag}
          </option>
        ))}
      </PlainSelect>
    </label>
  )
}

const RUNS_TOLD = 4

/** What moving a spot does, while it is moved; otherwise the way that is shown, as a sum. */
export function MovedLine({
  moved,
  run,
  busy,
}: {
  moved: { from: Spot; to: Spot } | null
  run: Run | null
  busy: boolean
}) {
  const unit = useUnit()
  const asked = useAsked('moved', moved, 40)
  const effects = moved ? (asked.last ?? []) : []
  return (
    <div className={look.moved} role="status" aria-live="polite" aria-busy={busy}>
      {moved ? (
        <>
          <b>{pointWords(moved.to, unit)}</b>
          {effects.length === 0 && asked.step === 'answered' && ' No run becomes longer or shorter.'}
          {effects.slice(0, RUNS_TOLD).map(({ run: each, before, after, was, is }) => (
            <span key={each.id}>
              {' '}
              <span className={text.mono}>{each.tag}</span> {formatLength(before, unit)} → {formatLength(after, unit)}
              {was !== is && `, becomes ${is}`}.
            </span>
          ))}
          {effects.length > RUNS_TOLD && ` and ${effects.length - RUNS_TOLD} more runs`}
        </>
      ) : run ? (
        <>
          <b className={text.mono}>{run.tag}</b>: <RouteWords legs={run.route.legs ?? []} /> ={' '}
          <Length metres={run.route.length} />
        </>
      ) : (
        <span className={text.quiet}>Nothing is being moved.</span>
      )}
    </div>
  )
}
