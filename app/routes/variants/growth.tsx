import { Box, Heading, Text } from '@chakra-ui/react'
import { useMemo, useState } from 'react'
import { data, Form, Link as RouterLink, useNavigation } from 'react-router'
import { dropUpgrade, thinkAhead } from '../../../core/change/changes/variants'
import { gradeWords } from '../../../core/checks/wording'
import { parsePictureMode } from '../../../core/picture/mode-text'
import { freeIds, slugOf } from '../../../core/plan/free-id'
import { byId } from '../../../core/plan/lookup'
import { formatLength } from '../../../core/quantity/length'
import { decimal, type Parsed, parsed } from '../../../core/quantity/parsed'
import { parseRate } from '../../../core/quantity/rate'
import { parseWatts } from '../../../core/quantity/watts'
import { type GrowthAnswer, growthWords } from '../../../core/variants/upgrades'
import { type Growth, type Upgrade, upgradeSchema } from '../../../core/vocabulary/growth'
import { refused } from '../../../server/sites/change-site'
import { readForm } from '../../read-form.server'
import { baseOf, change, whyNotSaved } from '../../stored.server'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { MainButton, Notice, QuietButton } from '../../ui/controls'
import { LabelledField, PlainInput, PlainSelect, plainField } from '../../ui/field'
import { useSite } from '../../ui/site-context'
import { useUnit } from '../../ui/units'
import { useAsked } from '../../ui/use-asked'
import type { Route } from './+types/growth'
import look from './growth.module.css'

/** What may grow, each with how its size is said. */
const SORTS = {
  pictures: { words: 'every picture becomes', example: '3840x2160@120' },
  display: { words: 'one more display behind a dock', example: '3840x2160@60' },
  power: { words: 'whatever charges takes', example: '240 W' },
  headset: { words: 'a faster headset decoder', example: '4 Gb/s' },
  storage: { words: 'faster disks', example: '2500 MB/s' },
  camera: { words: 'faster cameras', example: '8 Gb/s' },
} as const
type Sort = keyof typeof SORTS
const isSort = (name: unknown): name is Sort => typeof name === 'string' && name in SORTS

/** Often thought of, ready to be kept. */
const USUAL: readonly { name: string; sort: Exclude<Sort, 'display'>; size: string }[] = [
  { name: '4K at 120 Hz everywhere', sort: 'pictures', size: '3840x2160@120' },
  { name: '8K at 60 Hz everywhere', sort: 'pictures', size: '7680x4320@60' },
  { name: 'a 240 W laptop', sort: 'power', size: '240 W' },
  { name: 'a faster headset decoder', sort: 'headset', size: '4 Gb/s' },
  { name: 'disks at 2500 MB/s', sort: 'storage', size: '2500 MB/s' },
]

function readGrowth(sort: Sort, size: string, at: string): Parsed<Growth> {
  if (sort === 'power') {
    const watts = parseWatts(size)
    return watts.ok ? parsed({ what: 'power', watts: watts.value }) : watts
  }
  if (sort === 'pictures' || sort === 'display') {
    const mode = parsePictureMode(size)
    if (!mode.ok) return mode
    return parsed(sort === 'pictures' ? { what: sort, mode: mode.value } : { what: sort, at, mode: mode.value })
  }
  const rate = parseRate(size)
  return rate.ok ? parsed({ what: 'rate', kind: sort, rate: rate.value }) : rate
}

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
  const docks = plan.devices.filter(({ kind }) => kind === 'dock' || kind === 'hub')
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
            <PlainSelect id="field-at" name="at" defaultValue="">
              <option value="">Choose a dock</option>
              {docks.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </PlainSelect>
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

const MOST_TOLD = 12

function Ahead({ upgrade, answer }: { upgrade: Upgrade; answer: GrowthAnswer | undefined }) {
  const { plan, index } = useSite()
  const unit = useUnit()
  return (
    <Box as="section" aria-label={upgrade.name} className={look.ahead}>
      <Heading as="h2" size="md">
        {upgrade.name}
      </Heading>
      <p className={text.quiet}>{upgrade.growth.map((growth) => growthWords(growth, index.devices)).join('; ')}</p>
      {!answer ? (
        <p role="status">Judging the site as it would be.</p>
      ) : (
        <>
          <p>
            <b>
              {answer.survives} of {answer.survives + answer.fallen.length}
            </b>{' '}
            runs that get through today survive it as they are
            {answer.blocked > 0 && `; ${answer.blocked} ${answer.blocked === 1 ? 'is' : 'are'} blocked already`}.
          </p>
          {answer.lost.length > 0 && <p>Does not get through as it is laid: {answer.lost.join(', ')}.</p>}
          {answer.fallen.length > 0 && (
            <p>
              To buy for it now: <b>{`${decimal(answer.price, 2)} ${plan.policy.currency}`}</b>
              {answer.unpriced > 0 &&
                `, and ${answer.unpriced} ${answer.unpriced === 1 ? 'run' : 'runs'} without a price or a lead that would do`}
              .
            </p>
          )}
          <ul>
            {answer.fallen.slice(0, MOST_TOLD).map(({ id, label, from, to, instead }) => (
              <li key={id}>
                <RouterLink to={`/sites/${plan.site.id}/runs/${id}`} className={`${text.link} ${text.mono}`}>
                  {label}
                </RouterLink>{' '}
                {from && gradeWords[from]} to {gradeWords[to]}:{' '}
                {instead
                  ? `${instead.kind}, ${formatLength(instead.length, unit)}${instead.price === null ? '' : `, ${decimal(instead.price, 2)} ${plan.policy.currency}`}`
                  : 'no single lead would do'}
              </li>
            ))}
            {answer.fallen.length > MOST_TOLD && <li>and {answer.fallen.length - MOST_TOLD} more</li>}
          </ul>
        </>
      )}
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
