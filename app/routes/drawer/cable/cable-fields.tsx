import { Box, Flex, Grid, Text } from '@chakra-ui/react'
import type { FieldMetadata } from '@conform-to/react'
import { useCallback } from 'react'
import { POWER_MARKS } from '../../../../core/drawer/mark-text'
import { CONNECTORS, connectorNames } from '../../../../core/standards/connectors'
import { CABLE_GRADES, CONSTRUCTIONS, gradeFacts } from '../../../../core/standards/grades'
import { ChoiceField, type Option } from '../../../ui/choice'
import { ConnectorFace } from '../../../ui/connector-face'
import { CheckField, SelectField, TextField } from '../../../ui/field'
import { useSite } from '../../../ui/site-context'
import { useUnit } from '../../../ui/units'
import type { CableFormTexts } from './cable-form'

type Fields = { [Name in keyof CableFormTexts]-?: FieldMetadata<string> }

/** What somebody sees of a cable on the bench, in the order the eye takes it in: plugs, mark, length, the rest. */
export function CableFields({ fields }: { fields: Fields }) {
  const unit = useUnit()
  const { plan, index } = useSite()
  const devices = useCallback(() => [{ label: '', options: plan.devices.map(optionOf) }], [plan.devices])
  const kinds = useCallback(() => [{ label: '', options: plan.kinds.map(optionOf) }], [plan.kinds])
  return (
    <Flex direction="column" gap="4">
      <ConnectorChoice
        field={fields.first}
        socket={fields.firstSocket}
        legend="First end (the host end, if it matters)"
      />
      <ConnectorChoice field={fields.second} socket={fields.secondSocket} legend="Second end" />
      <CheckField field={fields.oneWay} label="Carries one way only, from its first end to its second" />
      <Grid templateColumns={{ base: '1fr 1fr', md: '1fr 1fr 1.4fr 1fr' }} gap="3">
        <TextField field={fields.tag} label="Tag" required mono />
        <TextField
          field={fields.length}
          label="Length"
          required
          hint={unit === 'm' ? '2 m, 80 cm, 6 ft' : '6 ft, 6\' 7", 2 m'}
        />
        <SelectField field={fields.mark} label="Mark on the plug" hint="What is printed, not what you hope">
          <option value="">none that can be read</option>
          {CABLE_GRADES.map((grade) => (
            <option key={grade} value={grade}>
              {gradeFacts[grade].name}
            </option>
          ))}
        </SelectField>
        <SelectField field={fields.power} label="Power printed">
          <option value="">nothing</option>
          {POWER_MARKS.map((mark) => (
            <option key={mark} value={mark}>
              {mark === 'none' ? 'no power wires' : mark}
            </option>
          ))}
        </SelectField>
        <SelectField field={fields.construction} label="Built">
          {CONSTRUCTIONS.map((each) => (
            <option key={each} value={each}>
              {each}
            </option>
          ))}
        </SelectField>
        <TextField field={fields.thickness} label="Thickness, mm" inputMode="decimal" />
        <ChoiceField
          field={fields.suppliedWith}
          label="Came with"
          none="no device, or nobody knows"
          count={plan.devices.length}
          groups={devices}
          one={(id) => named(index.devices.get(id))}
        />
        <TextField field={fields.awg} label="Supply wires, AWG" inputMode="numeric" />
        <ChoiceField
          field={fields.kind}
          label="From the catalogue"
          none="no kind of it"
          count={plan.kinds.length}
          groups={kinds}
          one={(id) => named(index.kinds.get(id))}
        />
        <SelectField field={fields.feed} label="If active, its supply">
          <option value="bus">from the port</option>
          <option value="optional">may have its own</option>
          <option value="required">needs its own</option>
        </SelectField>
        <Box gridColumn={{ base: '1 / -1', md: 'span 2' }}>
          <TextField field={fields.note} label="Note" hint="Sleeve, colour, where it turned up" />
        </Box>
      </Grid>
    </Flex>
  )
}

const optionOf = ({ id, name }: { id: string; name: string }): Option => ({ value: id, words: name })
const named = (item: { id: string; name: string } | undefined): Option | null => (item ? optionOf(item) : null)

/** Radio buttons with the mouth of each plug: quicker to point at than to read. They are the browser's own. */
function ConnectorChoice({
  field,
  socket,
  legend,
}: {
  field: FieldMetadata<string>
  socket: FieldMetadata<string>
  legend: string
}) {
  return (
    <Box as="fieldset" aria-describedby={field.errors ? field.errorId : undefined}>
      <Flex as="legend" fontWeight="600" fontSize="sm" mb="1">
        {legend}
      </Flex>
      <Flex gap="1.5" wrap="wrap" align="stretch">
        {CONNECTORS.map((connector, at) => (
          <Flex
            as="label"
            key={connector}
            direction="column"
            align="center"
            w="76px"
            px="1"
            pt="1"
            pb="1.5"
            bg="card"
            border="1px solid"
            borderColor="edge"
            borderRadius="2px"
            cursor="pointer"
            textAlign="center"
            css={{
              '&:has(input:checked)': {
                outline: '3px solid var(--hw-colors-brass)',
                outlineOffset: '-2px',
                background: 'var(--hw-colors-floor)',
                fontWeight: 700,
              },
              '&:has(input:focus-visible)': { boxShadow: '0 0 0 3px var(--hw-colors-brass)' },
            }}
          >
            <ConnectorFace connector={connector} />
            <Text as="span" fontSize="xs" lineHeight="1.15" mb="1">
              {connectorNames[connector]}
            </Text>
            <input
              type="radio"
              // conform moves the focus to the id of a field that has an error
              id={at === 0 ? field.id : undefined}
              name={field.name}
              value={connector}
              defaultChecked={field.initialValue === connector}
            />
          </Flex>
        ))}
        <Box alignSelf="center" pl="1">
          <CheckField field={socket} label="a socket" />
        </Box>
      </Flex>
      {field.errors && (
        <Text id={field.errorId} color="blocked" fontWeight="600" fontSize="sm" mt="1">
          {field.errors.join(' ')}
        </Text>
      )}
    </Box>
  )
}
