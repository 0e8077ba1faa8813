import { Box, Flex, Text } from '@chakra-ui/react'
import { getFormProps, type SubmissionResult, useForm } from '@conform-to/react'
import { parseWithZod } from '@conform-to/zod/v4'
import { useNavigation } from 'react-router'
import { type LogPosition, revisionOf } from '../../../../core/change/change'
import { learntOfCable } from '../../../../core/observe/learned'
import type { Learnt } from '../../../../core/observe/learnt'
import type { Plan } from '../../../../core/plan/plan'
import { CABLE_STANDINGS, type Cable } from '../../../../core/vocabulary/cable'
import { MadeFrom } from '../../../ui/change-fields'
import { ClashNotice } from '../../../ui/clash-notice'
import { MainButton, Notice, QuietButton } from '../../../ui/controls'
import { SelectField } from '../../../ui/field'
import { Form } from '../../../ui/form'
import { useSite } from '../../../ui/site-context'
import { useUnit } from '../../../ui/units'
import { useKept } from '../../../ui/use-kept'
import { CableFields } from './cable-fields'
import { type CableFormTexts, cableFormSchema, textsOfCable } from './cable-form'
import type { CableSaveAnswer } from './save-cable.server'

type Props = {
  cable: Cable
  lastResult: SubmissionResult<string[]> | undefined
  clash: CableSaveAnswer['clash']
}

/** What the cable is, to be put right; folded away until somebody wants to, or a save was refused. */
export function CableEdit({ cable, lastResult, clash }: Props) {
  const { plan, index, place, revisions } = useSite()
  const unit = useUnit()
  const learnt = learntOfCable(index.learned, cable.id)
  const stamp = [
    unit,
    revisionOf({ revisions }, 'cables', cable.id),
    JSON.stringify(learnt?.grade.claimed),
    JSON.stringify(learnt?.amps.claimed),
  ].join()
  const kept = useKept({ stamp, cable, learnt, place })
  return <EditForm key={kept.round} plan={plan} kept={kept} place={place} lastResult={lastResult} clash={clash} />
}

function EditForm({
  plan,
  kept: { made, behind, type },
  place,
  lastResult,
  clash,
}: Pick<Props, 'lastResult' | 'clash'> & {
  plan: Plan
  kept: { made: { cable: Cable; learnt: Learnt | undefined; place: LogPosition }; behind: boolean; type: () => void }
  place: LogPosition
}) {
  const { cable } = made
  const unit = useUnit()
  const saving = useNavigation().state === 'submitting'
  const [form, fields] = useForm<CableFormTexts>({
    id: `cable-${cable.id}`,
    lastResult: lastResult as never,
    defaultValue: textsOfCable(cable, made.learnt, unit),
    onValidate: ({ formData }) => parseWithZod(formData, { schema: cableFormSchema(unit) }) as never,
    shouldRevalidate: 'onInput',
  })
  return (
    <Box as="details" {...({ open: lastResult !== undefined } as object)}>
      <Box as="summary" cursor="pointer" fontWeight="600" color="brassInk">
        Edit this cable
      </Box>
      <Box border="1px solid" borderColor="line" borderRadius="2px" p="4" mt="2">
        {clash && (
          <ClashNotice
            what="cable"
            form={`cable-${cable.id}`}
            theirs={`/sites/${plan.site.id}/cables/${encodeURIComponent(cable.id)}`}
            {...clash}
          />
        )}
        {behind && !clash && (
          <Notice tone="note" slim>
            This cable was changed meanwhile. What you typed is still here; saving keeps both, or asks where both of you
            changed the same.
          </Notice>
        )}
        <Form method="post" {...getFormProps(form)} onInput={type} aria-label="Cable">
          <MadeFrom base={behind ? made.place : place} />
          <CableFields fields={fields as never} />
          <Box maxW="220px" mt="3">
            <SelectField field={fields.standing as never} label="Where it is">
              {CABLE_STANDINGS.map((standing) => (
                <option key={standing} value={standing}>
                  {standing}
                </option>
              ))}
            </SelectField>
          </Box>
          <Text fontSize="sm" color="quiet" mt="2">
            A mark that is changed here is added to the evidence; what was known before stays.
          </Text>
          <Box mt="3">
            <MainButton loading={saving}>Save the cable</MainButton>
          </Box>
        </Form>
        <Form method="post">
          <MadeFrom />
          <Flex mt="5" pt="4" borderTop="1px solid" borderColor="line" align="center" gap="4" wrap="wrap">
            <QuietButton name="intent" value="delete" grave>
              Delete this cable
            </QuietButton>
            <Text fontSize="sm" color="quiet">
              You can undo this. To keep what is known about it, retire it instead.
            </Text>
          </Flex>
        </Form>
      </Box>
    </Box>
  )
}
