import { Heading, Text } from '@chakra-ui/react'
import { data, Link as RouterLink, redirect, useSearchParams } from 'react-router'
import { type Due, duesOf, nearness } from '../../../core/order/follow'
import { byId } from '../../../core/plan/lookup'
import { readForm } from '../../read-form.server'
import { addressWith, baseOf, changeBy, whyNotSaved } from '../../stored.server'
import text from '../../theme/text.module.css'
import { Notice } from '../../ui/controls'
import { useSite } from '../../ui/site-context'
import { Took } from '../../ui/take'
import { useUnit } from '../../ui/units'
import { useToday, utcToday } from '../../ui/use-today'
import { readUnit } from '../../unit-cookie'
import { handOf } from '../../who.server'
import { witnessOf } from '../../witness.server'
import type { Route } from './+types/orders'
import { OneOrder } from './one-order'
import look from './order.module.css'
import { OrderLinks } from './order-links'
import { lineName } from './order-words'
import { newCables, orderChange } from './save-order.server'

export const loader = () => ({ today: utcToday() })

/** An order sent off or removed, something that came, was tagged, is tried or went back. */
export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request)
  const unit = readUnit(request)
  const hand = await handOf(request, form)
  const witness = witnessOf(hand)
  const saved = await changeBy(hand, params.site, ({ plan }) =>
    orderChange(plan, baseOf(form), form, { unit, witness }),
  )
  if (saved?.outcome === 'saved') {
    const tagged = newCables(saved.edits).join(',')
    return redirect(addressWith(`/sites/${params.site}/orders`, { took: saved.id, tagged }))
  }
  const { problem, status } = whyNotSaved(saved)
  return data({ problem }, { status })
}

/** Orders: what is planned, on its way, here and to go back, with the days that must not be missed. */
export default function Orders({ loaderData, actionData }: Route.ComponentProps) {
  const today = useToday(loaderData.today)
  const { plan, index } = useSite()
  const dues = duesOf(index)
  const home = `/sites/${plan.site.id}`
  return (
    <>
      <div className={look.head}>
        <Heading as="h1" size="xl">
          Orders
        </Heading>
        <OrderLinks />
        {dues.length > 0 && (
          <a href={`${home}/orders.ics`} download className={text.link}>
            Days for a calendar (.ics)
          </a>
        )}
      </div>
      {actionData?.problem && <Notice tone="blocked">{actionData.problem}</Notice>}
      <Took />
      <Tagged />
      {dues.length > 0 && (
        <section className={look.block} aria-labelledby="due-heading">
          <Heading as="h2" size="md" mb="2" id="due-heading">
            Days to keep
          </Heading>
          <ul className={look.due}>
            {dues.map((due) => (
              <DueLine key={`${due.line} ${due.what}`} due={due} today={today} />
            ))}
          </ul>
        </section>
      )}
      {plan.orders.length === 0 && (
        <Text>
          Nothing is ordered yet.{' '}
          <RouterLink to={`${home}/order`} className={text.link}>
            Decide what to buy
          </RouterLink>
          , and the orders stand here, one for each supplier.
        </Text>
      )}
      {plan.orders.map((order) => (
        <OneOrder key={order.id} order={order} today={today} />
      ))}
    </>
  )
}

/** What to do with cables that were just tagged: print their tags, and sort them out while they can go back. */
function Tagged() {
  const { plan } = useSite()
  const [params] = useSearchParams()
  const tagged = params.get('tagged')
  if (!tagged) return null
  const cables = encodeURIComponent(tagged)
  return (
    <Notice tone="clear" slim>
      New cables are in the drawer.{' '}
      <RouterLink to={`/sites/${plan.site.id}/drawer/tags?cables=${cables}`} className={text.link}>
        Print their tags
      </RouterLink>{' '}
      <RouterLink to={`/sites/${plan.site.id}/drawer/sessions/new?cables=${cables}`} className={text.link}>
        Sort them out now, while they can go back
      </RouterLink>
    </Notice>
  )
}

const dueWords: Record<Due['what'], string> = {
  arrives: 'expected',
  decide: 'decide what is kept',
  'last day to send back': 'last day to send back',
}

function DueLine({ due, today }: { due: Due; today: string }) {
  const { plan } = useSite()
  const unit = useUnit()
  const line = byId(plan.orderLines).get(due.line)
  const near = nearness(due, today)
  if (!line) return null
  return (
    <li data-near={near}>
      <b>{due.on}</b>: {dueWords[due.what]}, {lineName(plan, line, unit)}
      {near === 'over' && <b> (late)</b>}
      {near === 'near' && <b> (soon)</b>}
      {due.what !== 'arrives' && due.unproved > 0 && `; ${due.unproved} not proved yet`}
    </li>
  )
}
