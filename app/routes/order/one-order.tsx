import { Heading } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import type { LineState } from '../../../core/order/follow'
import { lastReturnDay, lineState, trialOf } from '../../../core/order/follow'
import { type Difference, differencesOf } from '../../../core/order/unpacked'
import { byId } from '../../../core/plan/lookup'
import { formatLength } from '../../../core/quantity/length'
import { decimal } from '../../../core/quantity/parsed'
import { CABLE_GRADES, gradeFacts } from '../../../core/standards/grades'
import { countsOf, type Order, type OrderLine, toCome, waitingToTag } from '../../../core/vocabulary/order'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { MainButton, QuietButton } from '../../ui/controls'
import { PlainInput, PlainSelect } from '../../ui/field'
import { Form } from '../../ui/form'
import { RuledTable } from '../../ui/ruled-table'
import { useSite } from '../../ui/site-context'
import { useUnit } from '../../ui/units'
import look from './order.module.css'
import { lineName } from './order-words'

const stateWords: Record<LineState, string> = {
  planned: 'planned',
  ordered: 'ordered',
  'partly here': 'partly here',
  'to tag': 'here, to tag',
  'in the drawer': 'in the drawer',
  'sent back': 'sent back',
}

const trialWords = {
  open: 'Waits for what comes of the samples.',
  passed: 'A sample has passed: send it off.',
  failed: 'No sample holds: decide anew what to buy.',
} as const

/** One order with its lines, and what can be done with each. */
export function OneOrder({ order, today }: { order: Order; today: string }) {
  const { plan, index } = useSite()
  const lines = plan.orderLines.filter((line) => line.order === order.id)
  const supplier = order.supplier === undefined ? null : (byId(plan.suppliers).get(order.supplier) ?? null)
  const worth = lines.reduce((sum, { price, count }) => sum + price * count, 0)
  const home = `/sites/${plan.site.id}`
  const trial = order.ordered === undefined ? trialOf(index, order) : null
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
      {trial && <p>{trialWords[trial]}</p>}
      <div className={look.tools}>
        {order.ordered === undefined && trial !== 'open' && (
          <OrderForm of={{ order: order.id }}>
            <DayInput today={today} label={`Day ${order.name} was sent off`} />
            <MainButton name="intent" value="send">
              It is sent off
            </MainButton>
          </OrderForm>
        )}
        <OrderForm of={{ order: order.id }}>
          <QuietButton small grave name="intent" value="remove" aria-label={`Remove ${order.name}`}>
            Remove
          </QuietButton>
        </OrderForm>
      </div>
      <RuledTable label={`Lines of ${order.name}`} columns={['Article', 'How many', 'For', 'State', '']} cards>
        {lines.map((line) => (
          <Line key={line.id} line={line} order={order} today={today} />
        ))}
      </RuledTable>
    </section>
  )
}

/** A small form about an order or one of its lines. */
function OrderForm({ of, children }: { of: { order: string } | { line: string }; children: ReactNode }) {
  const [[name, value] = ['', '']] = Object.entries(of)
  return (
    <Form method="post" className={look.small}>
      <MadeFrom />
      <input type="hidden" name={name} value={value} />
      {children}
    </Form>
  )
}

/** A day that is filled in with today; it follows once the reader's own day is known. */
const DayInput = ({ today, label }: { today: string; label: string }) => (
  <PlainInput key={today} type="date" name="on" defaultValue={today} required aria-label={label} />
)

const CountInput = ({ count, label }: { count: number; label: string }) => (
  <PlainInput name="count" inputMode="numeric" defaultValue={count} required aria-label={label} />
)

function Line({ line, order, today }: { line: OrderLine; order: Order; today: string }) {
  const { plan, index } = useSite()
  const unit = useUnit()
  const { here, back } = countsOf(line)
  const all = toCome(line)
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
        {all > line.count && `, ${all - line.count} to come in their place`}
      </td>
      <td className={text.mono}>
        {runs.slice(0, 6).join(' ')}
        {runs.length > 6 && ` and ${runs.length - 6} more`}
        {runs.length < line.count && (
          <span className={text.quiet}>
            {' '}
            {line.count - runs.length} {line.decide ? 'to try' : 'spare'}
          </span>
        )}
      </td>
      <td>
        {stateWords[lineState(line, order)]}
        {tags.length > 0 && <span className={`${text.block} ${text.mono} ${text.small}`}>{tags.join(' ')}</span>}
        {line.promised && here < all && (
          <span className={`${text.block} ${text.small} ${text.quiet}`}>promised for {line.promised}</span>
        )}
        {last && <span className={`${text.block} ${text.small} ${text.quiet}`}>may go back until {last}</span>}
        {line.decide && (
          <span className={`${text.block} ${text.small} ${text.quiet}`}>bought to try, decide by {line.decide}</span>
        )}
        <Differences differences={differencesOf(index, line)} />
      </td>
      <td>
        {order.ordered !== undefined && here < all && (
          <OrderForm of={{ line: line.id }}>
            <CountInput count={all - here} label={`How many of ${name}, came`} />
            <DayInput today={today} label={`Day of ${name}, came`} />
            <QuietButton small name="intent" value="arrived" aria-label={`Came: ${name}`}>
              Came
            </QuietButton>
          </OrderForm>
        )}
        {toTag > 0 && <TagForm line={line} name={name} count={toTag} />}
        {here > back && (
          <details>
            <summary>Send back, or try first</summary>
            <OrderForm of={{ line: line.id }}>
              <CountInput count={1} label={`How many of ${name}, sent back`} />
              <DayInput today={today} label={`Day of ${name}, sent back`} />
              <PlainInput name="tags" placeholder="tags, C-0061" aria-label={`Tags of ${name} that go back`} />
              <PlainInput name="why" placeholder="why" maxLength={120} aria-label={`Why ${name} goes back`} />
              <label>
                <input type="checkbox" name="replaced" /> another comes in its place
              </label>
              <QuietButton small name="intent" value="back" aria-label={`Sent back: ${name}`}>
                Sent back
              </QuietButton>
            </OrderForm>
            <OrderForm of={{ line: line.id }}>
              <DayInput today={line.decide ?? today} label={`Day to decide on ${name}`} />
              <QuietButton small name="intent" value="decide" aria-label={`Decide on ${name} by then`}>
                Decide by then
              </QuietButton>
            </OrderForm>
          </details>
        )}
      </td>
    </tr>
  )
}

/** What came becomes cables: with what was found when it was unpacked, each against the listing. */
function TagForm({ line, name, count }: { line: OrderLine; name: string; count: number }) {
  const { index } = useSite()
  const unit = useUnit()
  const kind = index.kinds.get(line.kind)
  const box = kind?.includes ?? []
  return (
    <OrderForm of={{ line: line.id }}>
      <PlainInput
        name="lengths"
        placeholder={`taped, ${formatLength(line.length, unit)}; …`}
        aria-label={`Taped lengths of ${name}, with semicolons between`}
      />
      <PlainSelect name="mark" aria-label={`Mark printed on ${name}`} defaultValue="">
        <option value="">mark not looked at</option>
        <option value="none">no mark on it</option>
        {CABLE_GRADES.map((grade) => (
          <option key={grade} value={grade}>
            {gradeFacts[grade].name}
          </option>
        ))}
      </PlainSelect>
      <PlainInput
        name="differs"
        maxLength={120}
        placeholder={box.length > 0 ? `not as listed (box: ${box.join(', ')})` : 'not as listed: ends, box'}
        aria-label={`What of ${name} is not as listed: ends, or something missing from the box`}
      />
      <QuietButton small name="intent" value="tag" aria-label={`Tag ${count} of ${name}`}>
        Tag {count}
      </QuietButton>
    </OrderForm>
  )
}

/** What of it is not as it was ordered: reason enough to send it back while it can. */
function Differences({ differences }: { differences: readonly Difference[] }) {
  const unit = useUnit()
  if (differences.length === 0) return null
  return (
    <ul className={look.differs}>
      {differences.slice(0, 6).map((each) => (
        <li key={`${each.cable} ${each.is}`}>
          <b>{each.tag}</b>:{' '}
          {each.is === 'shorter' && `${formatLength(each.length, unit)}, ordered ${formatLength(each.ordered, unit)}`}
          {each.is === 'marked less' &&
            `${each.mark === null ? 'no mark' : `marked ${gradeFacts[each.mark].name}`}, listed as ${gradeFacts[each.listed].name}`}
          {each.is === 'as somebody says' && each.words}
        </li>
      ))}
      {differences.length > 6 && <li>and {differences.length - 6} more</li>}
    </ul>
  )
}
