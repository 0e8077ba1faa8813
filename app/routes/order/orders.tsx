import { Heading, Text } from '@chakra-ui/react'
import { data, Form, Link as RouterLink, redirect, useSearchParams } from 'react-router'
import type { Edit } from '../../../core/change/change'
import {
  decideBy,
  removeOrder,
  sendBack,
  sendOrder,
  tagArrived,
  takeArrival,
} from '../../../core/change/changes/orders'
import { type Due, duesOf, type LineState, lastReturnDay, lineState, nearness } from '../../../core/order/follow'
import { byId } from '../../../core/plan/lookup'
import type { Plan } from '../../../core/plan/plan'
import { formatLength, parseLength } from '../../../core/quantity/length'
import { decimal } from '../../../core/quantity/parsed'
import { dayField } from '../../../core/vocabulary/fields'
import { countsOf, type Order, type OrderLine, waitingToTag } from '../../../core/vocabulary/order'
import { refused } from '../../../server/sites/change-site'
import { readForm } from '../../read-form.server'
import { addressWith, baseOf, change, whyNotSaved } from '../../stored.server'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { MainButton, Notice, QuietButton } from '../../ui/controls'
import { PlainInput } from '../../ui/field'
import { RuledTable } from '../../ui/ruled-table'
import { useSite } from '../../ui/site-context'
import { Took } from '../../ui/take'
import { useUnit } from '../../ui/units'
import { readUnit } from '../../unit-cookie'
import type { Route } from './+types/orders'
import look from './order.module.css'
import { OrderLinks } from './order-links'

/** The day it is, in UTC: a form is filled in with it, and every day can be chosen there. */
export const loader = () => ({ today: new Date().toISOString().slice(0, 10) })

const LARGEST_COUNT = 10_000

/** An order sent off or removed, something that came, was tagged, is tried or went back. */
export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request)
  const unit = readUnit(request)
  const saved = await change(request, form, params.site, ({ plan }) => {
    const base = baseOf(form)
    const day = dayField.safeParse(String(form.get('on') ?? ''))
    const order = byId(plan.orders).get(String(form.get('order') ?? ''))
    const line = byId(plan.orderLines).get(String(form.get('line') ?? ''))
    const intent = form.get('intent')
    if (intent === 'remove')
      return order ? removeOrder(plan, base, order) : refused('order', 'this order is no longer there')
    if (intent === 'tag') {
      const lengths = String(form.get('lengths') ?? '')
        .split(/[;\n]/)
        .map((each) => each.trim())
        .filter(Boolean)
      const read = lengths.map((each) => parseLength(each, unit))
      const wrong = read.find((each) => !each.ok)
      if (wrong && !wrong.ok) return refused('lengths', wrong.problem)
      if (!line) return refused('line', 'this line is no longer there')
      if (waitingToTag(line) === 0) return refused('line', 'all that came of it are tagged already')
      return tagArrived(
        plan,
        base,
        line,
        read.map((each) => (each.ok ? each.value : null)),
      )
    }
    if (!day.success) return refused('on', 'choose the day')
    if (intent === 'send')
      return order ? sendOrder(order, base, day.data) : refused('order', 'this order is no longer there')
    if (!line) return refused('line', 'this line is no longer there')
    if (intent === 'decide') return decideBy(plan, base, line, day.data)
    const count = Number(form.get('count'))
    if (!Number.isInteger(count) || count < 1 || count > LARGEST_COUNT) return refused('count', 'say how many')
    if (intent === 'arrived') return takeArrival(plan, base, line, { on: day.data, count })
    if (intent === 'back')
      return sendBack(plan, base, line, { on: day.data, count, ...whatGoesBack(plan, line, form, count) })
    return refused('intent', 'nothing was asked for')
  })
  if (saved?.outcome === 'saved') {
    const tags = newTags(saved.edits)
    return redirect(addressWith(`/sites/${params.site}/orders`, { took: saved.id, tagged: tags.join(',') }))
  }
  const { problem, status } = whyNotSaved(saved)
  return data({ problem }, { status })
}

/** Which of the tagged cables go back: those that were named, else none that was tagged while some was not. */
function whatGoesBack(plan: Plan, line: OrderLine, form: FormData, count: number): { cables: string[]; why?: string } {
  const why = String(form.get('why') ?? '')
    .trim()
    .slice(0, 120)
  const named = new Set(
    String(form.get('tags') ?? '')
      .split(/[,;\s]+/)
      .filter(Boolean)
      .map((tag) => tag.toLowerCase()),
  )
  const gone = new Set((line.back ?? []).flatMap(({ cables = [] }) => cables))
  const cables = byId(plan.cables)
  const tagged = (line.tagged ?? []).filter((id) => !gone.has(id))
  const chosen = tagged.filter((id) => named.has((cables.get(id)?.tag ?? '').toLowerCase()))
  const untagged = waitingToTag(line)
  const rest = Math.max(0, count - chosen.length - untagged)
  return {
    cables: [...chosen, ...tagged.filter((id) => !chosen.includes(id)).slice(0, rest)],
    ...(why === '' ? {} : { why }),
  }
}

const newTags = (edits: readonly Edit[]): string[] =>
  edits.flatMap(({ list, base, id }) => (list === 'cables' && base === null ? [id] : [])).slice(0, 100)

/** Orders: what is planned, on its way, here and to go back, with the days that must not be missed. */
export default function Orders({ loaderData: { today }, actionData }: Route.ComponentProps) {
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

const lineName = (plan: Plan, { kind, length }: OrderLine, unit: 'm' | 'ft'): string =>
  `${byId(plan.kinds).get(kind)?.name ?? kind}, ${formatLength(length, unit)}`

const stateWords: Record<LineState, string> = {
  planned: 'planned',
  ordered: 'ordered',
  'partly here': 'partly here',
  'to tag': 'here, to tag',
  'in the drawer': 'in the drawer',
  'sent back': 'sent back',
}

function OneOrder({ order, today }: { order: Order; today: string }) {
  const { plan } = useSite()
  const lines = plan.orderLines.filter((line) => line.order === order.id)
  const supplier = order.supplier === undefined ? null : (byId(plan.suppliers).get(order.supplier) ?? null)
  const worth = lines.reduce((sum, { price, count }) => sum + price * count, 0)
  const home = `/sites/${plan.site.id}`
  return (
    <section className={look.order} aria-label={order.name}>
      <div className={look.head}>
        <Heading as="h2" size="md">
          {order.name}
        </Heading>
        <span>
          {order.ordered === undefined ? 'planned' : `ordered ${order.ordered}`}, {decimal(worth, 2)}{' '}
          {plan.policy.currency}
          {supplier === null && ', no supplier yet'}
        </span>
        {(['csv', 'txt', 'pdf'] as const).map((sort) => (
          <a key={sort} href={`${home}/orders/${order.id}/order.${sort}`} download className={text.link}>
            {sort === 'txt' ? 'for a mail' : sort.toUpperCase()}
          </a>
        ))}
      </div>
      <div className={look.tools}>
        {order.ordered === undefined && (
          <Form method="post" className={look.small}>
            <MadeFrom />
            <input type="hidden" name="order" value={order.id} />
            <PlainInput
              type="date"
              name="on"
              defaultValue={today}
              required
              aria-label={`Day ${order.name} was sent off`}
            />
            <MainButton name="intent" value="send">
              It is sent off
            </MainButton>
          </Form>
        )}
        <Form method="post">
          <MadeFrom />
          <input type="hidden" name="order" value={order.id} />
          <QuietButton small grave name="intent" value="remove" aria-label={`Remove ${order.name}`}>
            Remove
          </QuietButton>
        </Form>
      </div>
      <RuledTable label={`Lines of ${order.name}`} columns={['Article', 'How many', 'For', 'State', '']} cards>
        {lines.map((line) => (
          <Line key={line.id} line={line} order={order} today={today} />
        ))}
      </RuledTable>
    </section>
  )
}

function Line({ line, order, today }: { line: OrderLine; order: Order; today: string }) {
  const { plan, index } = useSite()
  const unit = useUnit()
  const { here, back } = countsOf(line)
  const name = lineName(plan, line, unit)
  const last = lastReturnDay(plan, line)
  const tags = (line.tagged ?? []).map((id) => index.cables.get(id)?.tag ?? id)
  const toTag = waitingToTag(line)
  const runs = (line.runs ?? []).map((id) => index.runs.get(id)?.tag ?? id)
  return (
    <tr>
      <td>{name}</td>
      <td>
        {line.count}
        {here > 0 && `, ${here} here`}
        {back > 0 && `, ${back} sent back`}
      </td>
      <td className={text.mono}>
        {runs.slice(0, 6).join(' ')}
        {runs.length > 6 && ` and ${runs.length - 6} more`}
        {runs.length < line.count && <span className={text.quiet}> {line.count - runs.length} spare</span>}
      </td>
      <td>
        {stateWords[lineState(line, order)]}
        {tags.length > 0 && <span className={`${text.block} ${text.mono} ${text.small}`}>{tags.join(' ')}</span>}
        {last && <span className={`${text.block} ${text.small} ${text.quiet}`}>may go back until {last}</span>}
        {line.decide && (
          <span className={`${text.block} ${text.small} ${text.quiet}`}>bought to try, decide by {line.decide}</span>
        )}
      </td>
      <td>
        {order.ordered !== undefined && here < line.count && (
          <LineForm line={line} today={today} intent="arrived" words="Came" name={name} count={line.count - here} />
        )}
        {toTag > 0 && (
          <Form method="post" className={look.small}>
            <MadeFrom />
            <input type="hidden" name="line" value={line.id} />
            <PlainInput
              name="lengths"
              placeholder="taped, 1.9 m; 2 m"
              aria-label={`Taped lengths of ${name}, with semicolons between`}
            />
            <QuietButton small name="intent" value="tag" aria-label={`Tag ${toTag} of ${name}`}>
              Tag {toTag}
            </QuietButton>
          </Form>
        )}
        {here > back && (
          <details>
            <summary>Send back, or try first</summary>
            <LineForm line={line} today={today} intent="back" words="Sent back" name={name} count={1} tags />
            <Form method="post" className={look.small}>
              <MadeFrom />
              <input type="hidden" name="line" value={line.id} />
              <PlainInput
                type="date"
                name="on"
                defaultValue={line.decide ?? today}
                required
                aria-label={`Day to decide on ${name}`}
              />
              <QuietButton small name="intent" value="decide" aria-label={`Decide on ${name} by then`}>
                Decide by then
              </QuietButton>
            </Form>
          </details>
        )}
      </td>
    </tr>
  )
}

function LineForm({
  line,
  today,
  intent,
  words,
  name,
  count,
  tags,
}: {
  line: OrderLine
  today: string
  intent: 'arrived' | 'back'
  words: string
  name: string
  count: number
  tags?: true
}) {
  return (
    <Form method="post" className={look.small}>
      <MadeFrom />
      <input type="hidden" name="line" value={line.id} />
      <PlainInput
        name="count"
        inputMode="numeric"
        defaultValue={count}
        required
        aria-label={`How many of ${name}, ${words.toLowerCase()}`}
      />
      <PlainInput
        type="date"
        name="on"
        defaultValue={today}
        required
        aria-label={`Day of ${name}, ${words.toLowerCase()}`}
      />
      {tags && <PlainInput name="tags" placeholder="tags, C-0061" aria-label={`Tags of ${name} that go back`} />}
      {tags && <PlainInput name="why" placeholder="why" maxLength={120} aria-label={`Why ${name} goes back`} />}
      <QuietButton small name="intent" value={intent} aria-label={`${words}: ${name}`}>
        {words}
      </QuietButton>
    </Form>
  )
}
