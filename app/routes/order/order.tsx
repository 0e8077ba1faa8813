import { Heading, Text } from '@chakra-ui/react'
import { useMemo, useState } from 'react'
import { data, redirect, useSearchParams } from 'react-router'
import { articlesOf } from '../../../core/order/articles'
import { wantingRuns } from '../../../core/order/choices'
import type { OrderQuestion } from '../../../core/order/decide'
import { ORDER_PLANS, type OrderPlanName } from '../../../core/order/wishes'
import { decimal } from '../../../core/quantity/parsed'
import { within } from '../../address'
import { useSolved } from '../../order/use-solved'
import { readForm } from '../../read-form.server'
import { whyNotSaved } from '../../stored.server'
import { Notice, QuietButton } from '../../ui/controls'
import { useSite } from '../../ui/site-context'
import { Took } from '../../ui/take'
import { useAsked } from '../../ui/use-asked'
import { useToday, utcToday } from '../../ui/use-today'
import type { Deciding } from '../../workers/order.worker'
import type { Route } from './+types/order'
import { Purchases, TakeOrder, Unserved } from './bought'
import { FewSorts } from './few-sorts'
import { Kept } from './kept'
import look from './order.module.css'
import { OrderLinks } from './order-links'
import { planWords } from './order-words'
import { Otherwise } from './otherwise'
import { orderOf, PlanCards } from './plan-cards'
import { RunTable } from './run-by-run'
import { Samples } from './samples'
import { StepUp } from './step-up'
import { NOTHING, StoredLeadNames, useElsewhere } from './stored-leads'
import { LONGEST_DECISION, readDecided, takeDecided } from './take-order.server'
import { WaitInstead, Waiting } from './waits'
import { withoutParam, withParam } from './wish-address'
import { WishesFields } from './wishes-fields'
import { readWishes } from './wishes-form'

export const loader = () => ({ today: utcToday() })

/** Takes a decision as it was shown, all of it or none, and goes back to where that was. */
export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request, { longest: LONGEST_DECISION })
  const decided = readDecided(form)
  if (!decided) return data({ problem: 'That is not an order. Nothing was saved.' }, { status: 422 })
  const saved = await takeDecided(request, form, params.site, decided)
  if (saved?.outcome === 'saved') {
    const back = new URL(within(form.get('back')), 'http://hallway')
    back.searchParams.set('took', saved.id ?? '')
    return redirect(`${back.pathname}${back.search}`)
  }
  const { problem, status } = whyNotSaved(saved)
  return data({ problem }, { status })
}

/** Order: the leads of the whole site decided at once, as plans beside each other, each with its price. */
export default function Order({ loaderData, actionData }: Route.ComponentProps) {
  const { plan, index, assessment } = useSite()
  const today = useToday(loaderData.today)
  const [params, setParams] = useSearchParams()
  const [halted, setHalted] = useState(false)
  const asked = useMemo(() => readWishes(params, plan.kinds), [params, plan.kinds])
  const others = useElsewhere()
  const question = useMemo(
    () => (halted || !others ? null : { upgrade: asked.upgrade, stores: others.stores, told: others.told }),
    [asked.upgrade, halted, others],
  )
  const most = useMemo(() => wantingRuns({ index, assessment }).length, [index, assessment])
  const { step, last: wanting, done } = useAsked('choices', question)
  const market = useMemo(() => ({ articles: articlesOf(index), suppliers: plan.suppliers }), [index, plan.suppliers])
  const questions = useMemo(() => {
    if (step !== 'answered' || !wanting || wanting.length === 0) return null
    const of = (name: OrderPlanName): OrderQuestion => ({
      wanting,
      market,
      wishes: asked.wishes,
      spares: asked.spares,
      plan: name,
    })
    return ORDER_PLANS.map((name): Deciding => ({ key: name, ask: 'order', question: of(name) }))
  }, [step, wanting, market, asked])
  const { answers, working, stop } = useSolved(questions)
  const [shown, setShown] = useState<OrderPlanName>('balanced')
  const [other, setOther] = useState<string | null>(null)
  const order = orderOf(answers.get(shown))
  const showing = questions?.find(({ key }) => key === shown)?.question
  const money = (sum: number): string => `${decimal(sum, 2)} ${plan.policy.currency}`
  const keep = (id: string): void => setParams(withParam(params, 'keep', id))
  const asking = wanting?.find(({ run }) => run === other)
  return (
    <StoredLeadNames stores={(others ?? NOTHING).stores}>
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
      {actionData?.problem && <Notice tone="blocked">{actionData.problem}</Notice>}
      <Took />
      <WishesFields params={params} />
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
        asked={asked}
        wanting={wanting ?? []}
        add={(name, id) => setParams(withParam(params, name, id))}
        remove={(name, id) => setParams(withoutParam(params, name, id))}
      />
      {questions && (
        <PlanCards
          decisions={answers}
          working={working}
          shown={shown}
          show={setShown}
          money={money}
          runs={wanting?.length ?? 0}
        />
      )}
      {order && wanting && showing && (
        <>
          <section className={look.block} aria-labelledby="buy-heading">
            <Heading as="h2" size="md" mb="2" id="buy-heading">
              {planWords[shown].name}: what is bought
            </Heading>
            <Purchases
              order={order}
              money={money}
              elsewhere={others?.kinds ?? {}}
              keepOut={(kind) => setParams(withParam(params, 'without', kind))}
            />
            {asked.upgrade !== null && (
              <StepUp
                upgrade={asked.upgrade}
                elsewhere={others ?? NOTHING}
                question={showing}
                order={order}
                money={money}
              />
            )}
            <TakeOrder order={order} />
          </section>
          <Unserved order={order} />
          <Samples order={order} wanting={wanting} market={market} wishes={asked.wishes} money={money} today={today} />
          <RunTable
            order={order}
            wanting={wanting}
            against={shown === 'balanced' ? null : orderOf(answers.get('balanced'))}
            kept={new Set(asked.wishes.fixed)}
            keep={keep}
            ask={setOther}
          />
          {asking && (
            <Otherwise
              key={`${shown} ${asking.run}`}
              question={showing}
              order={order}
              run={asking}
              money={money}
              keep={keep}
              close={() => setOther(null)}
            />
          )}
          <FewSorts wanting={wanting} market={market} wishes={asked.wishes} />
        </>
      )}
      <Waiting />
      <WaitInstead wanting={wanting ?? []} today={today} />
    </StoredLeadNames>
  )
}
