import { Box, Flex, Grid, Heading, Link, Text } from '@chakra-ui/react'
import { getFormProps, useForm } from '@conform-to/react'
import { parseWithZod } from '@conform-to/zod/v4'
import { useRef } from 'react'
import { data, Link as RouterLink, redirect, useNavigation, useSearchParams } from 'react-router'
import { addCables } from '../../../../core/change/changes/cables'
import { observed } from '../../../../core/change/changes/observations'
import { learntOfCable } from '../../../../core/observe/learned'
import { freeIds, slugOf } from '../../../../core/plan/free-id'
import { nextTag } from '../../../../core/plan/next-tag'
import type { Cable } from '../../../../core/vocabulary/cable'
import { parseFields } from '../../../parse-fields.server'
import { readForm } from '../../../read-form.server'
import { changeBy, whyNotSaved } from '../../../stored.server'
import { ChangeId } from '../../../ui/change-fields'
import { MainButton, Notice } from '../../../ui/controls'
import { Form } from '../../../ui/form'
import { useSite } from '../../../ui/site-context'
import { useUnit } from '../../../ui/units'
import { readUnit } from '../../../unit-cookie'
import { handOf } from '../../../who.server'
import { witnessOf } from '../../../witness.server'
import type { Route } from './+types/add-cable'
import { CableFields } from './cable-fields'
import { type CableFormTexts, cableFormSchema, readCable, textsOfCable } from './cable-form'
import { useDraftCable, WhatItPromises } from './draft-cable'

export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request)
  const submission = parseFields(form, cableFormSchema(readUnit(request)))
  if (submission.status !== 'success') return data(submission.reply(), { status: 422 })
  const hand = await handOf(request, form)
  const saved = await changeBy(hand, params.site, ({ plan }) => {
    const id = freeIds(plan.cables.map((cable) => cable.id))(slugOf(submission.value.tag, 'cable'))
    const { cable, marks } = readCable(submission.value, null, undefined, id)
    return addCables([cable], observed(marks, { cable: id }, witnessOf(hand)))
  })
  if (saved?.outcome !== 'saved') {
    const { problem, status } = whyNotSaved(saved)
    return data(submission.reply({ formErrors: [problem] }), { status })
  }
  // the next lead of the heap is often like the last
  return redirect(
    `/sites/${params.site}/drawer/add?${new URLSearchParams({ like: saved.edits.find(({ list }) => list === 'cables')?.id ?? '' })}`,
  )
}

/** One cable after another from the bench: the form stays as it was, with the next tag. */
export default function AddCable({ actionData }: Route.ComponentProps) {
  const { plan } = useSite()
  const [params] = useSearchParams()
  const like = plan.cables.find((cable) => cable.id === params.get('like'))
  return <AddForm key={like?.id ?? 'first'} like={like} lastResult={actionData} />
}

function AddForm({ like, lastResult }: { like: Cable | undefined; lastResult: Route.ComponentProps['actionData'] }) {
  const { plan, index } = useSite()
  const unit = useUnit()
  const saving = useNavigation().state === 'submitting'
  const ref = useRef<HTMLFormElement>(null)
  const [form, fields] = useForm<CableFormTexts>({
    id: `add-cable-${like?.id ?? 'first'}`,
    lastResult: lastResult as never,
    defaultValue: {
      ...(like ? textsOfCable(like, learntOfCable(index.learned, like.id), unit) : {}),
      note: undefined,
      standing: 'drawer',
      tag: nextTag(plan.cables.map((cable) => cable.tag)),
    },
    onValidate: ({ formData }) => parseWithZod(formData, { schema: cableFormSchema(unit) }) as never,
    shouldRevalidate: 'onInput',
  })
  const { draft, read } = useDraftCable(ref, like ?? null)
  return (
    <>
      {like && (
        <Notice tone="clear" slim>
          <Link asChild fontFamily="mono" fontWeight="700" textDecoration="underline">
            <RouterLink to={`/sites/${plan.site.id}/cables/${like.id}`}>{like.tag}</RouterLink>
          </Link>{' '}
          is in the drawer. The next one starts like it.
        </Notice>
      )}
      {form.errors && <Notice tone="blocked">{form.errors.join(' ')}</Notice>}
      <Grid templateColumns={{ base: '1fr', lg: '1fr 280px' }} gap="6" alignItems="start">
        <Form method="post" {...getFormProps(form)} ref={ref} onInput={read} aria-label="Cable">
          <ChangeId />
          <CableFields fields={fields as never} />
          <Flex mt="4" gap="4" align="center">
            <MainButton loading={saving}>Add to the drawer</MainButton>
            <Text fontSize="sm" color="quiet">
              Enter saves, and the form is ready for the next.
            </Text>
          </Flex>
        </Form>
        <Box as="aside" aria-live="polite">
          <Heading as="h2" size="md" mb="2">
            What it promises
          </Heading>
          <WhatItPromises draft={draft} />
        </Box>
      </Grid>
    </>
  )
}
