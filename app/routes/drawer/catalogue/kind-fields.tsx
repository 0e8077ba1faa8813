import { Box, Flex, Grid, Heading, Link } from '@chakra-ui/react'
import { type FieldMetadata, getFormProps, useForm } from '@conform-to/react'
import { parseWithZod } from '@conform-to/zod/v4'
import { Link as RouterLink, useNavigation } from 'react-router'
import { endText } from '../../../../core/drawer/end-text'
import { FEED_WORDS, feedLabels } from '../../../../core/drawer/feed-text'
import { CONNECTORS, describeEnd, GENDERS } from '../../../../core/standards/connectors'
import { CABLE_GRADES, CONSTRUCTIONS, gradeFacts } from '../../../../core/standards/grades'
import { POWER_MARKS } from '../../../../core/standards/mark-text'
import { type CableKind, FEELS } from '../../../../core/vocabulary/cable'
import { MadeFrom } from '../../../ui/change-fields'
import { MainButton, QuietButton } from '../../../ui/controls'
import { CheckField, SelectField, TextAreaField, TextField } from '../../../ui/field'
import { Form } from '../../../ui/form'
import { useUnit } from '../../../ui/units'
import { type KindFormTexts, kindFormSchema, textsOfKind } from './kind-form'

/** A kind of the catalogue, new or to be put right. */
export function KindForm({ kind, lastResult }: { kind: CableKind | null; lastResult: unknown }) {
  const saving = useNavigation().state === 'submitting'
  const unit = useUnit()
  const [form, fields] = useForm<KindFormTexts>({
    id: `kind-${kind?.id ?? 'new'}`,
    lastResult: lastResult as never,
    defaultValue: kind ? textsOfKind(kind, unit) : { construction: 'passive' },
    onValidate: ({ formData }) => parseWithZod(formData, { schema: kindFormSchema(unit) }) as never,
    shouldRevalidate: 'onInput',
  })
  const known = fields as unknown as { [Name in keyof KindFormTexts]-?: FieldMetadata<string> }
  return (
    <Box as="section" aria-labelledby="kind-heading" maxW="900px">
      <Flex gap="4" align="baseline" mb="2">
        <Heading as="h2" size="md" id="kind-heading">
          {kind ? kind.name : 'A new kind'}
        </Heading>
        {kind && (
          <Link asChild fontSize="sm" color="brassInk" textDecoration="underline">
            <RouterLink to=".">add a new kind instead</RouterLink>
          </Link>
        )}
      </Flex>
      <Form method="post" {...getFormProps(form)} aria-label="Kind">
        {kind && <input type="hidden" name="id" value={kind.id} />}
        <MadeFrom />
        <Grid templateColumns={{ base: '1fr', md: '2fr 1fr 1fr' }} gap="3">
          <TextField field={known.name} label="Name" required />
          <EndField field={known.first} label="First end" />
          <EndField field={known.second} label="Second end" />
          <SelectField field={known.grade} label="Listed as" required>
            <option value="">choose</option>
            {CABLE_GRADES.map((grade) => (
              <option key={grade} value={grade}>
                {gradeFacts[grade].name}
              </option>
            ))}
          </SelectField>
          <SelectField field={known.power} label="Power">
            <option value="">not said</option>
            {POWER_MARKS.map((mark) => (
              <option key={mark} value={mark}>
                {mark}
              </option>
            ))}
          </SelectField>
          <SelectField field={known.construction} label="Built">
            {CONSTRUCTIONS.map((each) => (
              <option key={each} value={each}>
                {each}
              </option>
            ))}
          </SelectField>
          <SelectField field={known.feed} label="If active, its supply">
            {FEED_WORDS.map((word) => (
              <option key={word} value={word}>
                {feedLabels[word]}
              </option>
            ))}
          </SelectField>
          <TextField field={known.wants} label="What it needs beside it" hint="a supply, drivers, an adapter" />
          <TextField field={known.includes} label="What comes in its box" hint="with commas between" />
          <TextField
            field={known.wantsPrice}
            label="What these parts cost"
            hint="if not in its box"
            inputMode="decimal"
          />
          <TextField field={known.cord} label="Cord of its supply" hint="how far it reaches" />
          <TextField field={known.avoid} label="Do not buy, because" hint="Order leaves it out" />
          <TextAreaField
            field={known.stock}
            label="Lengths and prices"
            hint="A line for each, like 2 m 12.50"
            rows={3}
          />
          <TextField field={known.leadDays} label="Days to deliver" inputMode="numeric" />
          <TextField field={known.returnDays} label="Days to send back" hint="0 for never" inputMode="numeric" />
          <TextField field={known.gramsPerMetre} label="Grams a metre" hint="where it is known" inputMode="numeric" />
          <SelectField field={known.feel} label="In the hand">
            <option value="">not said</option>
            {FEELS.map((feel) => (
              <option key={feel} value={feel}>
                {feel}
              </option>
            ))}
          </SelectField>
          <TextField field={known.note} label="Note" />
          <Flex align="center" gap="4" wrap="wrap">
            <CheckField field={known.oneWay} label="Carries one way only" />
            <CheckField field={known.strap} label="With a strap" />
            <CheckField field={known.angled} label="A plug at a right angle" />
          </Flex>
        </Grid>
        <Flex mt="3" gap="3">
          <MainButton loading={saving}>{kind ? 'Save the kind' : 'Add to the catalogue'}</MainButton>
          {kind && (
            <QuietButton name="intent" value="remove" formNoValidate grave>
              Remove the kind
            </QuietButton>
          )}
        </Flex>
      </Form>
    </Box>
  )
}

const EndField = ({ field, label }: { field: FieldMetadata<string>; label: string }) => (
  <SelectField field={field} label={label} required>
    <option value="">choose</option>
    {/^own /.test(field.initialValue ?? '') && <option>{field.initialValue}</option>}
    {CONNECTORS.flatMap((connector) =>
      [...GENDERS].reverse().map((gender) => (
        <option key={`${connector} ${gender}`} value={endText({ connector, gender })}>
          {describeEnd({ connector, gender })}
        </option>
      )),
    )}
  </SelectField>
)
