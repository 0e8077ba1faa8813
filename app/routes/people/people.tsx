import { Box, Flex, Heading, Text } from '@chakra-ui/react'
import { data, redirect, useSearchParams } from 'react-router'
import { Failure } from '../../../server/failure'
import {
  addPerson,
  INVITATION_DAYS,
  invite,
  listPeople,
  personCalled,
  retire,
  setAdmin,
} from '../../../server/people/people'
import { keysByMaker } from '../../../server/people/site-keys'
import { asker } from '../../asker.server'
import { readForm } from '../../read-form.server'
import { AWAY_MESSAGE, load, save } from '../../stored.server'
import text from '../../theme/text.module.css'
import { MainButton, Notice, QuietButton } from '../../ui/controls'
import { CheckField, plainField, TextField } from '../../ui/field'
import { Form } from '../../ui/form'
import { Moment } from '../../ui/moment'
import { RuledTable } from '../../ui/ruled-table'
import type { Route } from './+types/people'
import { instantOf } from './instant-of'
import { OnCards } from './on-cards'
import { PeoplePage } from './page-frame'
import { ShownOnce } from './shown-once'

export const meta: Route.MetaFunction = () => [{ title: 'People · Hallway' }]

/** Everybody who has, or had, an account here. */
export async function loader() {
  const { open, person } = asker()
  const [people, keys] = open ? [[], null] : await load((knex) => Promise.all([listPeople(knex), keysByMaker(knex)]))
  return {
    open,
    days: INVITATION_DAYS,
    you: person?.id ?? null,
    people: people.map(({ seen, retired, ...each }) => ({
      ...each,
      keys: keys?.get(each.id) ?? [],
      seen: seen && instantOf(seen),
      retired: retired && instantOf(retired),
    })),
  }
}

type Told = { problem: string } | { made: string; path: string }

export async function action({ request }: Route.ActionArgs) {
  const form = await readForm(request)
  const name = String(form.get('name') ?? '').slice(0, 200)
  const wanted = form.get('do')
  const done = await save(async (knex): Promise<Told | 'done'> => {
    // at the terminal somebody shows that this Hallway is theirs; a page cannot
    if (asker().open) return { problem: 'The first account is made at the terminal: ./hallway people add NAME' }
    try {
      const person =
        wanted === 'add'
          ? await addPerson(knex, { name, admin: form.get('admin') === 'on' })
          : await personCalled(knex, name)
      if (!person) return { problem: `${name} has no account here, or not any more. Nothing was changed.` }
      switch (wanted) {
        case 'add':
        case 'invite':
          return { made: `An invitation for ${person.name}`, path: `/welcome/${await invite(knex, person)}` }
        case 'retire':
        case 'retire and take over':
          await retire(knex, person, wanted === 'retire' ? null : asker().person)
          return 'done'
        case 'admin':
        case 'no admin':
          await setAdmin(knex, person, wanted === 'admin')
          return 'done'
        default:
          return { problem: 'That is nothing this page sends. Nothing was changed.' }
      }
    } catch (error) {
      if (error instanceof Failure) return { problem: error.message }
      throw error
    }
  })
  if (done === null) return data({ problem: AWAY_MESSAGE }, { status: 503 })
  if (done === 'done') return redirect('/people?done=yes')
  return 'made' in done ? done : data(done, { status: 422 })
}

const keysWords = (count: number): string => (count === 1 ? 'one link or token' : `${count} links and tokens`)

export default function People({ loaderData: { people, you, open, days }, actionData }: Route.ComponentProps) {
  const [params] = useSearchParams()
  const here = people.filter(({ retired }) => retired === null)
  const left = people.filter(({ retired }) => retired !== null)
  return (
    <PeoplePage title="People">
      {open && (
        <Text mb="4">
          Nobody has an account here, so whoever reaches this Hallway may do everything. The first account is made at
          the terminal, by whoever runs it: <code>./hallway people add NAME</code>. From then on everybody signs in.
        </Text>
      )}
      {actionData && 'problem' in actionData && <Notice tone="blocked">{actionData.problem}</Notice>}
      {actionData && 'made' in actionData && (
        <ShownOnce made={actionData.made} path={actionData.path}>
          It can be used once, within {days} days.
        </ShownOnce>
      )}
      {!actionData && params.has('done') && <Notice tone="clear">It is done.</Notice>}
      {here.length > 0 && (
        <RuledTable label="People" cards columns={['Name', 'What they are', 'Last seen', 'Change']}>
          {here.map(({ id, name, admin, ready, seen, keys }) => (
            <tr key={id}>
              <td className={text.strong}>
                {name}
                {id === you && ' (you)'}
              </td>
              <td>
                {admin ? 'admin: may do everything' : 'has rights site by site'}
                {!ready && ', invited'}
              </td>
              <td>
                <OnCards>last seen</OnCards> {seen ? <Moment at={seen} /> : 'never'}
              </td>
              <td>
                <Form method="post">
                  <input type="hidden" name="name" value={name} />
                  <Flex gap="2" wrap="wrap">
                    <QuietButton small name="do" value="invite">
                      {ready ? 'New password' : 'Invite again'}
                    </QuietButton>
                    <QuietButton small name="do" value={admin ? 'no admin' : 'admin'}>
                      {admin ? 'Take admin away' : 'Make admin'}
                    </QuietButton>
                    {id !== you && (
                      <QuietButton small grave name="do" value="retire">
                        Retire
                      </QuietButton>
                    )}
                    {id !== you && keys.length > 0 && (
                      <QuietButton small grave name="do" value="retire and take over">
                        Retire and take over {keysWords(keys.length)}
                      </QuietButton>
                    )}
                  </Flex>
                  {id !== you && keys.length > 0 && (
                    <Text mt="2" fontSize="sm" color="quiet">
                      Made {keysWords(keys.length)}, which end with the account unless you take them over:{' '}
                      {keys.map((key) => `the ${key.sort} “${key.name}” for ${key.site}`).join(', ')}.
                    </Text>
                  )}
                </Form>
              </td>
            </tr>
          ))}
        </RuledTable>
      )}
      {!open && (
        <Form method="post">
          <Heading as="h2" size="lg" mt="7" mb="2">
            Somebody new
          </Heading>
          <Flex direction="column" gap="3" maxW="320px">
            <TextField
              field={plainField('name')}
              label="Name"
              hint="It stands in the history, and is never given to somebody else"
              required
              maxLength={120}
              autoComplete="off"
            />
            <CheckField field={plainField('admin')} label="Admin: may do everything" />
            <Box>
              <MainButton name="do" value="add">
                Make the account
              </MainButton>
            </Box>
          </Flex>
        </Form>
      )}
      {left.length > 0 && (
        <Text mt="6" color="quiet">
          Retired: {left.map(({ name }) => name).join(', ')}. Their names stay in the history.
        </Text>
      )}
    </PeoplePage>
  )
}
