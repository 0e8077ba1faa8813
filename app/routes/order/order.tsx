import { Heading, Text } from '@chakra-ui/react'
import { useMemo, useState } from 'react'
import { Form, Link as RouterLink, useSearchParams } from 'react-router'
import { takeOrder } from '../../../core/change/changes/orders'
import { leadTag } from '../../../core/change/differences'
import { articleParts, articlesOf } from '../../../core/order/articles'
import { type Choice, type WantingRun, wantingRuns } from '../../../core/order/choices'
import type { OrderPlan } from '../../../core/order/solution'
import { ORDER_PLANS, type OrderPlanName, usualWishes } from '../../../core/order/wishes'
import { formatLength } from '../../../core/quantity/length'
import { decimal } from '../../../core/quantity/parsed'
import type { OrderQuestion } from '../../order/decide'
import { useDecided } from '../../order/use-decided'
import text from '../../theme/text.module.css'
import { MainButton, Notice, QuietButton } from '../../ui/controls'
import { InlineSelect, LabelledField, PlainInput, PlainSelect, plainField } from '../../ui/field'
import { GradeMark } from '../../ui/grade'
import { LongTable } from '../../ui/long-table'
import { RuledTable } from '../../ui/ruled-table'
import { useSite } from '../../ui/site-context'
import { Take, Took } from '../../ui/take'
import { useUnit } from '../../ui/units'
import { useAsked } from '../../ui/use-asked'
import look from './order.module.css'
import { OrderLinks } from './order-links'
import { planWords, riskWords, whyImpossible } from './order-words'
import { readWishes, SPARES } from './wishes-form'

/** Order: the leads of the whole site decided at once, as plans beside each other, each with its price. */
export default function Order() {
  const { plan, index, assessment } = useSite()
  const [params, setParams] = useSearchParams()
  const [halted, setHalted] = useState(false)
  const asked = useMemo(() => readWishes(params), [params])
  const question = useMemo(() => (halted ? null : { upgrade: asked.upgrade }), [asked.upgrade, halted])
  const most = useMemo(() => wantingRuns({ index, assessment }).length, [index, assessment])
  const { step, last: wanting, done } = useAsked('choices', question)
  const questions = useMemo(() => {
    if (step !== 'answered' || !wanting || wanting.length === 0) return null
    const market = { articles: articlesOf(index), suppliers: plan.suppliers }
    return ORDER_PLANS.map(
      (name): OrderQuestion => ({ wanting, market, wishes: asked.wishes, spares: asked.spares, plan: name }),
    )
  }, [step, wanting, index, plan.suppliers, asked])
  const { decisions, working, stop } = useDecided(questions)
  const [shown, setShown] = useState<OrderPlanName>('balanced')
  const decision = decisions.get(shown)
  const order = decision && 'order' in decision ? decision.order : null
  const money = (sum: number): string => `${decimal(sum, 2)} ${plan.policy.currency}`
  return (
    <>
      <div className={look.head}>
        <Heading as="h1" size="xl">
          Order
        </Heading>
        <OrderLinks />
      </div>
      <Text mb="2">
        Every run that wants a lead is decided at once: from the drawer, or from what is sold. You see what each way of
        deciding costs before anything changes.
      </Text>
      <Took />
      <Form className={look.form} key={params.toString()}>
        <LabelledField field={plainField('days')} label="Here within, days">
          <PlainInput
            id="field-days"
            name="days"
            inputMode="numeric"
            defaultValue={params.get('days') ?? ''}
            placeholder="any"
          />
        </LabelledField>
        <LabelledField field={plainField('budget')} label={`Costs at most, ${plan.policy.currency}`}>
          <PlainInput
            id="field-budget"
            name="budget"
            inputMode="decimal"
            defaultValue={params.get('budget') ?? ''}
            placeholder="no limit"
          />
        </LabelledField>
        <LabelledField field={plainField('article')} label="One more article is worth">
          <PlainInput
            id="field-article"
            name="article"
            inputMode="decimal"
            defaultValue={params.get('article') ?? String(usualWishes.perArticle)}
          />
        </LabelledField>
        <LabelledField field={plainField('spares')} label="Spares">
          <PlainSelect id="field-spares" name="spares" defaultValue={params.get('spares') ?? 'tenth'}>
            {Object.entries(SPARES).map(([name, { words }]) => (
              <option key={name} value={name}>
                {words}
              </option>
            ))}
          </PlainSelect>
        </LabelledField>
        {plan.upgrades.length > 0 && (
          <LabelledField field={plainField('for')} label="Ready for">
            <PlainSelect id="field-for" name="for" defaultValue={params.get('for') ?? ''}>
              <option value="">what is needed today</option>
              {plan.upgrades.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </PlainSelect>
          </LabelledField>
        )}
        {asked.wishes.fixed.map((id) => (
          <input key={id} type="hidden" name="keep" value={id} />
        ))}
        {asked.wishes.withoutKinds.map((id) => (
          <input key={id} type="hidden" name="without" value={id} />
        ))}
        <MainButton>Decide again</MainButton>
      </Form>
      {asked.problem && <Notice tone="blocked">{asked.problem}</Notice>}
      <p data-scripts="no">
        Deciding needs scripts, which this browser does not run. What is ordered stands under Orders, what each run
        wants under Match.
      </p>
      <p role="status" data-scripts="yes">
        {step === 'asking' &&
          (halted ? 'Stopped.' : `Trying what fits each run: ${done} of about ${most}. You may leave this page open.`)}
        {step === 'failed' && 'This could not be worked out. Reload the page.'}
        {step === 'answered' && working && 'Deciding. What is found so far is shown.'}
      </p>
      {step === 'asking' && (
        <QuietButton type="button" small onClick={() => setHalted(!halted)}>
          {halted ? 'Go on' : 'Stop'}
        </QuietButton>
      )}
      {working && (
        <QuietButton type="button" small onClick={stop}>
          Stop here
        </QuietButton>
      )}
      {step === 'answered' && wanting?.length === 0 && (
        <Notice tone="clear">No run wants a lead: all are clear, with what lies in the drawer or is on order.</Notice>
      )}
      <Kept
        asked={asked.wishes}
        wanting={wanting ?? []}
        remove={(name, id) => setParams(withoutParam(params, name, id))}
      />
      {questions && (
        <ul className={look.plans}>
          {ORDER_PLANS.map((name) => {
            const at = decisions.get(name)
            const found = at && 'order' in at ? at.order : null
            return (
              <li key={name} className={look.plan} data-shown={shown === name || undefined}>
                <b>{planWords[name].name}</b>
                <span className={`${text.small} ${text.quiet}`}>{planWords[name].by}</span>
                {at === null && <span>This could not be worked out.</span>}
                {at?.state === 'impossible' && <span>{whyImpossible[at.why]}</span>}
                {found && <PlanFacts order={found} money={money} runs={wanting?.length ?? 0} />}
                <span className={`${text.small} ${text.quiet}`}>{stateWords(at, working)}</span>
                {found && (
                  <div className={look.tools}>
                    <QuietButton type="button" small aria-pressed={shown === name} onClick={() => setShown(name)}>
                      {shown === name ? 'Shown below' : 'Show it'}
                    </QuietButton>
                  </div>
                )}
              </li>
            )
          })}
        </ul>
      )}
      {order && wanting && (
        <>
          <section className={look.block} aria-labelledby="buy-heading">
            <Heading as="h2" size="md" mb="2" id="buy-heading">
              {planWords[shown].name}: what is bought
            </Heading>
            <Purchases order={order} money={money} keepOut={(kind) => setParams(withParam(params, 'without', kind))} />
            <TakeOrder order={order} />
          </section>
          <Unserved order={order} />
          <RunTable
            order={order}
            wanting={wanting}
            against={shown === 'balanced' ? null : orderOf(decisions.get('balanced'))}
            kept={new Set(asked.wishes.fixed)}
            keep={(id) => setParams(withParam(params, 'keep', id))}
          />
        </>
      )}
    </>
  )
}

type At = ReturnType<typeof useDecided>['decisions'] extends ReadonlyMap<OrderPlanName, infer D> ? D : never
const orderOf = (at: At | undefined): OrderPlan | null => (at && 'order' in at ? at.order : null)

function stateWords(at: At | undefined, working: boolean): string {
  if (at === undefined) return working ? 'waits for its turn' : 'not worked out'
  if (at === null || at.state === 'impossible') return ''
  const left = at.gap === null ? null : decimal(at.gap * 100, 1)
  if (at.state === 'better') return left === null ? 'a first answer' : `so far; at most ${left} % could be saved`
  return left === '0' ? `proved the best, ${decimal(at.seconds, 1)} s` : `at most ${left} % could be saved still`
}

function PlanFacts({ order, money, runs }: { order: OrderPlan; money: (sum: number) => string; runs: number }) {
  const spare = order.purchases.reduce((sum, each) => sum + each.spare, 0)
  const pieces = order.purchases.reduce((sum, each) => sum + each.count, 0)
  const fromDrawer = [...order.chosen.values()].filter(({ articles }) => articles.length === 0).length
  return (
    <>
      <span className={look.price}>{money(order.cost)}</span>
      <ul className={look.facts}>
        <li>
          {pieces} to buy, {order.articles} {order.articles === 1 ? 'article' : 'articles'}
          {spare > 0 && `, ${spare} spare`}
        </li>
        <li>
          {fromDrawer} of {runs} runs without buying
        </li>
        <li>
          {order.tight.length} tight, {order.risky.length} at a risk
        </li>
        {order.unserved.length > 0 && <li>{order.unserved.length} with nothing that serves them</li>}
      </ul>
    </>
  )
}

function Kept({
  asked,
  wanting,
  remove,
}: {
  asked: { fixed: readonly string[]; withoutKinds: readonly string[] }
  wanting: readonly WantingRun[]
  remove: (name: 'keep' | 'without', id: string) => void
}) {
  const { index } = useSite()
  if (asked.fixed.length + asked.withoutKinds.length === 0) return null
  const known = new Set(wanting.flatMap(({ choices }) => choices.map(({ id }) => id)))
  const tagOf = (id: string): string => index.runs.get(id.split('/')[0] ?? '')?.tag ?? id
  return (
    <p className={look.small}>
      {asked.fixed.map((id) => (
        <QuietButton key={id} type="button" small onClick={() => remove('keep', id)}>
          Stop keeping {tagOf(id)}
          {wanting.length > 0 && !known.has(id) && ', which is not possible any more'}
        </QuietButton>
      ))}
      {asked.withoutKinds.map((id) => (
        <QuietButton key={id} type="button" small onClick={() => remove('without', id)}>
          Allow {index.kinds.get(id)?.name ?? id} again
        </QuietButton>
      ))}
    </p>
  )
}

/** Puts the leads into the runs and plans an order for each supplier. */
function TakeOrder({ order }: { order: OrderPlan }) {
  const { plan, index, place } = useSite()
  const { about, edits } = useMemo(() => {
    const runs = [...order.chosen.values()].map(({ run, leads }) => ({ run, leads }))
    const lines = order.purchases.map(({ article, source, count }) => ({
      ...articleParts(article),
      supplier: source.supplier,
      count,
      price: source.price,
    }))
    return {
      about: runs.map(({ run }) => index.runs.get(run)?.tag ?? run),
      edits: takeOrder(plan, place, { runs, lines }).edits,
    }
  }, [order, plan, place, index])
  if (edits.length === 0) return <p>It is all as it lies already.</p>
  return (
    <div className={look.tools}>
      <Take name="plan order" about={about} edits={edits} main>
        Plan this order
      </Take>
    </div>
  )
}

function Purchases({
  order,
  money,
  keepOut,
}: {
  order: OrderPlan
  money: (sum: number) => string
  keepOut: (kind: string) => void
}) {
  const { plan, index } = useSite()
  const unit = useUnit()
  if (order.purchases.length === 0)
    return <Text mb="3">{order.unserved.length > 0 ? 'Nothing.' : 'Nothing: the drawer serves them all.'}</Text>
  const suppliers = new Map(plan.suppliers.map(({ id, name }) => [id, name]))
  return (
    <RuledTable label="What is bought" columns={['Article', 'Length', 'How many', 'From', 'Price', '']} cards>
      {order.purchases.map(({ article, source, count, spare }) => {
        const { kind, length } = articleParts(article)
        const name = index.kinds.get(kind)?.name ?? kind
        return (
          <tr key={`${article} ${source.supplier}`}>
            <td>{name}</td>
            <td>{formatLength(length, unit)}</td>
            <td>
              {count}
              {spare > 0 && <span className={text.quiet}>, {spare} spare</span>}
            </td>
            <td>
              {source.supplier === null ? 'no supplier yet' : (suppliers.get(source.supplier) ?? source.supplier)}
            </td>
            <td className={text.mono}>{money(source.price * count)}</td>
            <td>
              <QuietButton type="button" small aria-label={`Decide without ${name}`} onClick={() => keepOut(kind)}>
                Without it
              </QuietButton>
            </td>
          </tr>
        )
      })}
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

function Unserved({ order }: { order: OrderPlan }) {
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

function RunTable({
  order,
  wanting,
  against,
  kept,
  keep,
}: {
  order: OrderPlan
  wanting: readonly WantingRun[]
  against: OrderPlan | null
  kept: ReadonlySet<string>
  keep: (choice: string) => void
}) {
  const { plan } = useSite()
  const unit = useUnit()
  const leadsOf = ({ leads }: Choice): string =>
    leads
      .map((lead) =>
        'kind' in lead ? `${leadTag(plan, lead)}, ${formatLength(lead.length, unit)}` : leadTag(plan, lead),
      )
      .join(' + ') || 'plug in socket'
  const rows = wanting.flatMap(({ run, tag, now, choices }) => {
    const choice = order.chosen.get(run)
    return choice ? [{ run, tag, now, choice, choices }] : []
  })
  return (
    <section className={look.block} aria-labelledby="runs-heading">
      <Heading as="h2" size="md" mb="2" id="runs-heading">
        Run by run
      </Heading>
      <LongTable
        label="What each run gets"
        columns={['Run', 'Now', 'Gets', 'Then', 'Risk', 'Instead']}
        rows={rows}
        keyOf={({ run }) => run}
      >
        {({ run, tag, now, choice, choices }, props) => {
          const other = against?.chosen.get(run)
          return (
            <tr key={run} {...props}>
              <td>
                <RouterLink
                  to={`/sites/${plan.site.id}/runs/${run}`}
                  className={`${text.link} ${text.mono} ${text.strong}`}
                >
                  {tag}
                </RouterLink>
              </td>
              <td>
                <GradeMark grade={now} size="xs" />
              </td>
              <td>
                {leadsOf(choice)}
                {kept.has(choice.id) && <span className={text.quiet}>, kept by you</span>}
                {other && other.id !== choice.id && (
                  <span className={`${text.block} ${text.small} ${text.quiet}`}>balanced: {leadsOf(other)}</span>
                )}
              </td>
              <td>
                <GradeMark grade={choice.grade} size="xs" />
              </td>
              <td>{choice.risks.map((risk) => riskWords[risk]).join(', ')}</td>
              <td>
                {choices.length > 1 && (
                  <InlineSelect
                    aria-label={`Keep another lead for ${tag}`}
                    value=""
                    onChange={({ currentTarget }) => keep(currentTarget.value)}
                  >
                    <option value="">{choices.length - 1} others</option>
                    {choices
                      .filter(({ id }) => id !== choice.id)
                      .map((each) => (
                        <option key={each.id} value={each.id}>
                          {leadsOf(each)} ({each.grade})
                        </option>
                      ))}
                  </InlineSelect>
                )}
              </td>
            </tr>
          )
        }}
      </LongTable>
    </section>
  )
}

/** An address with one more thing wished; of a run one choice is kept. */
function withParam(params: URLSearchParams, name: 'keep' | 'without', value: string): URLSearchParams {
  const next = new URLSearchParams(params)
  const others = next.getAll(name).filter((each) => each !== value && !(name === 'keep' && sameRun(each, value)))
  next.delete(name)
  for (const each of [...others, value]) next.append(name, each)
  return next
}

const sameRun = (one: string, other: string): boolean => one.split('/')[0] === other.split('/')[0]

function withoutParam(params: URLSearchParams, name: 'keep' | 'without', value: string): URLSearchParams {
  const next = new URLSearchParams(params)
  const others = next.getAll(name).filter((each) => each !== value)
  next.delete(name)
  for (const each of others) next.append(name, each)
  return next
}
