import { Box, Flex, Link } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import { Link as RouterLink } from 'react-router'
import {
  cannotTeach,
  type Observation,
  observationText,
  type Retraction,
  sayerOf,
} from '../../../core/observe/observation'
import { portKey, type SiteIndex } from '../../../core/plan/site-index'
import text from '../../theme/text.module.css'
import { ChangeId } from '../../ui/change-fields'
import { QuietButton } from '../../ui/controls'
import { PlainInput } from '../../ui/field'
import { Form } from '../../ui/form'
import { Moment } from '../../ui/moment'
import { RuledTable } from '../../ui/ruled-table'

type Shown = {
  index: SiteIndex
  observations: readonly Observation[]
  /** Whether something stronger says otherwise. */
  isOverruled?: (piece: Observation) => boolean
  /** More rows behind them. */
  children?: ReactNode
}

/** All that was seen of something and by whom, newest first; what is overruled or taken back says so. */
export function SeenList({ index, observations, isOverruled = () => false, children }: Shown) {
  const takenBack = new Map(
    observations.flatMap((piece): [string, Retraction][] =>
      piece.kind === 'retraction' ? [[piece.retracts, piece]] : [],
    ),
  )
  // of one moment, what was written last comes first
  const newest = observations
    .filter(({ kind }) => kind !== 'retraction')
    .toReversed()
    .sort((one, other) => (one.at < other.at ? 1 : one.at > other.at ? -1 : 0))
  return (
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
              <Box as="span" textDecoration={back ? 'line-through' : undefined} title={cannotTeach(piece)}>
                {observationText(piece)}
              </Box>
              {!back && isOverruled(piece) && <Aside>overruled</Aside>}
              {!back && piece.instrument?.simulated && !index.plan.site.practice && (
                <Aside>simulated, does not count</Aside>
              )}
              {piece.kind === 'statement' && piece.words && (
                <Box fontFamily="mono" fontSize="xs" color="quiet">
                  {piece.words.join(' ')}
                </Box>
              )}
              {circumstancesOf(piece).map((words) => (
                <Box key={words} color="quiet">
                  {words}
                </Box>
              ))}
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
      {children}
    </RuledTable>
  )
}

const Aside = ({ children }: { children: ReactNode }) => (
  <Box as="span" color="tight" fontWeight="600">
    {' '}
    ({children})
  </Box>
)

/** What may have mattered, as far as it changes what it teaches. */
function circumstancesOf({ circumstances = {} }: Observation): string[] {
  const { alone, beside = [], adapters = [], supply, strangeSupply, charge } = circumstances
  return [
    alone ? 'everything else was unplugged' : beside.length > 0 ? `beside ${beside.join(', ')}` : '',
    adapters.length > 0 ? `through ${adapters.join(', ')}` : '',
    supply ? `on ${supply}` : '',
    strangeSupply ? 'on a supply that came from elsewhere' : '',
    charge === undefined ? '' : `battery at ${charge} %`,
  ].filter(Boolean)
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

/** Where it was seen: the socket, the controller, with what, in which session. What the survey no longer has is told by its id. */
function Origin({ piece, index }: { piece: Observation; index: SiteIndex }) {
  const { port, far, controller, installed = [] } = piece.where ?? {}
  const nameOf = (address: typeof port): string | null => {
    if (!address) return null
    const device = index.devices.get(address.device)
    const own = device?.ports.find(({ id }) => id === address.port)
    return device && own ? `${device.name}, ${own.name}` : portKey(address)
  }
  const session = piece.session ? index.sessions.get(piece.session) : undefined
  const lines = [
    nameOf(port),
    far ? `to ${nameOf(far)}` : piece.kind === 'reading' && piece.with ? `on ${piece.with}` : null,
    controller ? `controller ${controller}` : null,
    installed.length > 0 ? installed.map(({ what, version }) => `${what} ${version}`).join(', ') : null,
    piece.instrument?.name ?? null,
  ]
  return (
    <>
      {lines.flatMap((line) => (line ? [<div key={line}>{line}</div>] : []))}
      {session && (
        <Link asChild color="brassInk" textDecoration="underline">
          <RouterLink to={`/sites/${index.plan.site.id}/drawer/sessions/${session.id}`}>{session.name}</RouterLink>
        </Link>
      )}
    </>
  )
}
