import type { Risk } from '../../../core/order/choices'
import type { Contradiction } from '../../../core/order/contradiction'
import type { OrderPlanName } from '../../../core/order/wishes'

/** What each plan is called and by what it is the best. */
export const planWords: Record<OrderPlanName, { name: string; by: string }> = {
  balanced: { name: 'Balanced', by: 'everything has its price: articles, risk, joints' },
  cheapest: { name: 'Least money', by: 'only what is paid counts' },
  fewest: { name: 'Fewest sorts', by: 'as few different articles as can be' },
  surest: { name: 'Surest', by: 'what the record knows, clear before cheap' },
}

export const riskWords: Record<Risk, string> = {
  'no record': 'never tried here',
  'bad record': 'failed here before',
  'no returns': 'cannot go back',
  'returns not known': 'nobody says if it can go back',
}

export const whyImpossible: Record<Contradiction, string> = {
  budget: 'No order serves every run for that money. Without the limit it costs:',
  'kept choices': 'The choices you keep stand against each other. Without keeping them it costs:',
  'budget and kept choices': 'The limit and the choices you keep stand against each other. Without both it costs:',
  'not enough of it': 'There is not enough of something to serve every run. As many as can be are served:',
}
