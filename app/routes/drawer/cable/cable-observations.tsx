import { Box, Flex, Heading, Link, Text } from '@chakra-ui/react'
import { Form, Link as RouterLink } from 'react-router'
import { knownOf } from '../../../../core/link/lay'
import { basisNames } from '../../../../core/observe/basis'
import type { Observation, Retraction } from '../../../../core/observe/observation'
import { observationText, sayerOf } from '../../../../core/observe/observation'
import type { Cable } from '../../../../core/plan/cable'
import type { SiteIndex } from '../../../../core/plan/site-index'
import text from '../../../theme/text.module.css'
import { ChangeId } from '../../../ui/change-fields'
import { QuietButton } from '../../../ui/controls'
import { PlainInput } from '../../../ui/field'
import { Moment } from '../../../ui/moment'
import { RuledTable } from '../../../ui/ruled-table'

type Shown = { cable: Cable; index: SiteIndex; observations: readonly Observation[] }

/** All that was seen of a cable and by whom, newest first; what is overruled or taken back says so. */
export function CableObservations({ cable, index, observations }: Shown) {
  const kind = cable.kind ? index.kinds.get(cable.kind) : undefined
  const { conflicts } = knownOf(index, cable)
  const isOverruled = (piece: Observation): boolean =>
    piece.kind === 'statement' &&
    conflicts.some(({ overruled }) => overruled.basis === piece.basis && overruled.at === piece.at)
  const takenBack = new Map(
    observations.flatMap((piece): [string, Retraction][] =>
      piece.kind === 'retraction' ? [[piece.retracts, piece]] : [],
    ),
  )
  // of one moment, what was written last comes first
  const newest = observations
    .filter(({ kind: sort }) => sort !== 'retraction')
    .toReversed()
    .sort((one, other) => (one.at < other.at ? 1 : one.at > other.at ? -1 : 0))
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
        <RuledTable label="Evidence" columns={['When', 'Who says so', 'What', 'Where']} maxH="420px">
          {newest.map((piece) => {
            const back = takenBack.get(piece.id)
            return (
              <tr key={piece.id} className={back ? text.quiet : undefined}>
                <td className={`${text.mono} ${text.tiny} ${text.whole}`}>
                  <Moment at={piece.at} />
                </td>
                <td>
                  {sayerOf(piece)}
                  {piece.by && <Box color="quiet">{piece.by}</Box>}
                </td>
                <td>
                  <Box as="span" textDecoration={back ? 'line-through' : undefined}>
                    {observationText(piece)}
                  </Box>
                  {!back && isOverruled(piece) && (
                    <Box as="span" color="tight" fontWeight="600">
                      {' '}
                      (overruled)
                    </Box>
                  )}
                  {!back && piece.instrument?.simulated && !index.plan.site.practice && (
                    <Box as="span" color="tight" fontWeight="600">
                      {' '}
                      (simulated, does not count)
                    </Box>
                  )}
                  {piece.kind === 'statement' && piece.words && (
                    <Box fontFamily="mono" fontSize="xs" color="quiet">
                      {piece.words.join(' ')}
                    </Box>
                  )}
                  {piece.note && <Box color="quiet">{piece.note}</Box>}
                  {back ? (
                    <Box fontSize="sm">
                      taken back{back.by && ` by ${back.by}`}: {back.reason}
                    </Box>
                  ) : (
                    <TakeBack piece={piece} />
                  )}
                </td>
                <td className={text.tiny}>
                  <Origin piece={piece} index={index} />
                </td>
              </tr>
            )
          })}
          {kind && (
            <tr>
              <td />
              <td>{basisNames.listed}</td>
              <td>{kind.name}</td>
              <td />
            </tr>
          )}
        </RuledTable>
      )}
    </Box>
  )
}

/** Nothing that was seen is ever changed: what was wrong is taken back, and says why. */
function TakeBack({ piece }: { piece: Observation }) {
  return (
    <Box as="details" fontSize="sm">
      <Box as="summary" cursor="pointer" color="quiet" w="fit-content">
        Take back
      </Box>
      <Form method="post" preventScrollReset>
        <input type="hidden" name="observation" value={piece.id} />
        <ChangeId />
        <Flex gap="2" mt="1" align="end" wrap="wrap">
          <Box as="label" flex="1 1 160px">
            Why it does not count
            <PlainInput name="reason" required maxLength={300} />
          </Box>
          <QuietButton name="intent" value="retract">
            Take it back
          </QuietButton>
        </Flex>
      </Form>
    </Box>
  )
}

/** Where a reading was taken, with the session it belongs to. */
function Origin({ piece, index }: { piece: Observation; index: SiteIndex }) {
  const on = piece.kind === 'reading' ? piece.with : piece.where?.controller
  const session = piece.session ? index.sessions.get(piece.session) : undefined
  return (
    <>
      {on && <Box>on {on}</Box>}
      {piece.instrument && <Box>{piece.instrument.name}</Box>}
      {session && (
        <Link asChild color="brassInk" textDecoration="underline">
          <RouterLink to={`/sites/${index.plan.site.id}/drawer/sessions/${session.id}`}>{session.name}</RouterLink>
        </Link>
      )}
    </>
  )
}
