import { Box, Heading, Link, Text } from '@chakra-ui/react'
import { Link as RouterLink } from 'react-router'
import { type ModeRecord, recordOf, recordOfKind, runsOfCable } from '../../../../core/drawer/cable-history'
import { learntOfCable } from '../../../../core/observe/learned'
import type { LinkSeries } from '../../../../core/observe/links'
import type { SiteIndex } from '../../../../core/plan/site-index'
import { decimal } from '../../../../core/quantity/parsed'
import { linkModeFacts } from '../../../../core/standards/link-modes'
import type { Cable } from '../../../../core/vocabulary/cable'
import text from '../../../theme/text.module.css'
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
    </Box>
  )
}

const proofText = ({ tried, cameUp, dropped, times }: LinkSeries): string => {
  const came = cameUp === null ? (dropped ? 'it dropped' : 'nothing came up') : linkModeFacts[cameUp].name
  return `tried ${linkModeFacts[tried].name}: ${came}${times > 1 ? `, ${times} times` : ''}`
}

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
          <td title="Exact interval, 95 %" className={text.whole}>
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
