import { Heading, Text } from '@chakra-ui/react'
import { Link as RouterLink, useNavigation } from 'react-router'
import { growthWords } from '../../../core/variants/upgrades'
import { aheadOfHandover } from '../../off-thread.server'
import text from '../../theme/text.module.css'
import { MainButton, Notice } from '../../ui/controls'
import { LabelledField, PlainInput, PlainSelect, plainField } from '../../ui/field'
import { Form } from '../../ui/form'
import { useSite } from '../../ui/site-context'
import { DockSelect } from '../variants/dock-select'
import { GrowthAnswerView } from '../variants/growth-answer'
import { isSort, readGrowth, SORTS, USUAL } from '../variants/growth-form'
import type { Route } from './+types/ahead'
import { answered, handoverIn } from './handed.server'
import look from './handover.module.css'

/** What a client asks for later, answered from what was handed over. The question stands in the address, so that it can be sent on. */
export async function loader({ request, params }: Route.LoaderArgs) {
  const handover = await handoverIn(params.site, params.handover)
  const { searchParams } = new URL(request.url)
  const [sort, size, at] = ['sort', 'size', 'at'].map((name) => (searchParams.get(name) ?? '').slice(0, 200))
  const asked = { sort: sort ?? '', size: size ?? '', at: at ?? '' }
  const nothing = { handover, asked, growth: null, answer: null }
  if (!isSort(sort)) return { ...nothing, problem: null }
  if (sort === 'display' && asked.at === '')
    return { ...nothing, problem: 'Choose the dock that the display hangs on.' }
  const growth = readGrowth(sort, asked.size, asked.at)
  if (!growth.ok) return { ...nothing, problem: growth.problem }
  const question = { siteId: params.site, handover: handover.id, growth: growth.value }
  return { handover, asked, problem: null, growth: growth.value, answer: answered(await aheadOfHandover(question)) }
}

/** If something changes: a second display, a larger picture, a hungrier laptop. */
export default function AheadPage({ loaderData, params }: Route.ComponentProps) {
  const { handover, asked, problem, growth, answer } = loaderData
  const { plan, index } = useSite()
  const busy = useNavigation().state === 'loading'
  const here = `/sites/${plan.site.id}/handover/${params.handover}`
  const key = `${asked.sort} ${asked.size} ${asked.at}`
  return (
    <>
      <Heading as="h1" size="xl" mb="1">
        If something changes
      </Heading>
      <Text mb="2">
        Answered from the plan as it was handed over ({handover.name}). Nothing of it changes.{' '}
        <RouterLink to={here} className={text.link}>
          The handover
        </RouterLink>
      </Text>
      {problem && <Notice tone="blocked">{problem}</Notice>}
      <Form className={look.form} key={key}>
        <LabelledField field={plainField('sort')} label="What is wanted">
          <PlainSelect id="field-sort" name="sort" defaultValue={asked.sort || 'display'}>
            {Object.entries(SORTS).map(([name, { words }]) => (
              <option key={name} value={name}>
                {words}
              </option>
            ))}
          </PlainSelect>
        </LabelledField>
        <LabelledField
          field={plainField('size')}
          label="Size"
          hint="A picture, watts or a rate: 3840x2160@60, 140 W, 4 Gb/s."
        >
          <PlainInput id="field-size" name="size" mono required maxLength={120} defaultValue={asked.size} />
        </LabelledField>
        <LabelledField field={plainField('at')} label="At which dock" hint="For one more display only.">
          <DockSelect value={asked.at} />
        </LabelledField>
        <MainButton loading={busy}>Answer</MainButton>
      </Form>
      <ul className={look.usual} aria-label="Often asked">
        {USUAL.map(({ name, sort, size }) => (
          <li key={name}>
            <RouterLink to={`?${new URLSearchParams({ sort, size })}`} className={text.link}>
              {name}
            </RouterLink>
          </li>
        ))}
      </ul>
      {growth && answer && (
        <section className={look.section} aria-labelledby="answer">
          <h2 id="answer">{growthWords(growth, index.devices)}</h2>
          <GrowthAnswerView answer={answer} />
        </section>
      )}
    </>
  )
}
