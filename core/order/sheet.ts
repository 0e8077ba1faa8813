import { byId } from '../plan/lookup'
import type { Plan } from '../plan/plan'
import { formatLength, type LengthUnit } from '../quantity/length'
import type { Order } from '../vocabulary/order'
import type { Sheet } from '../vocabulary/sheet'

const money = (sum: number): string => sum.toFixed(2)

/** An order with its lines in the supplier's own words and numbers, where these are known. */
export function orderSheet(plan: Plan, order: Order, unit: LengthUnit): Sheet {
  const supplier = order.supplier === undefined ? undefined : byId(plan.suppliers).get(order.supplier)
  const { currency } = plan.policy
  const lines = plan.orderLines.filter((line) => line.order === order.id)
  const goods = lines.reduce((sum, { price, count }) => sum + price * count, 0)
  const sent =
    supplier?.delivery && !(supplier.freeFrom !== undefined && goods >= supplier.freeFrom) ? supplier.delivery : 0
  return {
    title: order.name,
    to: [
      ...(supplier ? [`To: ${supplier.name}`] : []),
      `From: ${plan.site.name}`,
      ...(order.ordered ? [`Day: ${order.ordered}`] : []),
    ],
    heads: ['Number', 'Article', 'Length', 'How many', `Each, ${currency}`, `Together, ${currency}`],
    rows: lines.map(({ kind, length, count, price }) => {
      const offer = plan.offers.find(
        (each) => each.supplier === order.supplier && each.kind === kind && each.length === length,
      )
      return [
        offer?.number ?? '',
        offer?.words ?? byId(plan.kinds).get(kind)?.name ?? kind,
        formatLength(length, unit),
        String(count),
        money(price),
        money(price * count),
      ]
    }),
    foot: [
      ...(sent > 0 ? [`Delivery: ${money(sent)} ${currency}`] : []),
      `In all: ${money(goods + sent)} ${currency}`,
      ...(order.note ? [order.note] : []),
    ],
  }
}

/** The same as the text of a mail. */
export const orderText = ({ title, to, rows, foot }: Sheet): string =>
  [
    title,
    ...to,
    '',
    ...rows.map(([number, article, length, count, each]) =>
      [`${count} x ${article}, ${length}`, ...(number ? [`number ${number}`] : []), `${each} each`].join(', '),
    ),
    '',
    ...foot,
    '',
  ].join('\n')

/** The same as rows of a table. */
export const orderTable = ({ heads, rows }: Sheet): string[][] => [[...heads], ...rows.map((row) => [...row])]
