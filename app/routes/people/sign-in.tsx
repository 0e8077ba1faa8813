import { Box, Flex, Link, Text } from '@chakra-ui/react'
import { data, redirect, useNavigation } from 'react-router'
import { companyOf } from '../../../server/people/company'
import { beginSession } from '../../../server/people/sessions'
import { signIn } from '../../../server/people/sign-in'
import { ADDRESS_HEADER } from '../../../server/web/nonce'
import { within } from '../../address'
import { asker } from '../../asker.server'
import { carriedBy, carrySignedIn } from '../../carried.server'
import { readForm } from '../../read-form.server'
import { AWAY_MESSAGE, save } from '../../stored.server'
import { MainButton, Notice } from '../../ui/controls'
import { plainField, TextField } from '../../ui/field'
import { Form } from '../../ui/form'
import type { Route } from './+types/sign-in'
import { deviceOf } from './device-of'
import { doorOf } from './door.server'
import { PeoplePage } from './page-frame'
import { PasskeySignIn } from './passkey-sign-in'

export const meta: Route.MetaFunction = () => [{ title: 'Sign in · Hallway' }]

/** Where nobody has an account there is nothing to sign in to. */
export async function loader({ request }: Route.LoaderArgs) {
  const { open, person } = asker()
  const to = within(new URL(request.url).searchParams.get('to'))
  if (open || person) throw redirect(to)
  return { to, company: companyOf()?.name ?? null, passkeys: doorOf(request) !== null }
}

export async function action({ request }: Route.ActionArgs) {
  const form = await readForm(request)
  const name = String(form.get('name') ?? '').slice(0, 200)
  const password = String(form.get('password') ?? '').slice(0, 1000)
  const address = request.headers.get(ADDRESS_HEADER) ?? ''
  const { known } = await carriedBy(request)
  const done = await save(async (knex) => {
    const signedIn = await signIn(knex, { name, password, address, known })
    if ('problem' in signedIn) return signedIn
    const { person } = signedIn
    return { person, session: await beginSession(knex, person, deviceOf(request)) }
  })
  if (done === null) return data({ problem: AWAY_MESSAGE, name }, { status: 503 })
  if ('problem' in done) return data({ problem: done.problem, name }, { status: done.status })
  return redirect(within(form.get('to')), {
    headers: await carrySignedIn(done.session, done.person),
  })
}

/** How one comes in where people have accounts. */
export default function SignIn({ loaderData: { to, company, passkeys }, actionData }: Route.ComponentProps) {
  const busy = useNavigation().state !== 'idle'
  return (
    <PeoplePage title="Sign in">
      {actionData && <Notice tone="blocked">{actionData.problem}</Notice>}
      {/* sent by the browser itself: what is sent by scripts is kept until it is saved, and a password is not to be kept */}
      <Form method="post" reloadDocument>
        <input type="hidden" name="to" value={to} />
        <Flex direction="column" gap="3" maxW="320px">
          <TextField
            field={plainField('name', actionData?.name)}
            label="Name"
            required
            maxLength={120}
            autoComplete="username"
          />
          <TextField
            field={plainField('password')}
            label="Password"
            type="password"
            required
            maxLength={200}
            autoComplete="current-password"
          />
          <Box>
            <MainButton loading={busy}>Sign in</MainButton>
          </Box>
        </Flex>
      </Form>
      {passkeys && <PasskeySignIn to={to} />}
      {company && (
        <Text mt="5">
          <Link href={`/sign-in/company?${new URLSearchParams({ to })}`} color="brassInk" textDecoration="underline">
            Sign in at {company}
          </Link>
        </Text>
      )}
      <Text mt="5" color="quiet">
        No account, or the password is gone? Ask whoever runs this Hallway for an invitation.
      </Text>
    </PeoplePage>
  )
}
