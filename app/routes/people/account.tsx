import { Box, Flex, Heading, Text } from '@chakra-ui/react'
import { data, Link as RouterLink, redirect, useNavigation, useSearchParams } from 'react-router'
import { endPasskey, passkeysOf } from '../../../server/people/passkeys'
import { SHORTEST_PASSWORD } from '../../../server/people/passwords'
import { changePassword } from '../../../server/people/people'
import { endSession, endSessionsOf, sessionsOf } from '../../../server/people/sessions'
import { signIn } from '../../../server/people/sign-in'
import { ADDRESS_HEADER } from '../../../server/web/nonce'
import { asker } from '../../asker.server'
import { readForm } from '../../read-form.server'
import { AWAY_MESSAGE, load, save } from '../../stored.server'
import text from '../../theme/text.module.css'
import { MainButton, Notice, QuietButton } from '../../ui/controls'
import { plainField, TextField } from '../../ui/field'
import { Form } from '../../ui/form'
import { Moment } from '../../ui/moment'
import { RuledTable } from '../../ui/ruled-table'
import type { Route } from './+types/account'
import { doorOf } from './door.server'
import { instantOf } from './instant-of'
import { NewPassword } from './new-password'
import { OnCards } from './on-cards'
import { PeoplePage } from './page-frame'
import { PasskeysView } from './passkeys-view'

export const meta: Route.MetaFunction = () => [{ title: 'Your account · Hallway' }]

/** Who is signed in, and in which browsers. */
export async function loader({ request }: Route.LoaderArgs) {
  const { person, session } = asker()
  if (!person) throw redirect('/who')
  const sessions = await load((knex) => sessionsOf(knex, person))
  const passkeys = await load((knex) => passkeysOf(knex, person))
  return {
    name: person.name,
    admin: person.admin,
    shortest: SHORTEST_PASSWORD,
    passkeysHere: doorOf(request) !== null,
    passkeys: passkeys.map(({ made, used, ...each }) => ({
      ...each,
      made: instantOf(made),
      used: used && instantOf(used),
    })),
    sessions: sessions.map(({ digest, device, began, seen }) => ({
      // enough of it to tell which one is meant; it opens nothing
      id: digest.slice(0, 16),
      device,
      began: instantOf(began),
      seen: instantOf(seen),
      own: digest === session,
    })),
  }
}

/** Chooses another password, takes a passkey away, or ends a session, or all the others. */
export async function action({ request }: Route.ActionArgs) {
  const form = await readForm(request)
  const { person, session } = asker()
  if (!person || !session) throw redirect('/who')
  const field = (name: string) => String(form.get(name) ?? '').slice(0, 1000)
  const done = await save(async (knex): Promise<{ problem: string | null }> => {
    switch (field('do')) {
      case 'password': {
        if (field('next') !== field('again'))
          return { problem: 'The two are not the same. Type the new password twice.' }
        // whoever sits at an open browser and guesses is held up as at the door
        const address = request.headers.get(ADDRESS_HEADER) ?? ''
        const shown = await signIn(knex, { name: person.name, password: field('now'), address, known: person.id })
        if ('problem' in shown)
          return { problem: shown.status === 429 ? shown.problem : 'That is not your password so far.' }
        return { problem: await changePassword(knex, person, { next: field('next'), session }) }
      }
      case 'end passkey':
        await endPasskey(knex, person, field('passkey'))
        return { problem: null }
      case 'end all':
        await endSessionsOf(knex, person.id, session)
        return { problem: null }
      case 'end': {
        const all = await sessionsOf(knex, person)
        const one = all.find(({ digest }) => digest.startsWith(field('session')) && field('session').length === 16)
        if (one) await endSession(knex, person, one.digest)
        return { problem: null }
      }
      default:
        return { problem: 'That is nothing this page sends. Nothing was changed.' }
    }
  })
  if (done === null) return data({ problem: AWAY_MESSAGE }, { status: 503 })
  return done.problem === null
    ? redirect(`/account?done=${DONE_BY[field('do')] ?? 'ended'}`)
    : data({ problem: done.problem }, { status: 422 })
}

const DONE_BY: Record<string, keyof typeof DONE> = { password: 'password', 'end passkey': 'passkey' }
const DONE: Record<string, string> = {
  password: 'The password is changed. Other browsers are signed out.',
  ended: 'It is signed out.',
  passkey: 'The passkey is taken away: it opens nothing any more.',
}

export default function Account({ loaderData, actionData }: Route.ComponentProps) {
  const busy = useNavigation().state !== 'idle'
  const [params] = useSearchParams()
  const done = DONE[params.get('done') ?? '']
  const { name, admin, sessions, shortest, passkeys, passkeysHere } = loaderData
  return (
    <PeoplePage title={name}>
      <Text mb="4">
        {admin ? 'You run this Hallway: you may do everything, on all sites.' : 'What you may do is said site by site.'}{' '}
        Your changes carry this name.
      </Text>
      {actionData ? <Notice tone="blocked">{actionData.problem}</Notice> : done && <Notice tone="clear">{done}</Notice>}
      <Flex gap="3" align="center">
        <Form method="post" action="/sign-out" reloadDocument>
          <QuietButton>Sign out</QuietButton>
        </Form>
        {admin && (
          <RouterLink to="/people" className={text.link}>
            Everybody’s accounts
          </RouterLink>
        )}
      </Flex>
      <Heading as="h2" size="lg" mt="7" mb="2">
        Where you are signed in
      </Heading>
      <RuledTable label="Where you are signed in" cards columns={['On', 'Since', 'Last seen', '']}>
        {sessions.map(({ id, device, began, seen, own }) => (
          <tr key={id}>
            <td className={text.strong}>
              {device}
              {own && ' (here)'}
            </td>
            <td>
              <OnCards>since</OnCards> <Moment at={began} />
            </td>
            <td>
              <OnCards>last seen</OnCards> <Moment at={seen} />
            </td>
            <td>
              {!own && (
                <Form method="post">
                  <input type="hidden" name="do" value="end" />
                  <input type="hidden" name="session" value={id} />
                  <QuietButton small>Sign out there</QuietButton>
                </Form>
              )}
            </td>
          </tr>
        ))}
      </RuledTable>
      {sessions.length > 1 && (
        <Form method="post">
          <Box mt="3">
            <QuietButton name="do" value="end all">
              Sign out everywhere else
            </QuietButton>
          </Box>
        </Form>
      )}
      <PasskeysView passkeys={passkeys} here={passkeysHere} />
      <Heading as="h2" size="lg" mt="7" mb="2">
        Another password
      </Heading>
      <Form method="post" reloadDocument>
        <input type="hidden" name="do" value="password" />
        <input type="hidden" name="name" value={name} autoComplete="username" />
        <Flex direction="column" gap="3" maxW="320px">
          <TextField
            field={plainField('now')}
            label="The password so far"
            type="password"
            required
            autoComplete="current-password"
          />
          <NewPassword name="next" label="The new one" shortest={shortest} />
          <Box>
            <MainButton loading={busy}>Change the password</MainButton>
          </Box>
        </Flex>
      </Form>
    </PeoplePage>
  )
}
