import { Link as RouterLink, useLocation } from 'react-router'
import text from '../theme/text.module.css'
import look from './frame.module.css'

/** `under` names the addresses whose pages belong to the stage, beside its own. */
export type Stage = {
  to: string
  under?: readonly string[]
  name: string
  waiting: number
  hint: string
  /** What goes on there by itself. */
  note?: string | null
}

/** The wayfinding sign: the stages in the order of the work, each with how many things wait there. A bar at the bottom on a phone. */
export function StageSign({ stages }: { stages: readonly Stage[] }) {
  const { pathname } = useLocation()
  const isHere = ({ to, under = [] }: Stage): boolean =>
    pathname === to || under.some((each) => pathname === each || pathname.startsWith(`${each}/`))
  return (
    <nav aria-label="Stages" className={look.sign}>
      <ul className={look.stages}>
        {stages.map((stage) => (
          <li key={stage.to}>
            <RouterLink
              to={stage.to}
              title={stage.hint}
              aria-current={isHere(stage) ? 'page' : undefined}
              className={look.stage}
            >
              <span>
                {stage.name}
                {stage.note && <span className={look.note}>{stage.note}</span>}
              </span>
              <span className={look.waiting} data-some={stage.waiting > 0 || undefined}>
                {stage.waiting}
                <span className={text.hidden}> waiting</span>
              </span>
            </RouterLink>
          </li>
        ))}
      </ul>
    </nav>
  )
}
