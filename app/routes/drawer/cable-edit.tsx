import { Box, Flex, Text } from '@chakra-ui/react'
import { getFormProps, type SubmissionResult, useForm } from '@conform-to/react'
import { parseWithZod } from '@conform-to/zod/v4'
import { Form, useNavigation } from 'react-router'
import { CABLE_STANDINGS, type Cable } from '../../../core/plan/cable'
import { MainButton, QuietButton } from '../../ui/controls'
import { SelectField } from '../../ui/field'
import { useSite } from '../../ui/site-context'
import { useUnit } from '../../ui/units'
import { CableFields } from './cable-fields'
import { type CableFormTexts, cableFormSchema, textsOfCable } from './cable-form'

type Props = { cable: Cable; base: number; lastResult: SubmissionResult<string[]> | undefined }

/** What the cable is, to be put right; folded away until somebody wants to, or a save was refused. */
export function CableEdit({ cable, base, lastResult }: Props) {
  const { plan } = useSite()
  const unit = useUnit()
  const saving = useNavigation().state === 'submitting'
  const [form, fields] = useForm<CableFormTexts>({
    id: `cable-${cable.id}`,
    lastResult: lastResult as never,
    defaultValue: textsOfCable(cable, unit),
    onValidate: ({ formData }) => parseWithZod(formData, { schema: cableFormSchema(unit) }) as never,
    shouldRevalidate: 'onInput',
  })
  return (
    <Box as="details" {...({ open: lastResult !== undefined } as object)}>
      <Box as="summary" cursor="pointer" fontWeight="600" color="brassInk">
        Put right what it is
      </Box>
      <Box border="1px solid" borderColor="line" borderRadius="2px" p="4" mt="2">
        <Form method="post" {...getFormProps(form)} aria-label="Cable">
          <input type="hidden" name="base" value={base} />
          <CableFields fields={fields as never} plan={plan} />
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
          <Flex mt="5" pt="4" borderTop="1px solid" borderColor="line" align="center" gap="4">
            <QuietButton name="intent" value="delete" color="blocked" borderColor="blocked">
              Delete this cable
            </QuietButton>
            <Text fontSize="sm" color="quiet">
              It can be put back. To keep what is known of it, retire it instead.
            </Text>
          </Flex>
        </Form>
      </Box>
    </Box>
  )
}
