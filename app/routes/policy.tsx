import { Box, Heading, Text } from '@chakra-ui/react'
import { data, Form, redirect, useNavigation, useSearchParams } from 'react-router'
import { z } from 'zod'
import { revisionOf } from '../../core/change/change'
import { choosePolicy } from '../../core/change/changes/site'
import { POLICY_ID } from '../../core/change/copy'
import { type Policy, policySchema } from '../../core/plan/policy'
import { readForm } from '../read-form.server'
import { baseOf, change, whyNotSaved } from '../stored.server'
import { MadeFrom } from '../ui/change-fields'
import { MainButton, Notice } from '../ui/controls'
import { useSite } from '../ui/site-context'
import { useKept } from '../ui/use-kept'
import type { Route } from './+types/policy'
import { saveSiteForm } from './save-site.server'
import { SiteForm } from './site-form'

type Choice = {
  [Name in 'length' | 'extensions' | 'cables' | 'computerDisplays' | 'reservation']: {
    legend: string
    options: [Policy[Name], string, string][]
  }
}

/** Every question must be answered: a form without one is not taken for the default. */
const { length, extensions, cables, computerDisplays, reservation } = policySchema.shape
const chosenSchema = z.object({
  length: length.unwrap(),
  extensions: extensions.unwrap(),
  cables: cables.unwrap(),
  computerDisplays: computerDisplays.unwrap(),
  reservation: reservation.unwrap(),
})

/** Where practitioners disagree, both schools with what follows from each. */
const choices: Choice = {
  length: {
    legend: 'How long may a cable be?',
    options: [
      [
        'book',
        'By the book',
        'The published limit for its rate and construction; a longer cable that passed a test is shown, and does not count.',
      ],
      ['bench', 'By the bench', 'What this very cable has passed on this controller counts, even beyond the book.'],
    ],
  },
  extensions: {
    legend: 'Extensions of type-C?',
    options: [
      ['never', 'Never', 'They are outside the standard.'],
      [
        'soaked',
        'Where the very chain has passed a soak',
        'At least 60 seconds, with the same leads in the same order.',
      ],
    ],
  },
  cables: {
    legend: 'Which cables?',
    options: [
      ['any', 'Any known cable', 'Marks, chips and tests decide; the one supplied with the device is offered first.'],
      ['supplied', 'Only the one supplied with the device', 'Any other is blocked.'],
    ],
  },
  computerDisplays: {
    legend: 'HDMI to a computer display?',
    options: [
      ['displayport', 'DisplayPort first', 'HDMI gets a note where the display has DisplayPort too.'],
      ['either', 'As good', 'No note.'],
    ],
  },
  reservation: {
    legend: 'What does a picture reserve in a dock’s tunnel?',
    options: [
      ['link', 'A whole link rate', 'What hosts usually do: a second display may come up lower than the first.'],
      ['stream', 'Its own stream rate', 'What newer hosts do: more displays fit.'],
    ],
  },
}

export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request)
  if (form.get('intent') === 'site') return saveSiteForm(request, form, params.site)
  const chosen = chosenSchema.safeParse(Object.fromEntries(form))
  if (!chosen.success) {
    return data({ problem: 'Choose one answer to each question. Nothing was saved.' }, { status: 422 })
  }
  const base = baseOf(form)
  const saved = await change(request, form, params.site, ({ plan }) => choosePolicy(plan, base, chosen.data))
  if (saved?.outcome === 'saved') return redirect(`/sites/${params.site}/policy?done=saved`)
  const { problem, status } = whyNotSaved(saved)
  return data({ problem }, { status })
}

/** What this site goes by where practitioners disagree. */
export default function PolicyPage({ actionData }: Route.ComponentProps) {
  const { plan, place, revisions } = useSite()
  const saving = useNavigation().state === 'submitting'
  const done = useSearchParams()[0].get('done')
  const stamp = String(revisionOf({ revisions }, 'policy', POLICY_ID))
  const { made, behind, type, round } = useKept({ stamp, policy: plan.policy, place })
  return (
    <Box maxW="720px">
      <Heading as="h1" size="xl" mb="1">
        What this site goes by
      </Heading>
      <Text mb="4">Good technicians disagree here. Every verdict that a choice changes says so.</Text>
      {done && (
        <Notice tone="clear" slim>
          {done === 'site' ? `${plan.site.name} is saved.` : 'What this site goes by is saved.'}
        </Notice>
      )}
      {actionData && <Notice tone="blocked">{actionData.problem}</Notice>}
      <Form method="post" key={round} onInput={type}>
        <MadeFrom base={behind ? made.place : place} />
        {Object.entries(choices).map(([name, { legend, options }]) => (
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
            {options.map(([value, title, consequence]) => (
              <Box as="label" key={value} display="flex" gap="3" py="1.5" cursor="pointer">
                <input
                  type="radio"
                  name={name}
                  value={value}
                  defaultChecked={made.policy[name as keyof Choice] === value}
                />
                <span>
                  <b>{title}</b>
                  <Box as="span" display="block" color="quiet" fontSize="sm">
                    {consequence}
                  </Box>
                </span>
              </Box>
            ))}
          </Box>
        ))}
        <MainButton loading={saving}>Save</MainButton>
      </Form>
      <SiteForm />
    </Box>
  )
}
