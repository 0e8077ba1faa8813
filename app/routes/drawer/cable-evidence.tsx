import { Box, Heading, Link, Table, Text } from '@chakra-ui/react'
import { Link as RouterLink } from 'react-router'
import { evidenceText } from '../../../core/drawer/evidence-text'
import { type Basis, basisNames, knownCable } from '../../../core/link/known'
import { type Cable, type Evidence, isReading, isTrial } from '../../../core/plan/cable'
import type { SiteIndex } from '../../../core/plan/site-index'
import { RuledTable } from '../../ui/ruled-table'

/** All that is known of a cable and by what, newest first; what a stronger word has overruled says so. */
export function CableEvidence({ cable, index }: { cable: Cable; index: SiteIndex }) {
  const kind = cable.kind ? index.kinds.get(cable.kind) : undefined
  const { conflicts } = knownCable(cable, kind)
  const isOverruled = (piece: Evidence): boolean =>
    conflicts.some(({ overruled }) => overruled.basis === piece.basis && overruled.on === piece.on && !isTrial(piece))
  // of one day, what was written last comes first
  const newest = cable.evidence
    .map((piece, at) => ({ piece, at }))
    .sort((one, other) => (one.piece.on < other.piece.on ? 1 : one.piece.on > other.piece.on ? -1 : other.at - one.at))
  return (
    <Box as="section" aria-labelledby="evidence" mb="6">
      <Heading as="h2" size="md" id="evidence" mb="2">
        How it is known
      </Heading>
      {newest.length === 0 && !kind ? (
        <Text color="quiet">
          Nothing is written down yet. Read its mark, ask its chip, or put it through a sort-out session.
        </Text>
      ) : (
        <RuledTable label="Evidence" columns={['Day', 'Who says so', 'What', 'Where']} maxH="380px">
          {newest.map(({ piece, at }) => (
            <Table.Row key={at} bg="card">
              <Table.Cell fontFamily="mono" fontSize="xs" whiteSpace="nowrap">
                {piece.on}
              </Table.Cell>
              <Table.Cell>{sayer(piece)}</Table.Cell>
              <Table.Cell>
                {evidenceText(piece)}
                {isOverruled(piece) && (
                  <Box as="span" color="tight" fontWeight="600">
                    {' '}
                    (overruled)
                  </Box>
                )}
                {!isTrial(piece) && !isReading(piece) && piece.words && (
                  <Box fontFamily="mono" fontSize="xs" color="quiet">
                    {piece.words.join(' ')}
                  </Box>
                )}
                {piece.note && <Box color="quiet">{piece.note}</Box>}
              </Table.Cell>
              <Table.Cell fontSize="xs">
                <Origin piece={piece} index={index} />
              </Table.Cell>
            </Table.Row>
          ))}
          {kind && (
            <Table.Row bg="card">
              <Table.Cell />
              <Table.Cell>{basisNames.listed}</Table.Cell>
              <Table.Cell>{kind.name}</Table.Cell>
              <Table.Cell />
            </Table.Row>
          )}
        </RuledTable>
      )}
    </Box>
  )
}

const sayer = (piece: Evidence): string => basisNames[piece.basis as Basis]

/** Where a reading was taken, with the session it belongs to. */
function Origin({ piece, index }: { piece: Evidence; index: SiteIndex }) {
  const on = isTrial(piece) ? piece.controller : isReading(piece) ? piece.with : undefined
  const session = 'session' in piece ? index.plan.sessions.find(({ id }) => id === piece.session) : undefined
  return (
    <>
      {on && <Box>on {on}</Box>}
      {session && (
        <Link asChild color="brassInk" textDecoration="underline">
          <RouterLink to={`/sites/${index.plan.site.id}/drawer/sessions/${session.id}`}>{session.name}</RouterLink>
        </Link>
      )}
    </>
  )
}
