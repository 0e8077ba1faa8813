import { Heading, Text } from '@chakra-ui/react'
import { type ReactNode, useMemo } from 'react'
import { Link as RouterLink, useLocation, useNavigation } from 'react-router'
import { type DecidedOrder, takeOrder } from '../../../core/change/changes/orders'
import { articleParts, missingParts } from '../../../core/order/articles'
import { type DoneElsewhere, type KindDone, kindsDone } from '../../../core/order/kind-record'
import type { OrderPlan } from '../../../core/order/solution'
import { formatLength } from '../../../core/quantity/length'
import { moveSentence } from '../../../core/remedy/words'
import type { CableKind } from '../../../core/vocabulary/cable'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { MainButton, QuietButton } from '../../ui/controls'
import { Form } from '../../ui/form'
import { RuledTable } from '../../ui/ruled-table'
import { useSite } from '../../ui/site-context'
import { useUnit } from '../../ui/units'
import look from './order.module.css'

const extraOf = (kind: CableKind | undefined): number =>
  kind && missingParts(kind).length > 0 ? (kind.wantsPrice ?? 0) : 0

/** What an order decides, as it is taken. */
export function decidedOf(order: OrderPlan): DecidedOrder {
  const taken = [...order.chosen.values()]
  return {
    runs: taken.map(({ run, leads }) => ({ run, leads })),
    alters: taken.flatMap(({ setUp }) => setUp?.edits ?? []),
    lines: order.purchases.map(({ article, source, count }) => ({
      ...articleParts(article),
      supplier: source.supplier,
      count,
      price: source.price,
    })),
  }
}

/** Puts the leads into the runs and plans an order for each supplier. */
export function TakeOrder({ order }: { order: OrderPlan }) {
  const decided = useMemo(() => decidedOf(order), [order])
  return (
    <PlanOrder decided={decided} main>
      Plan this order
    </PlanOrder>
  )
}

/** A button that takes a decision; nothing where all is as it lies already. */
export function PlanOrder({ decided, main, children }: { decided: DecidedOrder; main?: boolean; children: ReactNode }) {
  const { plan, place } = useSite()
  const { pathname, search } = useLocation()
  const busy = useNavigation().state === 'submitting'
  const edits = useMemo(() => takeOrder(plan, place, decided).edits, [plan, place, decided])
  if (edits.length === 0) return <p>Nothing would change.</p>
  const Button = main ? MainButton : QuietButton
  return (
    <Form method="post" className={look.tools} preventScrollReset>
      <MadeFrom />
      <input type="hidden" name="decided" value={JSON.stringify(decided)} />
      <input type="hidden" name="back" value={`${pathname}${search}`} />
      <Button loading={busy}>{children}</Button>
    </Form>
  )
}

/** What is bought, from whom, and what stands beside the leads. */
export function Purchases({
  order,
  money,
  elsewhere,
  keepOut,
}: {
  order: OrderPlan
  money: (sum: number) => string
  elsewhere: Readonly<Record<string, DoneElsewhere>>
  keepOut: (kind: string) => void
}) {
  const { plan, index } = useSite()
  const unit = useUnit()
  const setUps = [...order.chosen.values()].flatMap(({ run, setUp }) => (setUp ? [{ run, ...setUp }] : []))
  if (order.purchases.length + setUps.length === 0)
    return <Text mb="3">{order.unserved.length > 0 ? 'Nothing.' : 'Nothing: the drawer serves them all.'}</Text>
  const suppliers = new Map(plan.suppliers.map(({ id, name }) => [id, name]))
  return (
    <RuledTable label="What is bought" columns={['Article', 'Length', 'How many', 'From', 'Price', '']} cards>
      {order.purchases.map(({ article, source, count, spare }) => {
        const { kind, length } = articleParts(article)
        const kindOf = index.kinds.get(kind)
        const name = kindOf?.name ?? kind
        return (
          <tr key={`${article} ${source.supplier}`}>
            <td>
              {name}
              <Done here={kindsDone(index).get(name.toLowerCase())} elsewhere={elsewhere[name.toLowerCase()]} />
              {kindOf && missingParts(kindOf).length > 0 && (
                <span className={`${text.block} ${text.small} ${text.quiet}`}>
                  with {missingParts(kindOf).join(', ')}
                  {kindOf.wantsPrice === undefined ? ', price not known' : `, ${money(kindOf.wantsPrice)} each`}
                </span>
              )}
            </td>
            <td>{formatLength(length, unit)}</td>
            <td>
              {count}
              {spare > 0 && <span className={text.quiet}>, {spare} spare</span>}
            </td>
            <td>
              {source.supplier === null ? 'no supplier yet' : (suppliers.get(source.supplier) ?? source.supplier)}
            </td>
            <td className={text.mono}>{money((source.price + extraOf(kindOf)) * count)}</td>
            <td>
              <QuietButton type="button" small aria-label={`Decide without ${name}`} onClick={() => keepOut(kind)}>
                Without it
              </QuietButton>
            </td>
          </tr>
        )
      })}
      {setUps.map(({ run, words, price }) => (
        <tr key={`set up ${run}`}>
          <td>
            For {index.runs.get(run)?.tag ?? run}: {words.map((each) => moveSentence(each, unit)).join(' ')}
          </td>
          <td />
          <td>1</td>
          <td>bought apart; priced by the rules</td>
          <td className={text.mono}>{money(price)}</td>
          <td />
        </tr>
      ))}
      {[...order.deliveries].map(([supplier, price]) => (
        <tr key={supplier}>
          <td>Delivery</td>
          <td />
          <td />
          <td>{suppliers.get(supplier) ?? supplier}</td>
          <td className={text.mono}>{price === 0 ? 'free' : money(price)}</td>
          <td />
        </tr>
      ))}
    </RuledTable>
  )
}

export function Unserved({ order }: { order: OrderPlan }) {
  const { plan, index } = useSite()
  if (order.unserved.length === 0) return null
  return (
    <section className={look.block} aria-labelledby="unserved-heading">
      <Heading as="h2" size="md" mb="1" id="unserved-heading">
        Nothing serves these
      </Heading>
      <p>
        No lead of the drawer and nothing that is sold does the job by these wishes. Each page says what would help:{' '}
        {order.unserved.map((run) => (
          <RouterLink key={run} to={`/sites/${plan.site.id}/runs/${run}`} className={`${text.link} ${text.mono}`}>
            {index.runs.get(run)?.tag ?? run}{' '}
          </RouterLink>
        ))}
      </p>
    </section>
  )
}

/** What a kind did here, and on other sites of this Hallway: where one works nobody writes it down, and where it lied everybody should know. */
function Done({ here, elsewhere }: { here: KindDone | undefined; elsewhere: DoneElsewhere | undefined }) {
  const told = [
    ...(here && here.tried > 0 ? [`here ${here.held} of ${here.tried} held`] : []),
    ...(elsewhere && elsewhere.tried > 0
      ? [
          `at ${elsewhere.sites === 1 ? 'one other site' : `${elsewhere.sites} other sites`} ${elsewhere.held} of ${elsewhere.tried} held`,
        ]
      : []),
    ...((here?.hot ?? 0) + (elsewhere?.hot ?? 0) > 0 ? [`${(here?.hot ?? 0) + (elsewhere?.hot ?? 0)} got hot`] : []),
    ...(elsewhere?.avoided ?? []).map(({ why, on }) => `avoided at another site since ${on}: ${why}`),
  ]
  return told.length === 0 ? null : (
    <span className={`${text.block} ${text.small} ${text.quiet}`}>{told.join('; ')}</span>
  )
}
