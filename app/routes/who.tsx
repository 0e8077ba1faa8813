import { Box, Heading, Text } from '@chakra-ui/react'
import { data, redirect, useNavigation, useSearchParams } from 'react-router'
import { nameField } from '../../core/vocabulary/fields'
import { within } from '../address'
import { readForm } from '../read-form.server'
import { MainButton, Notice } from '../ui/controls'
import { Form } from '../ui/form'
import { TopBar } from '../ui/frame'
import { WhoField } from '../ui/who'
import { readWho, whoCookie } from '../who.server'
import type { Route } from './+types/who'

export const meta: Route.MetaFunction = () => [{ title: 'Your name · Hallway' }]

export const loader = async ({ request }: Route.LoaderArgs) => ({ name: await readWho(request) })

/** Keeps the name a browser gives, and goes back to where it was asked. */
export async function action({ request }: Route.ActionArgs) {
  const form = await readForm(request)
  const name = nameField.safeParse(form.get('name'))
  if (!name.success)
    return data({ problem: 'Write the name your colleagues know you by, up to 120 letters.' }, { status: 422 })
  return redirect(within(form.get('back')), { headers: { 'Set-Cookie': await whoCookie(name.data) } })
}

/** Whose name stands beside what is changed from this browser. */
export default function Who({ loaderData, actionData }: Route.ComponentProps) {
  const [params] = useSearchParams()
  const busy = useNavigation().state !== 'idle'
  return (
    <>
      <TopBar />
      <Box as="main" id="content" tabIndex={-1} maxW="520px" mx="auto" px="5" py="7">
        <Heading as="h1" size="2xl" mb="2">
          Your name
        </Heading>
        <Text mb="4">
          It is shown beside your changes, in the history and to your colleagues. It is kept in this browser. It is not
          an account and gives you no rights.
        </Text>
        {actionData && <Notice tone="blocked">{actionData.problem}</Notice>}
        <Form method="post">
          <input type="hidden" name="back" value={params.get('back') ?? '/'} />
          <WhoField name={loaderData.name} />
          <Box mt="3">
            <MainButton loading={busy}>Save my name</MainButton>
          </Box>
        </Form>
      </Box>
    </>
  )
}
