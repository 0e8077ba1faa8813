import type { Risk } from '../../../core/order/choices'
import type { Contradiction } from '../../../core/order/contradiction'
import type { OrderPlanName } from '../../../core/order/wishes'
import { byId } from '../../../core/plan/lookup'
import type { Plan } from '../../../core/plan/plan'
import { formatLength, type LengthUnit } from '../../../core/quantity/length'
import type { OrderLine } from '../../../core/vocabulary/order'

/** What each plan is called and by what it is the best. */
export const planWords: Record<OrderPlanName, { name: string; by: string }> = {
  balanced: { name: 'Balanced', by: 'everything has its price: articles, risk, joints' },
  cheapest: { name: 'Least money', by: 'only what is paid counts' },
  fewest: { name: 'Fewest sorts', by: 'as few different articles as can be' },
  surest: { name: 'Surest', by: 'what the record knows, clear before cheap' },
}

export const riskWords: Record<Risk, string> = {
  'no record': 'hardly tried here',
  'bad record': 'failed here before',
  'no returns': 'not taken back',
  'returns not known': 'nobody says if it is taken back',
  'not for this socket': 'not taken back from this socket',
  'stiff in the hand': 'stiff where it hangs on a socket',
  'parts without a price': 'needs parts that have no price',
}

export const whyImpossible: Record<Contradiction, string> = {
  budget: 'No order serves every run for that money. Without the limit it costs:',
  'kept choices': 'The choices you keep stand against each other. Without keeping them it costs:',
  'budget and kept choices': 'The limit and the choices you keep stand against each other. Without both it costs:',
  'not enough of it': 'There is not enough of something to serve every run. As many as can be are served:',
}

/** What a line is of: "Dock lead, 2 m". */
export const lineName = (plan: Plan, { kind, length }: Pick<OrderLine, 'kind' | 'length'>, unit: LengthUnit): string =>
  `${byId(plan.kinds).get(kind)?.name ?? kind}, ${formatLength(length, unit)}`
