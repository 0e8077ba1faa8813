import { Box, Flex, Grid, Heading, Text } from '@chakra-ui/react'
import { useState } from 'react'
import { useNavigation } from 'react-router'
import { chipSentence } from '../../../../core/identity/chip-sentence'
import type { FolderCable } from '../../../../core/identity/class-folder'
import { type Claim, contradictionSentence, contradictionsOf } from '../../../../core/identity/contradictions'
import { decodeIdentity } from '../../../../core/identity/e-marker'
import { knownCable } from '../../../../core/observe/known'
import { learntOfCable } from '../../../../core/observe/learned'
import { NOTHING_LEARNT, type SaidBy } from '../../../../core/observe/learnt'
import { formatLength, type LengthUnit, parseLength } from '../../../../core/quantity/length'
import { CABLE_GRADES, type CableGrade, gradeFacts } from '../../../../core/standards/grades'
import { POWER_MARKS, parsePowerMark } from '../../../../core/standards/mark-text'
import { citeSource } from '../../../../core/standards/source'
import type { Cable } from '../../../../core/vocabulary/cable'
import { foldTag } from '../../../../core/vocabulary/fields'
import text from '../../../theme/text.module.css'
import { ChangeId } from '../../../ui/change-fields'
import { MainButton } from '../../../ui/controls'
import { Labelled, PlainInput, PlainSelect } from '../../../ui/field'
import { Form } from '../../../ui/form'
import { DoorGlyph } from '../../../ui/grade'
import { RuledTable } from '../../../ui/ruled-table'
import { useSite } from '../../../ui/site-context'
import { useUnit } from '../../../ui/units'
import { wordsOf } from './chip-form'

/** One cable's chip: in a sentence, against what is printed, field by field, and onto a cable of the drawer. */
export function ChipAnswer({ found }: { found: FolderCable }) {
  const site = useSite()
  const { plan } = site
  const unit = useUnit()
  const saving = useNavigation().state === 'submitting'
  const [tag, setTag] = useState('')
  const [printed, setPrinted] = useState({ length: '', mark: '', power: '' })
  const { words, facts, source } = decodeIdentity(found.words)
  const known = plan.cables.find((cable) => foldTag(cable.tag) === foldTag(tag.trim()))
  const contradictions = contradictionsOf(facts, known ? claimOf(site, known) : claimFrom(printed, unit))
  const set = (name: keyof typeof printed) => (event: { target: { value: string } }) =>
    setPrinted({ ...printed, [name]: event.target.value })
  return (
    <Box as="section" border="1px solid" borderColor="line" bg="card" borderRadius="2px" p="4" mb="5">
      <Heading as="h2" size="md" mb="1">
        {found.port ? `The cable in ${found.port}` : 'Its chip'}
      </Heading>
      <Text mb="3">{chipSentence(facts, unit)}</Text>
      <Form method="post">
        <ChangeId />
        <input type="hidden" name="words" value={wordsOf(found.words)} />
        <input type="hidden" name="revision" value={found.words.revision} />
        <Grid
          templateColumns={{ base: '1fr 1fr', md: '1fr 1fr 1.3fr 1fr auto' }}
          gap="3"
          alignItems="end"
          bg="floor"
          p="3"
          borderRadius="2px"
        >
          <Labelled label="Its tag">
            <PlainInput
              mono
              name="tag"
              list="tags"
              maxLength={24}
              required
              value={tag}
              onChange={(event) => setTag(event.target.value)}
            />
          </Labelled>
          <datalist id="tags">
            {plan.cables.slice(0, 500).map((cable) => (
              <option key={cable.id} value={cable.tag} />
            ))}
          </datalist>
          {known ? (
            <Text fontSize="sm" gridColumn={{ base: '1 / -1', md: 'span 3' }}>
              {known.tag} is {formatLength(known.length, unit)} long; its mark and listing are compared below.
            </Text>
          ) : (
            <>
              <Labelled label="Its length">
                <PlainInput name="length" value={printed.length} onChange={set('length')} />
              </Labelled>
              <Labelled label="Mark printed">
                <PlainSelect value={printed.mark} onChange={set('mark')}>
                  <option value="">none</option>
                  {CABLE_GRADES.map((grade) => (
                    <option key={grade} value={grade}>
                      {gradeFacts[grade].name}
                    </option>
                  ))}
                </PlainSelect>
              </Labelled>
              <Labelled label="Power printed">
                <PlainSelect value={printed.power} onChange={set('power')}>
                  <option value="">none</option>
                  {POWER_MARKS.filter((mark) => mark !== 'none').map((mark) => (
                    <option key={mark} value={mark}>
                      {mark}
                    </option>
                  ))}
                </PlainSelect>
              </Labelled>
            </>
          )}
          <MainButton name="intent" value="save" loading={saving}>
            {known ? 'Save what you saw' : 'Make this cable'}
          </MainButton>
        </Grid>
      </Form>
      <Box aria-live="polite" mt="3">
        {contradictions.map((contradiction) => (
          <Flex
            key={JSON.stringify(contradiction)}
            gap="2"
            py="1.5"
            px="3"
            mb="1"
            bg="tightFloor"
            borderLeft="4px solid"
            borderColor="tight"
          >
            <DoorGlyph grade="tight" />
            <Text>{contradictionSentence(contradiction, unit)}</Text>
          </Flex>
        ))}
        {contradictions.length === 0 && (
          <Flex gap="2" color="clear" fontWeight="600">
            <DoorGlyph grade="clear" /> Nothing in it contradicts what is known.
          </Flex>
        )}
      </Box>
      <Grid templateColumns={{ base: '1fr', xl: '1fr 1fr' }} gap="4" mt="4">
        {words.map((word) => (
          <RuledTable
            key={word.name}
            label={word.name}
            caption={
              <>
                <b>{word.name}</b> <span className={text.mono}>{word.hex}</span>
              </>
            }
            columns={['Bits', 'Field', 'Value', 'Meaning']}
          >
            {word.fields.map((field) => (
              <tr key={field.bits} data-grade={field.reservedSet ? 'tight' : undefined}>
                <td className={`${text.mono} ${text.tiny} ${text.quiet}`}>{field.bits}</td>
                <td>{field.name}</td>
                <td className={`${text.mono} ${text.tiny} ${text.end}`}>{field.value}</td>
                <td className={text.half}>{field.meaning}</td>
              </tr>
            ))}
          </RuledTable>
        ))}
      </Grid>
      <Text fontSize="sm" color="quiet" mt="2">
        Layout of the words: {citeSource(source)}.
      </Text>
    </Box>
  )
}

/** What is printed on a cable of the drawer, or listed of it: everything but what a chip or a test said. */
function claimOf({ plan, index }: ReturnType<typeof useSite>, cable: Cable): Claim {
  const learnt = learntOfCable(index.learned, cable.id) ?? NOTHING_LEARNT
  const printed = <T,>({ listed, claimed, supplied }: SaidBy<T>): SaidBy<T> => ({ listed, claimed, supplied })
  const kind = plan.kinds.find(({ id }) => id === cable.kind)
  const { grade, amps, volts } = knownCable(cable, kind, {
    ...NOTHING_LEARNT,
    grade: printed(learnt.grade),
    amps: printed(learnt.amps),
    volts: printed(learnt.volts),
  })
  return {
    length: cable.length,
    construction: cable.construction,
    ...(grade.value ? { grade: grade.value } : {}),
    ...(amps.basis === 'assumed' ? {} : { amps: amps.value as 0 | 3 | 5 }),
    ...(volts.basis === 'assumed' ? {} : { volts: volts.value as 20 | 50 }),
  }
}

function claimFrom({ length, mark, power }: { length: string; mark: string; power: string }, unit: LengthUnit): Claim {
  const metres = parseLength(length, unit)
  const supply = power ? parsePowerMark(power) : null
  return {
    ...(metres.ok ? { length: metres.value } : {}),
    ...(mark ? { grade: mark as CableGrade } : {}),
    ...(supply?.ok ? supply.value : {}),
  }
}
