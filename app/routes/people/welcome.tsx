import { Box, Flex, Link, Text } from '@chakra-ui/react'
import { data, Link as RouterLink, redirect, useNavigation } from 'react-router'
import { companyOf } from '../../../server/people/company'
import { SHORTEST_PASSWORD } from '../../../server/people/passwords'
import { invited, takeUp } from '../../../server/people/people'
import { readForm } from '../../read-form.server'
import { AWAY_MESSAGE, load, save } from '../../stored.server'
import { MainButton, Notice } from '../../ui/controls'
import { Form } from '../../ui/form'
import type { Route } from './+types/welcome'
import { NewPassword } from './new-password'
import { PeoplePage } from './page-frame'

export const meta: Route.MetaFunction = () => [{ title: 'Welcome · Hallway' }]

export async function loader({ params }: Route.LoaderArgs) {
  const { invitation } = params
  const person = await load((knex) => invited(knex, invitation))
  const company = companyOf()?.name ?? null
  return data(
    { shortest: SHORTEST_PASSWORD, company, invitation, name: person?.name ?? null },
    { status: person ? 200 : 410 },
  )
}

/** Takes an invitation up with a password, once. */
export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request)
  const password = String(form.get('password') ?? '').slice(0, 1000)
  if (password !== String(form.get('again') ?? '').slice(0, 1000))
    return data({ problem: 'The two are not the same. Type the password twice.' }, { status: 422 })
  const why = await save(async (knex) => ({ problem: await takeUp(knex, params.invitation, password) }))
  if (why === null) return data({ problem: AWAY_MESSAGE }, { status: 503 })
  return why.problem === null ? redirect('/sign-in') : data({ problem: why.problem }, { status: 422 })
}

/** Whoever was invited chooses a password. */
export default function Welcome({
  loaderData: { name, shortest, company, invitation },
  actionData,
}: Route.ComponentProps) {
  const busy = useNavigation().state !== 'idle'
  if (name === null)
    return (
      <PeoplePage title="This invitation has ended">
        <Text mb="3">It was used already, or it is too old. Ask for a new one.</Text>
        <Link asChild color="brassInk" textDecoration="underline">
          <RouterLink to="/sign-in">Sign in</RouterLink>
        </Link>
      </PeoplePage>
    )
  return (
    <PeoplePage title={`Welcome, ${name}`}>
      <Text mb="4">Choose a password. A few words in a row are easy to keep in mind.</Text>
      {actionData && <Notice tone="blocked">{actionData.problem}</Notice>}
      <Form method="post" reloadDocument>
        {/* for whatever keeps passwords */}
        <input type="hidden" name="name" value={name} autoComplete="username" />
        <Flex direction="column" gap="3" maxW="320px">
          <NewPassword name="password" label="Password" shortest={shortest} />
          <Box>
            <MainButton loading={busy}>Save the password</MainButton>
          </Box>
        </Flex>
      </Form>
      {company && (
        <Text mt="5">
          <Link
            href={`/sign-in/company?${new URLSearchParams({ invitation })}`}
            color="brassInk"
            textDecoration="underline"
          >
            Sign in at {company} instead
          </Link>
        </Text>
      )}
    </PeoplePage>
  )
}
