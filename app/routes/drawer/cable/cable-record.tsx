import { Box, Heading, Link, Text } from '@chakra-ui/react'
import { Form, Link as RouterLink, useNavigation } from 'react-router'
import { type ModeRecord, recordOf, recordOfKind, runsOfCable } from '../../../../core/drawer/cable-history'
import { learntOfCable } from '../../../../core/observe/learned'
import type { Trial } from '../../../../core/observe/trials'
import type { Cable } from '../../../../core/plan/cable'
import type { SiteIndex } from '../../../../core/plan/site-index'
import { decimal } from '../../../../core/quantity/parsed'
import { LINK_MODES, linkModeFacts } from '../../../../core/standards/link-modes'
import text from '../../../theme/text.module.css'
import { ChangeId } from '../../../ui/change-fields'
import { QuietButton } from '../../../ui/controls'
import { Labelled, PlainInput, PlainSelect } from '../../../ui/field'
import { Moment } from '../../../ui/moment'
import { RuledTable } from '../../../ui/ruled-table'

/** What a cable did: on which controllers it held, in which runs it was proved, and what its kind does elsewhere. */
export function CableRecord({ cable, index }: { cable: Cable; index: SiteIndex }) {
  const own = recordOf(learntOfCable(index.learned, cable.id))
  const ofKind = recordOfKind(index, cable)
  const runs = runsOfCable(index, cable)
  return (
    <Box as="section" aria-labelledby="record" mb="6">
      <Heading as="h2" size="md" id="record" mb="2">
        What it did
      </Heading>
      {own.length > 0 ? (
        <Records records={own} label="This cable" />
      ) : (
        <Text color="quiet">Nobody has tried it yet.</Text>
      )}
      {ofKind && ofKind.length > 0 && (
        <Box mt="3">
          <Text fontWeight="600" mb="1">
            All cables of its kind
          </Text>
          <Records records={ofKind} label="Cables of its kind" />
        </Box>
      )}
      {runs.map(({ run, liesHere, proofs }) => (
        <Text key={run.id} mt="2" fontSize="sm">
          <Link asChild color="brassInk" textDecoration="underline" fontFamily="mono" fontWeight="700">
            <RouterLink to={`/sites/${index.plan.site.id}/runs/${run.id}`}>{run.tag}</RouterLink>
          </Link>{' '}
          {liesHere ? 'it lies here' : 'it lay here'}
          {proofs.length > 0
            ? `; ${proofs.map((proof) => `${proof.at.slice(0, 10)} ${proofText(proof)}`).join('; ')}`
            : '; not proved with it yet'}
          .
        </Text>
      ))}
      <TrialForm index={index} />
    </Box>
  )
}

const proofText = ({ tried, cameUp }: Trial): string =>
  `tried ${linkModeFacts[tried].name}: ${cameUp === null ? 'nothing, or it dropped' : linkModeFacts[cameUp].name}`

const percent = (share: number): string => `${decimal(share * 100, 0)} %`

function Records({ records, label }: { records: readonly ModeRecord[]; label: string }) {
  return (
    <RuledTable label={label} columns={['Tried', 'On', 'Held', 'Likely to hold', 'Last']}>
      {records.map(({ mode, controller, rate, last }) => (
        <tr key={`${mode} ${controller}`}>
          <td>{linkModeFacts[mode].name}</td>
          <td>{controller ?? 'not noted'}</td>
          <td className={`${text.mono} ${text.whole}`}>
            {rate.passed} of {rate.tried}
          </td>
          <td title="Wilson score interval, 95 %" className={text.whole}>
            {percent(rate.low)} to {percent(rate.high)}
          </td>
          <td className={`${text.mono} ${text.tiny}`}>
            <Moment at={last} dayOnly />
          </td>
        </tr>
      ))}
    </RuledTable>
  )
}

/** One more look at it, outside a session. */
function TrialForm({ index }: { index: SiteIndex }) {
  const saving = useNavigation().state === 'submitting'
  const controllers = [
    ...new Set(index.plan.devices.flatMap((device) => device.ports.flatMap((port) => port.controller ?? []))),
  ]
  return (
    <Box as="details" mt="3">
      <Box as="summary" cursor="pointer" fontWeight="600" color="brassInk">
        Write down what came up
      </Box>
      <Form method="post">
        <ChangeId />
        <Box
          display="grid"
          gridTemplateColumns={{ base: '1fr', md: '1fr 1fr 110px 1fr auto' }}
          gap="3"
          mt="2"
          alignItems="end"
        >
          <Labelled label="Tried">
            <PlainSelect name="tried">
              <ModeOptions />
            </PlainSelect>
          </Labelled>
          <Labelled label="Came up as">
            <PlainSelect name="seen">
              <ModeOptions />
              <option value="nothing">nothing came up</option>
              <option value="dropped">it came up and dropped</option>
            </PlainSelect>
          </Labelled>
          <Labelled label="Seconds">
            <PlainInput name="seconds" type="number" min={0} defaultValue={60} />
          </Labelled>
          <Labelled label="On the controller">
            <PlainInput name="controller" list="controllers" maxLength={120} />
          </Labelled>
          <datalist id="controllers">
            {controllers.map((name) => (
              <option key={name} value={name} />
            ))}
          </datalist>
          <QuietButton name="intent" value="trial" loading={saving}>
            Write down
          </QuietButton>
        </Box>
      </Form>
    </Box>
  )
}

const ModeOptions = () =>
  [...LINK_MODES].reverse().map((mode) => (
    <option key={mode} value={mode}>
      {linkModeFacts[mode].name}
    </option>
  ))
