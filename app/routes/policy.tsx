import { Box, Heading, Text } from '@chakra-ui/react'
import { useMemo } from 'react'
import { data, redirect, useNavigation, useSearchParams } from 'react-router'
import { z } from 'zod'
import { revisionOf } from '../../core/change/change'
import { choosePolicy } from '../../core/change/changes/site'
import { POLICY_ID } from '../../core/change/copy'
import { durationText, parseDuration } from '../../core/quantity/duration'
import { type LengthUnit, parseOffset } from '../../core/quantity/length'
import { decimal, parsed, unreadable } from '../../core/quantity/parsed'
import { SHORTEST_SOAK_SECONDS } from '../../core/standards/soak'
import { offsetText } from '../../core/survey/points-text'
import { HIGHEST_PRICE } from '../../core/vocabulary/fields'
import {
  EQUIPMENT,
  type Equipment,
  LONGEST_LOOK_SECONDS,
  type Policy,
  policySchema,
  reliedOf,
} from '../../core/vocabulary/policy'
import {
  answerOf,
  bearsOnVerdicts,
  otherChoices,
  type PolicyQuestion,
  policyQuestions,
} from '../../core/vocabulary/policy-choices'
import { readForm } from '../read-form.server'
import { baseOf, change, whyNotSaved } from '../stored.server'
import { MadeFrom } from '../ui/change-fields'
import { MainButton, Notice } from '../ui/controls'
import { plainField, TextField } from '../ui/field'
import { Form } from '../ui/form'
import { readBy } from '../ui/form-text'
import { takesLength } from '../ui/keep-typed-unit'
import { useSite } from '../ui/site-context'
import { useUnit } from '../ui/units'
import { useAsked } from '../ui/use-asked'
import { useKept } from '../ui/use-kept'
import { readUnit } from '../unit-cookie'
import type { Route } from './+types/policy'
import look from './policy.module.css'
import { PolicyEffectLine } from './policy-effect-line'
import { saveSiteForm } from './save-site.server'
import { SiteForm } from './site-form'

/** Every question must be answered: a form without one is not taken for the default. */
const {
  length,
  extensions,
  cables,
  computerDisplays,
  reservation,
  addInCards,
  farData,
  buying,
  soak,
  proveIn,
  others,
  searching,
  drivers,
} = policySchema.shape
const chosenSchema = z.object({
  length: length.unwrap(),
  extensions: extensions.unwrap(),
  cables: cables.unwrap(),
  computerDisplays: computerDisplays.unwrap(),
  reservation: reservation.unwrap(),
  addInCards: addInCards.unwrap(),
  farData: farData.unwrap(),
  buying: buying.unwrap(),
  soak: soak.unwrap(),
  proveIn: proveIn.unwrap(),
  others: others.unwrap(),
  searching: searching.unwrap(),
  drivers: drivers.unwrap(),
})

/** A share as people say it, in per cent, between nothing and all of it. */
const share = (what: string) =>
  readBy((text) => {
    const percent = Number(text.replace(',', '.').replace(/ ?%$/, ''))
    return Number.isFinite(percent) && percent >= 0 && percent <= 100
      ? parsed(Math.round(percent * 100) / 10_000)
      : unreadable(`${what} lies between 0 and 100 %.`)
  }, `Say how much: ${what.toLowerCase()}.`).optional()

const priceName = (of: Equipment): string => `price-${of.replace(' ', '-')}`

/** A price, or nothing where nobody knows it. */
const price = readBy((text) => {
  const said = text.trim().replace(',', '.')
  const given = Number(said)
  return said === '' || (given >= 0 && given <= HIGHEST_PRICE)
    ? parsed(said === '' ? null : given)
    : unreadable(`A price lies between 0 and ${HIGHEST_PRICE}.`)
}, 'Say what it costs.').optional()

/** The figures that a site sets for itself; one that a form does not show stays as it is. */
const figuresSchema = (unit: LengthUnit) =>
  z.object({
    slack: share('Slack'),
    loop: readBy((text) => {
      const loop = parseOffset(text, unit)
      return !loop.ok || (loop.value >= 0 && loop.value <= MOST_LOOP)
        ? loop
        : unreadable('A loop lies between 0 and 20 m.')
    }, 'Say how long a loop is, or 0.').optional(),
    headroom: share('Headroom'),
    reliedFrom: readBy((text) => {
      const seconds = parseDuration(text)
      return seconds !== null && seconds >= SHORTEST_SOAK_SECONDS && seconds <= LONGEST_LOOK_SECONDS
        ? parsed(seconds)
        : unreadable('A look is relied on from 60 s at least, and from a day at most.')
    }, 'Say from how many seconds on a look is relied on.').optional(),
    chargeAtLeast: share('The share of its own supply'),
    overheadLow: share('What storage loses at least'),
    overheadHigh: share('What storage loses at most'),
    currency: z.string().trim().toUpperCase().pipe(policySchema.shape.currency.unwrap()).optional(),
    ...Object.fromEntries(EQUIPMENT.map((each) => [priceName(each), price])),
  })
const MOST_LOOP = 20

/** What the site goes by with the figures of a form. */
function withFigures(policy: Policy, figures: z.output<ReturnType<typeof figuresSchema>>): Partial<Policy> {
  const { overheadLow, overheadHigh, slack, loop, headroom, reliedFrom, chargeAtLeast, currency, ...prices } = figures
  const { low, high } = policy.storageOverhead
  // a site that says nothing of it goes on saying nothing where it stays at that
  const relied = reliedFrom === reliedOf(policy) ? policy.reliedFrom : reliedFrom
  const given = Object.entries({ slack, loop, headroom, reliedFrom: relied, chargeAtLeast, currency })
  const equipment = EQUIPMENT.flatMap((each) => {
    const said = (prices as Record<string, number | null | undefined>)[priceName(each)]
    const cost = said === undefined ? policy.equipment[each] : said
    return cost === undefined || cost === null ? [] : [[each, cost] as const]
  })
  return {
    ...Object.fromEntries(given.filter(([, value]) => value !== undefined)),
    storageOverhead: { low: overheadLow ?? low, high: overheadHigh ?? high },
    equipment: Object.fromEntries(equipment),
  }
}

export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request)
  if (form.get('intent') === 'site') return saveSiteForm(request, form, params.site)
  const chosen = chosenSchema.safeParse(Object.fromEntries(form))
  if (!chosen.success) {
    return data({ problem: 'Choose one answer to each question. Nothing was saved.' }, { status: 422 })
  }
  const figures = figuresSchema(readUnit(request)).safeParse(Object.fromEntries(form))
  if (!figures.success)
    return data({ problem: `${figures.error.issues[0]?.message} Nothing was saved.` }, { status: 422 })
  const base = baseOf(form)
  const saved = await change(request, form, params.site, ({ plan }) =>
    choosePolicy(plan, base, { ...chosen.data, ...withFigures(plan.policy, figures.data) }),
  )
  if (saved?.outcome === 'saved') return redirect(`/sites/${params.site}/policy?done=saved`)
  const { problem, status } = whyNotSaved(saved)
  return data({ problem }, { status })
}

const percent = (share: number): string => decimal(share * 100, 2)

/** Figures of the site's own. */
function Figures({ policy }: { policy: Policy }) {
  const unit = useUnit()
  const { slack, loop, headroom, storageOverhead, chargeAtLeast } = policy
  const field = (name: string, value: string) => plainField(name, value)
  return (
    <Box as="fieldset" border="1px solid" borderColor="line" bg="card" borderRadius="2px" px="4" pb="3" mb="4">
      <Box as="legend" fontWeight="700" px="1">
        Figures of this site
      </Box>
      <div className={look.figures}>
        <TextField field={field('slack', percent(slack))} label="Slack kept on a route, %" inputMode="decimal" />
        <TextField
          field={field('loop', offsetText(loop, unit))}
          label={`Loop kept at each end, ${unit}`}
          {...takesLength}
        />
        <TextField
          field={field('headroom', percent(headroom))}
          label="Tight below this margin, %"
          inputMode="decimal"
        />
        <TextField
          field={field('reliedFrom', durationText(reliedOf(policy)))}
          label="A look at a link is relied on from"
        />
        <TextField
          field={field('chargeAtLeast', percent(chargeAtLeast))}
          label="A laptop charges from this share of its own supply, %"
          inputMode="decimal"
        />
        <TextField
          field={field('overheadLow', percent(storageOverhead.low))}
          label="Storage loses in a tunnel at least, %"
          inputMode="decimal"
        />
        <TextField
          field={field('overheadHigh', percent(storageOverhead.high))}
          label="and at most, %"
          inputMode="decimal"
        />
        <TextField field={field('currency', policy.currency)} label="Prices are in" maxLength={3} />
        {EQUIPMENT.map((each) => (
          <TextField
            key={each}
            field={field(priceName(each), policy.equipment[each]?.toString() ?? '')}
            label={`What ${each === 'extender pair' ? 'an' : 'a'} ${each} costs`}
            inputMode="decimal"
            maxLength={10}
          />
        ))}
      </div>
    </Box>
  )
}

/** Rules of this site where practitioners disagree. */
export default function PolicyPage({ actionData }: Route.ComponentProps) {
  const { plan, place, revisions } = useSite()
  const saving = useNavigation().state === 'submitting'
  const done = useSearchParams()[0].get('done')
  const stamp = String(revisionOf({ revisions }, 'policy', POLICY_ID))
  const question = useMemo(() => ({ choices: otherChoices(plan.policy).map(({ choice }) => choice) }), [plan.policy])
  const { step, last } = useAsked('policies', question)
  const effects = new Map(
    (step === 'answered' ? last : []).map(({ choice, turned }) => {
      const [[name, value] = []] = Object.entries(choice)
      return [`${name} ${value}`, turned] as const
    }),
  )
  const { made, behind, type, round } = useKept({ stamp, policy: plan.policy, place })
  return (
    <Box maxW="720px">
      <Heading as="h1" size="xl" mb="1">
        Rules of this site
      </Heading>
      <Text mb="4">Good technicians disagree here. Every verdict that a choice changes says so.</Text>
      {done && (
        <Notice tone="clear" slim>
          {done === 'site' ? `${plan.site.name} is saved.` : 'The rules are saved.'}
        </Notice>
      )}
      {actionData && <Notice tone="blocked">{actionData.problem}</Notice>}
      <Form method="post" needs="lead" key={round} onInput={type}>
        <MadeFrom base={behind ? made.place : place} />
        {Object.entries(policyQuestions).map(([name, { legend, options }]) => (
          <Box
            as="fieldset"
            key={name}
            border="1px solid"
            borderColor="line"
            bg="card"
            borderRadius="2px"
            px="4"
            pb="3"
            mb="4"
          >
            <Box as="legend" fontWeight="700" px="1">
              {legend}
            </Box>
            {options.map(({ value, title, consequence }) => (
              <Box as="label" key={value} display="flex" alignItems="baseline" gap="3" py="1.5" cursor="pointer">
                <input
                  type="radio"
                  name={name}
                  value={value}
                  defaultChecked={answerOf(made.policy, name as PolicyQuestion) === value}
                />
                <span>
                  <b>{title}</b>
                  <Box as="span" display="block" color="quiet" fontSize="sm">
                    {consequence}
                  </Box>
                  {answerOf(plan.policy, name as PolicyQuestion) !== value && (
                    <PolicyEffectLine
                      effect={bearsOnVerdicts(name) ? effects.get(`${name} ${value}`) : []}
                      home={`/sites/${plan.site.id}`}
                    />
                  )}
                </span>
              </Box>
            ))}
          </Box>
        ))}
        <Figures policy={made.policy} />
        <MainButton loading={saving}>Save</MainButton>
      </Form>
      <SiteForm />
    </Box>
  )
}
