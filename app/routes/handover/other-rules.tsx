import { JUDGING_RULES } from '../../../core/checks/judging-rules'
import { Notice } from '../../ui/controls'
import look from './handover.module.css'

/** Said where a handover that was judged by other rules than today's is read: what was printed then is what was handed over. */
export function OtherRules({ judged }: { judged: number | null }) {
  if (judged === JUDGING_RULES) return null
  return (
    <div className={look.screen}>
      <Notice tone="note">
        {judged === null
          ? 'This was handed over before Hallway noted by which rules it judges.'
          : `This was judged by rules ${judged} of Hallway; it judges by rules ${JUDGING_RULES} now.`}{' '}
        What is read here may say otherwise than the printed book. The printed one stands.
      </Notice>
    </div>
  )
}
