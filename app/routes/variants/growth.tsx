import { Box, Heading, Text } from '@chakra-ui/react'
import { useMemo, useState } from 'react'
import { data, useNavigation } from 'react-router'
import { dropUpgrade, thinkAhead } from '../../../core/change/changes/variants'
import { freeIds, slugOf } from '../../../core/plan/free-id'
import { byId } from '../../../core/plan/lookup'
import { type Parsed, parsed } from '../../../core/quantity/parsed'
import { type GrowthAnswer, growthWords } from '../../../core/variants/upgrades'
import { type Upgrade, upgradeSchema } from '../../../core/vocabulary/growth'
import { refused } from '../../../server/sites/change-site'
import { readForm } from '../../read-form.server'
import { baseOf, change, whyNotSaved } from '../../stored.server'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { MainButton, Notice, QuietButton } from '../../ui/controls'
import { LabelledField, PlainInput, PlainSelect, plainField } from '../../ui/field'
import { Form } from '../../ui/form'
import { useSite } from '../../ui/site-context'
import { useAsked } from '../../ui/use-asked'
import type { Route } from './+types/growth'
import { DockSelect } from './dock-select'
import look from './growth.module.css'
import { GrowthAnswerView } from './growth-answer'
import { isSort, readGrowth, SORTS, type Sort, USUAL } from './growth-form'

/** Keeps an upgrade with the site, or drops one. */
export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request)
  const dropped = form.get('drop')
  const read = dropped === null ? readUpgrade(form) : null
  if (read && !read.ok) return data({ problem: `${read.problem} Nothing was saved.` }, { status: 422 })
  const saved = await change(request, form, params.site, ({ plan }) => {
    if (read?.ok) {
      const id = freeIds(plan.upgrades.map((each) => each.id))(slugOf(read.value.name, 'upgrade'))
      return thinkAhead({ ...read.value, id })
    }
    const upgrade = byId(plan.upgrades).get(String(dropped))
    return upgrade ? dropUpgrade(upgrade, baseOf(form)) : refused('drop', 'it is no longer there')
  })
  if (saved?.outcome === 'saved') return data({ problem: null })
  const { problem, status } = whyNotSaved(saved)
  return data({ problem }, { status })
}

function readUpgrade(form: FormData): Parsed<Upgrade> {
  const sort = form.get('sort')
  if (!isSort(sort)) return { ok: false, problem: 'Choose what may grow.' }
  const at = String(form.get('at') ?? '')
  if (sort === 'display' && at === '') return { ok: false, problem: 'Choose the dock that one more display hangs on.' }
  const growth = readGrowth(sort, String(form.get('size') ?? ''), at)
  if (!growth.ok) return growth
  const read = upgradeSchema.safeParse({ id: 'upgrade', name: form.get('name'), growth: [growth.value] })
  return read.success ? parsed(read.data) : { ok: false, problem: 'Give it a name of 1 to 120 letters.' }
}

/** What if it grows: named upgrades side by side, which runs survive each, and what it would cost to buy for it now. */
export default function GrowthPage({ actionData }: Route.ComponentProps) {
  const { plan } = useSite()
  const saving = useNavigation().state === 'submitting'
  const question = useMemo(
    () => (plan.upgrades.length > 0 ? { upgrades: plan.upgrades.map(({ id }) => id) } : null),
    [plan.upgrades],
  )
  const { step, last } = useAsked('growth', question)
  const [sort, setSort] = useState<Sort>('pictures')
  const answers = new Map((last ?? []).map((answer) => [answer.upgrade, answer]))
  return (
    <>
      <Heading as="h1" size="xl" mb="1">
        What if it grows
      </Heading>
      <Text mb="4">
        What may come later? Add it here. Hallway judges the whole site as it is laid, and tells what it would cost to
        buy for it now.
      </Text>
      {actionData?.problem && <Notice tone="blocked">{actionData.problem}</Notice>}
      <Form method="post" className={look.form} key={plan.upgrades.length}>
        <MadeFrom />
        <LabelledField field={plainField('name')} label="Name">
          {' '}
          <PlainInput id="field-name" name="name" required maxLength={120} placeholder="next year's screens" />
        </LabelledField>
        <LabelledField field={plainField('sort')} label="What grows">
          {' '}
          <PlainSelect
            id="field-sort"
            name="sort"
            value={sort}
            onChange={({ currentTarget }) => setSort(isSort(currentTarget.value) ? currentTarget.value : 'pictures')}
          >
            {Object.entries(SORTS).map(([name, { words }]) => (
              <option key={name} value={name}>
                {words}
              </option>
            ))}
          </PlainSelect>
        </LabelledField>
        <LabelledField field={plainField('size')} label="To">
          {' '}
          <PlainInput id="field-size" name="size" mono required maxLength={120} placeholder={SORTS[sort].example} />
        </LabelledField>
        {sort === 'display' && (
          <LabelledField field={plainField('at')} label="At">
            {' '}
            <DockSelect />
          </LabelledField>
        )}
        <MainButton loading={saving}>Add this what-if</MainButton>
      </Form>
      <div className={look.usual}>
        {USUAL.filter(({ name }) => !plan.upgrades.some((upgrade) => upgrade.name === name)).map((usual) => (
          <Form method="post" key={usual.name}>
            <MadeFrom />
            <input type="hidden" name="name" value={usual.name} />
            <input type="hidden" name="sort" value={usual.sort} />
            <input type="hidden" name="size" value={usual.size} />
            <QuietButton small>{usual.name}</QuietButton>
          </Form>
        ))}
      </div>
      {step === 'failed' && <Text color="blocked">This could not be worked out. Reload the page.</Text>}
      <div className={look.beside}>
        {plan.upgrades.map((upgrade) => (
          <Ahead key={upgrade.id} upgrade={upgrade} answer={answers.get(upgrade.id)} />
        ))}
      </div>
    </>
  )
}

function Ahead({ upgrade, answer }: { upgrade: Upgrade; answer: GrowthAnswer | undefined }) {
  const { index } = useSite()
  return (
    <Box as="section" aria-label={upgrade.name} className={look.ahead}>
      <Heading as="h2" size="md">
        {upgrade.name}
      </Heading>
      <p className={text.quiet}>{upgrade.growth.map((growth) => growthWords(growth, index.devices)).join('; ')}</p>
      {!answer ? <p role="status">Judging the site as it would be.</p> : <GrowthAnswerView answer={answer} />}
      <Form method="post">
        <MadeFrom />
        <input type="hidden" name="drop" value={upgrade.id} />
        <QuietButton small aria-label={`Remove ${upgrade.name}`}>
          Remove
        </QuietButton>
      </Form>
    </Box>
  )
}
