import { Box, Flex, Grid, Heading, Text } from '@chakra-ui/react'
import { type SubmissionResult, useForm } from '@conform-to/react'
import { parseWithZod } from '@conform-to/zod/v4'
import { type ReactNode, useCallback, useDeferredValue, useRef, useState } from 'react'
import { Link as RouterLink } from 'react-router'
import { leadingFinding } from '../../../core/checks/assess'
import { remedySentence } from '../../../core/checks/remedies'
import { sentence } from '../../../core/checks/sentences'
import { directNeeds } from '../../../core/plan/direct-needs'
import { byId } from '../../../core/plan/lookup'
import type { Plan } from '../../../core/plan/plan'
import { formatLength } from '../../../core/quantity/length'
import type { Run } from '../../../core/vocabulary/run'
import text from '../../theme/text.module.css'
import { Notice } from '../../ui/controls'
import { Corridor } from '../../ui/corridor'
import { GradeMark } from '../../ui/grade'
import { useSite } from '../../ui/site-context'
import { Took } from '../../ui/take'
import { useUnit } from '../../ui/units'
import { Candidates } from './candidates'
import { Findings } from './findings'
import { RunFields } from './run-fields'
import { type RunFormTexts, runFormSchema } from './run-form'
import { useDraft } from './use-draft'
import { WaysOut } from './ways-out'
import { LengthSlide, putLength, WhatIf } from './what-if'
import look from './what-if.module.css'

type Props = {
  plan: Plan
  /** The run as it is stored; null for a new one. */
  before: Run | null
  texts: RunFormTexts
  base: number | null
  lastResult: SubmissionResult<string[]> | undefined
  notice?: ReactNode
  children?: ReactNode
  /** Told when somebody types, so that what others change does not take the form away. */
  onType?: () => void
}

/** One run; what was tried on it is put back by making the page anew. */
export function RunPage(props: Props) {
  const [round, setRound] = useState(0)
  return <RunBody key={round} {...props} putBack={() => setRound(round + 1)} />
}

/** One run: its corridor, its form, its verdict and the drawer ranked for it, all moving with what is typed. */
function RunBody({
  plan,
  before,
  texts,
  base,
  lastResult,
  notice,
  children,
  onType,
  putBack,
}: Props & { putBack: () => void }) {
  const unit = useUnit()
  const { assessment: stored } = useSite()
  const formRef = useRef<HTMLFormElement>(null)
  const [tried, setTried] = useState<string | null>(null)
  const { draft, read } = useDraft(formRef, plan, before, tried)
  const [form, fields] = useForm<RunFormTexts>({
    id: runFormId(before),
    lastResult,
    defaultValue: texts,
    onValidate: ({ formData }) => parseWithZod(formData, { schema: runFormSchema(unit) }) as never,
    shouldRevalidate: 'onInput',
  })
  const stands = before ? byId(stored.runs).get(before.id) : undefined
  const verdict = draft?.verdict ?? stands
  const shownPlan = draft?.index.plan ?? plan
  const own = new Set(draft ? directNeeds(shownPlan, draft.run).map((need) => need.id) : [])
  const crossing = new Set(verdict?.flows.map((flow) => flow.needId).filter((id) => !own.has(id)))
  const chooseLead = useStable(() => {
    onType?.()
    read()
  })
  // the doors move at once, the drawer is ranked when there is time
  const ranked = useDeferredValue(draft)
  const leading = verdict && verdict.grade !== 'clear' ? leadingFinding(verdict.findings) : null
  const todo = leading?.remedies[0]
  const title = `${before?.tag ?? 'New run'}${draft ? `: ${endsOf(plan, draft.run)}` : ''}`
  return (
    <>
      <Flex align="center" gap="4" mb="3" wrap="wrap">
        <Heading as="h1" size="xl">
          {title}
        </Heading>
        {verdict && (
          <Box aria-live="polite" data-verdict="">
            <GradeMark grade={verdict.grade} size="lg" />
          </Box>
        )}
      </Flex>
      {leading && (
        <Text mt="-2" mb="3" maxW="900px">
          {sentence(leading, unit)}
          {todo && (
            <>
              {' '}
              <b>What to do:</b> {remedySentence(todo, unit)}
            </>
          )}
        </Text>
      )}
      <Took />
      {before?.waits && (
        <Notice tone="note" slim>
          Accepted as it lies since {before.waits.on}, until there is {before.waits.why}. Order buys nothing for it.
        </Notice>
      )}
      {notice}
      {form.errors && <Notice tone="blocked">{form.errors.join(' ')}</Notice>}
      <div className={look.judged}>
        {verdict ? (
          <Corridor corridor={verdict} title={title} />
        ) : (
          <Text color="quiet">
            {plan.devices.length > 1 ? (
              'Choose two ports and a length, and the corridor appears here.'
            ) : (
              <>
                A run joins the ports of two devices: put them into the{' '}
                <RouterLink to={`/sites/${plan.site.id}/survey`} className={text.link}>
                  survey
                </RouterLink>{' '}
                first.
              </>
            )}
          </Text>
        )}
        {draft && <Docks run={draft.run} />}
        {draft && (
          <WhatIf
            {...draft}
            // a run that is new is kept by laying it
            changed={draft.typed !== null && (before !== null || draft.turned.length > 0)}
            form={runFormId(before)}
            tryOut={setTried}
            putBack={() => {
              setTried(null)
              if (draft.typed) putBack()
            }}
          >
            <LengthSlide
              words="What if the route were"
              length={draft.run.route.length}
              slide={(metres) => putLength(formRef, formatLength(metres, unit))}
            />
          </WhatIf>
        )}
      </div>
      <Grid templateColumns={{ base: '1fr', lg: 'minmax(330px, 5fr) 6fr' }} gap="7" mt="5" alignItems="start">
        <Box data-paper="no">
          <RunFields
            form={form}
            fields={fields as never}
            formRef={formRef}
            plan={plan}
            before={before}
            base={base}
            passing={shownPlan.needs.filter((need) => crossing.has(need.id))}
            onChange={read}
            onType={onType}
          />
        </Box>
        <Box>
          {before && stands && stands.grade !== 'clear' && <WaysOut verdict={stands} />}
          <Findings verdict={verdict} plan={shownPlan} />
        </Box>
      </Grid>
      {ranked && <Candidates draft={ranked} formRef={formRef} onChange={chooseLead} />}
      {children}
    </>
  )
}

/** A function that stays the same and does what was last said. */
function useStable(work: () => void): () => void {
  const latest = useRef(work)
  latest.current = work
  return useCallback(() => latest.current(), [])
}

/** Ways to the docks and hubs at the ends of a run. */
function Docks({ run }: { run: Run }) {
  const { plan, index } = useSite()
  const docks = [run.from.device, run.to.device].flatMap((id) => {
    const device = index.devices.get(id)
    return device?.kind === 'dock' || device?.kind === 'hub' ? device : []
  })
  return docks.map(({ id, name }) => (
    <p key={id} className={text.small}>
      <RouterLink to={`/sites/${plan.site.id}/docks/${id}`} className={text.link}>
        What {name} carries over its uplink
      </RouterLink>
    </p>
  ))
}

export const runFormId = (run: Run | null): string => `run-${run?.id ?? 'new'}`

function endsOf(plan: Plan, run: Run): string {
  const nameOf = (id: string) => plan.devices.find((device) => device.id === id)?.name ?? id
  return `${nameOf(run.from.device)} to ${nameOf(run.to.device)}`
}
