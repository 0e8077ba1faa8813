import type { SearchStanding, StretchView } from '../../../core/faults/search'
import text from '../../theme/text.module.css'
import look from './faults.module.css'
import { percent } from './next-view'

/** The run as the row of rooms it is, each as full as the fault is likely to sit in it. */
export function Stretches({ stretches }: { stretches: readonly StretchView[] }) {
  return (
    <section className={look.section} aria-labelledby="where">
      <h2 id="where">Where it may sit</h2>
      <ol className={look.stretches}>
        {stretches.map(({ label, odds }) => (
          <li key={label}>
            <span className={look.room}>
              <span className={look.fill} style={{ height: `${Math.round(odds * 100)}%` }} />
              <b>{percent(odds)}</b>
            </span>
            <span className={look.plate}>{label}</span>
          </li>
        ))}
      </ol>
    </section>
  )
}

/** What may be wrong, the likeliest first, each with what speaks for it and against it. */
export function Causes({ standing: { groups } }: { standing: SearchStanding }) {
  const told = groups.filter(({ odds }, at) => at < 3 || odds >= WORTH_TELLING)
  return (
    <section className={look.section} aria-labelledby="causes">
      <h2 id="causes">What may be wrong</h2>
      <ol className={look.causes}>
        {told.map(({ odds, causes }) => {
          const [first, ...others] = causes
          if (!first) return null
          return (
            <li key={first.key}>
              <p className={look.cause}>
                <span className={look.bar} aria-hidden="true">
                  <span className={look.share} style={{ width: `${Math.round(odds * 100)}%` }} />
                </span>
                <b className={text.mono}>{percent(odds)}</b> <span>{first.words}</span>
              </p>
              <details className={text.small}>
                <summary>Why</summary>
                {first.pro.length > 0 && <p>For it: {first.pro.join('; ')}.</p>}
                {first.contra.length > 0 && <p>Against it: {first.contra.join('; ')}.</p>}
                <p className={text.quiet}>How often beforehand: {first.source}.</p>
                {others.map((each) => (
                  <p key={each.key}>
                    Or: {each.words} {percent(each.odds)}. The same is done about it.
                  </p>
                ))}
              </details>
            </li>
          )
        })}
      </ol>
    </section>
  )
}

const WORTH_TELLING = 0.03
