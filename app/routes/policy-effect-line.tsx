import { Link as RouterLink } from 'react-router'
import type { Turned } from '../../core/checks/turned'
import { gradeWords } from '../../core/checks/wording'
import text from '../theme/text.module.css'
import look from './policy.module.css'

const MOST_TOLD = 12

/** What a choice would change here before it is made: how many verdicts, and which. */
export function PolicyEffectLine({ effect, home }: { effect: readonly Turned[] | undefined; home: string }) {
  // its line stands from the first, so that nothing moves from under a pointer when the answer comes
  if (effect === undefined) return <span className={look.effect}>Looking at what it would change here.</span>
  if (effect.length === 0) return <span className={look.effect}>Would change no verdict here.</span>
  return (
    <details className={look.effect}>
      <summary>
        Would change {effect.length} {effect.length === 1 ? 'verdict' : 'verdicts'} here
      </summary>
      <ul>
        {effect.slice(0, MOST_TOLD).map(({ id, label, from, to }) => (
          <li key={id}>
            <RouterLink to={`${home}/runs/${id}`} className={`${text.link} ${text.mono}`}>
              {label}
            </RouterLink>{' '}
            {from && `${gradeWords[from]} to `}
            {gradeWords[to]}
          </li>
        ))}
        {effect.length > MOST_TOLD && <li>and {effect.length - MOST_TOLD} more</li>}
      </ul>
    </details>
  )
}
