import { Box, Flex, Grid, Text } from '@chakra-ui/react'
import type { FieldMetadata } from '@conform-to/react'
import { useCallback } from 'react'
import { FEED_WORDS, feedLabels } from '../../../../core/drawer/feed-text'
import { byId } from '../../../../core/plan/lookup'
import { CONNECTORS, type Connector, carriesUsb, connectorNames } from '../../../../core/standards/connectors'
import { CABLE_GRADES, CONSTRUCTIONS, type Construction, gradeFacts } from '../../../../core/standards/grades'
import { POWER_MARKS } from '../../../../core/standards/mark-text'
import { ChoiceField, type Option } from '../../../ui/choice'
import { ConnectorFace } from '../../../ui/connector-face'
import { CheckField, type Known, SelectField, TextField } from '../../../ui/field'
import { takesLength } from '../../../ui/keep-typed-unit'
import { useSite } from '../../../ui/site-context'
import { useUnit } from '../../../ui/units'
import type { CableFormTexts } from './cable-form'

type Fields = { [Name in keyof CableFormTexts]-?: FieldMetadata<string> }

const chosen = (name: string, values: readonly string[]): string =>
  values.map((value) => `input[name="${name}"][value="${value}"]:checked`).join(', ')
const anEnd = (values: readonly Connector[]): string => `${chosen('first', values)}, ${chosen('second', values)}`
const built = (value: Construction): string => `select[name="construction"] option[value="${value}"]:checked`

/** Fields that fit some cables only show once the cable is one of those, without scripts as well. */
const shownFor = {
  [`&:not(:has(${anEnd(['own'])})) [data-for="own"]`]: { display: 'none' },
  [`&:not(:has(${anEnd(CONNECTORS.filter(carriesUsb))})) [data-for="usb"]`]: { display: 'none' },
  [`&:has(${built('passive')}) [data-for="fed"]`]: { display: 'none' },
  [`&:not(:has(${built('optical')})) [data-for="optical"]`]: { display: 'none' },
}

/** What somebody sees of a cable on the bench, in the order the eye takes it in: plugs, mark, length, the rest. */
export function CableFields({ fields }: { fields: Fields }) {
  const unit = useUnit()
  const { plan } = useSite()
  return (
    <Flex direction="column" gap="4" css={shownFor}>
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
          {...takesLength}
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
        <NamedChoice
          field={fields.suppliedWith}
          label="Came with"
          none="no device, or nobody knows"
          items={plan.devices}
        />
        <Box data-for="own">
          <TextField field={fields.ownPlug} label="Name of the maker's plug" />
        </Box>
        <TextField field={fields.awg} label="Supply wires, AWG" inputMode="numeric" />
        <NamedChoice field={fields.kind} label="From the catalogue" none="no kind of it" items={plan.kinds} />
        <Box data-for="fed">
          <SelectField field={fields.feed} label="Its supply">
            {FEED_WORDS.map((word) => (
              <option key={word} value={word}>
                {feedLabels[word]}
              </option>
            ))}
          </SelectField>
        </Box>
        <Box data-for="usb">
          <SelectField field={fields.pair} label="USB 2.0 pair">
            <option value="">as usual</option>
            <option value="yes">has it</option>
            <option value="no">lacks it</option>
          </SelectField>
        </Box>
        <Box data-for="optical">
          <SelectField field={fields.copper} label="Copper in it">
            <option value="">if it carries power</option>
            <option value="yes">yes</option>
            <option value="no">no</option>
          </SelectField>
        </Box>
        <TextField field={fields.passesBack} label="3rd plug to host, W" inputMode="decimal" />
        <Box data-for="usb">
          <TextField field={fields.passesOn} label="3rd plug to device, W" inputMode="decimal" />
        </Box>
        <Box gridColumn={{ base: '1 / -1', md: 'span 2' }}>
          <TextField field={fields.note} label="Note" hint="Sleeve, colour, where it turned up" />
        </Box>
      </Grid>
    </Flex>
  )
}

type Named = { id: string; name: string }
const optionOf = ({ id, name }: Named): Option => ({ value: id, words: name })

/** A choice among things that go by their names. */
function NamedChoice({ items, ...rest }: { field: Known; label: string; none: string; items: readonly Named[] }) {
  const groups = useCallback(() => [{ label: '', options: items.map(optionOf) }], [items])
  const one = (id: string): Option | null => {
    const item = byId(items).get(id)
    return item ? optionOf(item) : null
  }
  return <ChoiceField {...rest} count={items.length} groups={groups} one={one} />
}

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
