import { explainNeed } from '../../../core/needs/explain'
import { type BitsPerSecond, formatBytesPerSecond, formatRate } from '../../../core/quantity/rate'
import { formatWatts } from '../../../core/quantity/watts'
import type { NeedKind } from '../../../core/vocabulary/need'
import text from '../../theme/text.module.css'
import look from './needs.module.css'

/** What a size comes to as it is typed, in the three figures people think in; the arithmetic and who says so behind a press. */
export function NeedFigures({ kind, size, count }: { kind: NeedKind; size: string; count?: number }) {
  const read = explainNeed(kind, size, count)
  if (!read.ok) return <p className={`${text.small} ${text.quiet}`}>{size.trim() === '' ? '' : read.problem}</p>
  const { rate, back, watts, steps } = read.value
  const figures = (bits: BitsPerSecond) => `${formatRate(bits)} · ${formatBytesPerSecond(bits)}`
  return (
    <details className={look.figures}>
      <summary>
        <span className={text.mono} aria-live="polite">
          {[
            rate === null ? '' : `${figures(rate)}${back === null ? '' : ' written'}`,
            back === null ? '' : `${figures(back)} read`,
            watts === null ? '' : formatWatts(watts),
          ]
            .filter(Boolean)
            .join(' · ')}
        </span>{' '}
        <span className={text.quiet}>how so?</span>
      </summary>
      <ul>
        {steps.map(({ words, source }) => (
          <li key={words}>
            <span className={text.mono}>{words}</span> <span className={text.quiet}>{source}</span>
          </li>
        ))}
      </ul>
    </details>
  )
}
