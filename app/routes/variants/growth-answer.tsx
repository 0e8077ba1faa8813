import { Link as RouterLink } from 'react-router'
import { gradeWords } from '../../../core/checks/wording'
import { formatLength } from '../../../core/quantity/length'
import { decimal } from '../../../core/quantity/parsed'
import type { GrowthAnswer } from '../../../core/variants/upgrades'
import text from '../../theme/text.module.css'
import { useSite } from '../../ui/site-context'
import { useUnit } from '../../ui/units'

const MOST_TOLD = 12

/** What an upgrade would break, and what would have to be bought for it. */
export function GrowthAnswerView({ answer }: { answer: GrowthAnswer }) {
  const { plan } = useSite()
  const unit = useUnit()
  return (
    <>
      <p>
        <b>
          {answer.survives} of {answer.survives + answer.fallen.length}
        </b>{' '}
        runs that get through today survive it as they are
        {answer.blocked > 0 && `; ${answer.blocked} ${answer.blocked === 1 ? 'is' : 'are'} blocked already`}.
      </p>
      {answer.lost.length > 0 && <p>Does not get through as it is laid: {answer.lost.join(', ')}.</p>}
      {answer.fallen.length > 0 && (
        <p>
          To buy for it now: <b>{`${decimal(answer.price, 2)} ${plan.policy.currency}`}</b>
          {answer.unpriced > 0 &&
            `, and ${answer.unpriced} ${answer.unpriced === 1 ? 'run' : 'runs'} without a price or a lead that would do`}
          .
        </p>
      )}
      <ul>
        {answer.fallen.slice(0, MOST_TOLD).map(({ id, label, from, to, instead }) => (
          <li key={id}>
            <RouterLink to={`/sites/${plan.site.id}/runs/${id}`} className={`${text.link} ${text.mono}`}>
              {label}
            </RouterLink>{' '}
            {from && gradeWords[from]} to {gradeWords[to]}:{' '}
            {instead
              ? `${instead.kind}, ${formatLength(instead.length, unit)}${instead.price === null ? '' : `, ${decimal(instead.price, 2)} ${plan.policy.currency}`}`
              : 'no single lead would do'}
          </li>
        ))}
        {answer.fallen.length > MOST_TOLD && <li>and {answer.fallen.length - MOST_TOLD} more</li>}
      </ul>
    </>
  )
}
