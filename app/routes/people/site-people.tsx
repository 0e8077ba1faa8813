import { Box, Flex, Heading, Text } from '@chakra-ui/react'
import { data, redirect, useSearchParams } from 'react-router'
import { z } from 'zod'
import { RIGHTS } from '../../../core/people/rights'
import type { Detail } from '../../../core/people/shown'
import { dayField, nameField } from '../../../core/vocabulary/fields'
import { Failure } from '../../../server/failure'
import { listPeople } from '../../../server/people/people'
import { KEY_SORTS, keysOf, makeKey, takeKeyBack } from '../../../server/people/site-keys'
import { hidesOf, rightsOn, setRight } from '../../../server/people/site-rights'
import { asker } from '../../asker.server'
import { readForm } from '../../read-form.server'
import { AWAY_MESSAGE, load, save } from '../../stored.server'
import text from '../../theme/text.module.css'
import { MainButton, Notice, QuietButton } from '../../ui/controls'
import { PlainSelect, plainField, SelectField, TextField } from '../../ui/field'
import { Form } from '../../ui/form'
import { Moment } from '../../ui/moment'
import { RuledTable } from '../../ui/ruled-table'
import { handOf } from '../../who.server'
import type { Route } from './+types/site-people'
import { instantOf } from './instant-of'
import { ShownOnce } from './shown-once'

export const meta: Route.MetaFunction = () => [{ title: 'People of the site · Hallway' }]

/** Who may do what on a site, and what opens it to those without an account. */
export async function loader({ params }: Route.LoaderArgs) {
  const { open } = asker()
  const [rights, people, keys] = await load(async (knex) =>
    open
      ? ([[], [], []] as const)
      : Promise.all([rightsOn(knex, params.site), listPeople(knex), keysOf(knex, params.site)]),
  )
  const known = new Set(rights.map(({ person }) => person))
  return {
    open,
    rights,
    others: people
      .filter(({ id, retired, admin }) => !known.has(id) && retired === null && !admin)
      .map(({ id, name }) => ({ id, name })),
    admins: people.filter(({ admin }) => admin).map(({ name }) => name),
    keys: keys.map(({ made, used, until, ...key }) => ({
      ...key,
      made: instantOf(made),
      used: used && instantOf(used),
      until: until && instantOf(until),
    })),
  }
}

const asked = z.discriminatedUnion('do', [
  // a right to look may say what it is kept from: "look prices notes"
  z.object({ do: z.literal('right'), person: z.string().max(64), held: z.string().max(40) }),
  z.object({
    do: z.literal('key'),
    name: nameField,
    sort: z.enum(KEY_SORTS),
    held: z.enum(['look', 'work']),
    hides: z.string().max(40).default(''),
    until: z.union([dayField, z.literal('')]).default(''),
  }),
  z.object({ do: z.literal('back'), key: z.string().max(64) }),
])

type Told = { problem: string } | { made: string; path?: string; word?: string }

export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request)
  const read = asked.safeParse(Object.fromEntries(form))
  if (!read.success)
    return data({ problem: 'Say who it is for, and what they may do. Nothing was changed.' }, { status: 422 })
  const wanted = read.data
  const { by } = await handOf(request, form)
  const done = await save(async (knex): Promise<Told | 'done'> => {
    if (asker().open) return { problem: 'Nobody has an account here. ./hallway people add NAME makes the first.' }
    try {
      switch (wanted.do) {
        case 'right': {
          const [word, ...hides] = wanted.held.split(' ')
          const held = RIGHTS.find((each) => each === word)
          if (!held && word !== 'none') return { problem: 'That is no right. Nothing was changed.' }
          await setRight(knex, params.site, wanted.person, held ? { held, hides: hidesOf(hides.join(' ')) } : null)
          return 'done'
        }
        case 'back':
          await takeKeyBack(knex, params.site, wanted.key)
          return 'done'
        case 'key': {
          const { name, sort, until } = wanted
          const hides = hidesOf(wanted.hides)
          const held = sort === 'link' ? 'look' : wanted.held
          // to the end of its day, wherever that is
          const ends = until ? new Date(Date.parse(`${until}T00:00:00Z`) + 36 * 3_600_000) : null
          const maker = asker().person?.id ?? null
          const secret = await makeKey(knex, params.site, { name, sort, held, hides, until: ends, by, maker })
          return sort === 'link'
            ? { made: `A link for ${name}`, path: `/look/${secret}` }
            : { made: `A token for ${name}`, word: secret }
        }
      }
    } catch (error) {
      if (error instanceof Failure) return { problem: error.message }
      throw error
    }
  })
  if (done === null) return data({ problem: AWAY_MESSAGE }, { status: 503 })
  if (done === 'done') return redirect(`/sites/${params.site}/people?done=yes`)
  return 'made' in done ? done : data(done, { status: 422 })
}

const RIGHT_WORDS = {
  work: 'may work: plan, lay, test',
  lead: 'leads: rules, people, handover as well',
} as const

export default function SitePeople({ loaderData, actionData }: Route.ComponentProps) {
  const { open, rights, others, admins, keys } = loaderData
  const [params] = useSearchParams()
  if (open)
    return (
      <>
        <Title />
        <Text>
          Nobody has an account here, so whoever reaches this Hallway may do everything. Whoever runs it makes the first
          account at the terminal: <code>./hallway people add NAME</code>.
        </Text>
      </>
    )
  return (
    <>
      <Title />
      {actionData && 'problem' in actionData && <Notice tone="blocked">{actionData.problem}</Notice>}
      {actionData && 'made' in actionData && (
        <ShownOnce {...actionData}>
          {actionData.word
            ? 'A script sends it as “Authorization: Bearer”, never in an address.'
            : 'Whoever has it may look at this one site, and change nothing.'}
        </ShownOnce>
      )}
      {!actionData && params.has('done') && <Notice tone="clear">It is done.</Notice>}
      <RuledTable label="Who may do what on this site" cards columns={['Name', 'What they may do']}>
        {rights.map(({ person, name, held, hides }) => (
          <tr key={person}>
            <td className={text.strong}>{name}</td>
            <td>
              <Form method="post">
                <input type="hidden" name="do" value="right" />
                <input type="hidden" name="person" value={person} />
                <Flex gap="2" align="center" maxW="440px">
                  <RightChoice id={`right-${person}`} of={name} value={[held, ...hides].join(' ')} removable />
                  <QuietButton small>Save</QuietButton>
                </Flex>
              </Form>
            </td>
          </tr>
        ))}
        {rights.length === 0 && (
          <tr>
            <td colSpan={2}>Nobody has a right of their own yet.</td>
          </tr>
        )}
      </RuledTable>
      <Text mt="2" color="quiet">
        {admins.join(', ')} {admins.length === 1 ? 'runs' : 'run'} this Hallway and may do everything.
      </Text>
      {others.length > 0 && (
        <Form method="post">
          <input type="hidden" name="do" value="right" />
          <Flex gap="2" mt="4" wrap="wrap" align="end">
            <SelectField field={plainField('person', others[0]?.id)} label="Let somebody in">
              {others.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </SelectField>
            <RightChoice id="right-new" of="somebody new" value="look" />
            <MainButton>Give the right</MainButton>
          </Flex>
        </Form>
      )}
      <Heading as="h2" size="lg" mt="8" mb="2">
        Without an account
      </Heading>
      <Text mb="3">
        A link lets a client look at this site, and nothing else. A token lets a script or an instrument in. Each has a
        name, so that one sees who looked, and can be taken back.
      </Text>
      {keys.length > 0 && (
        <RuledTable label="Links and tokens" cards columns={['For', 'What it opens', 'Used', 'Ends', '']}>
          {keys.map(({ id, name, sort, held, hides, used, uses, until, madeBy }) => (
            <tr key={id}>
              <td className={text.strong}>{name}</td>
              <td>
                {sort === 'link' ? 'a link to look' : held === 'work' ? 'a token to work' : 'a token to look'}
                {hides.length > 0 && `, without ${hides.join(' and ')}`}
                <span className={`${text.block} ${text.quiet}`}>made by {madeBy}</span>
              </td>
              <td>
                {used ? (
                  <>
                    <Moment at={used} />, {uses === 1 ? 'once' : `${uses} times`}
                  </>
                ) : (
                  'never'
                )}
              </td>
              <td>{until ? <Moment at={until} dayOnly /> : 'when it is taken back'}</td>
              <td>
                <Form method="post">
                  <input type="hidden" name="do" value="back" />
                  <input type="hidden" name="key" value={id} />
                  <QuietButton small grave aria-label={`Take back: ${name}`}>
                    Take back
                  </QuietButton>
                </Form>
              </td>
            </tr>
          ))}
        </RuledTable>
      )}
      <Form method="post">
        <input type="hidden" name="do" value="key" />
        <Flex direction="column" gap="3" maxW="320px" mt="4">
          <TextField field={plainField('name')} label="For whom or what" required maxLength={120} autoComplete="off" />
          <SelectField field={plainField('sort', 'link')} label="What it is">
            <option value="link">a link for a client</option>
            <option value="token">a token for a script or an instrument</option>
          </SelectField>
          <SelectField field={plainField('held', 'look')} label="What a token may do">
            <option value="look">read</option>
            <option value="work">read and write</option>
          </SelectField>
          <SelectField field={plainField('hides', 'prices notes')} label="What whoever looks is shown">
            {KEPT.map(({ hides, words }) => (
              <option key={words} value={hides.join(' ')}>
                {words}
              </option>
            ))}
          </SelectField>
          <TextField
            field={plainField('until')}
            label="Ends after"
            hint="Left empty: when it is taken back"
            type="date"
          />
          <Box>
            <MainButton>Make it</MainButton>
          </Box>
        </Flex>
      </Form>
    </>
  )
}

const Title = () => (
  <Heading as="h1" size="xl" mb="3">
    People of this site
  </Heading>
)

type Choice = { id: string; of: string; value: string; removable?: true }

/** What somebody who only looks may be kept from. */
const KEPT: readonly { hides: readonly Detail[]; words: string }[] = [
  { hides: [], words: 'everything' },
  { hides: ['prices'], words: 'all but prices' },
  { hides: ['notes'], words: 'all but notes' },
  { hides: ['prices', 'notes'], words: 'neither prices nor notes' },
]

const RightChoice = ({ id, of, value, removable }: Choice) => (
  <PlainSelect id={id} name="held" defaultValue={value} aria-label={`What ${of} may do`}>
    {KEPT.map(({ hides, words }) => (
      <option key={words} value={['look', ...hides].join(' ')}>
        may look: {words}
      </option>
    ))}
    {(['work', 'lead'] as const).map((right) => (
      <option key={right} value={right}>
        {RIGHT_WORDS[right]}
      </option>
    ))}
    {removable && <option value="none">nothing: take it away</option>}
  </PlainSelect>
)
