import { Box, Flex, Heading, Link, Text } from '@chakra-ui/react'
import { getFormProps, useForm } from '@conform-to/react'
import { getZodConstraint, parseWithZod } from '@conform-to/zod/v4'
import { useEffect, useRef } from 'react'
import { data, Link as RouterLink, redirect, useNavigation, useRevalidator } from 'react-router'
import { z } from 'zod'
import { changeWords } from '../../core/change/words'
import type { Detail } from '../../core/people/shown'
import type { Standing } from '../../core/report/standing'
import { nameField } from '../../core/vocabulary/fields'
import { sitesFor } from '../../server/people/asker'
import { lastChanges } from '../../server/sites/history'
import { createSite, listSites } from '../../server/sites/sites'
import { asker } from '../asker.server'
import { parseFields } from '../parse-fields.server'
import { readForm } from '../read-form.server'
import { standingsOf } from '../standings.server'
import { AWAY_MESSAGE, load, save } from '../stored.server'
import text from '../theme/text.module.css'
import { MainButton, Notice } from '../ui/controls'
import { TextField } from '../ui/field'
import { Form } from '../ui/form'
import { TopBar } from '../ui/frame'
import { GradeMark } from '../ui/grade'
import { HallwayPicture } from '../ui/hallway-picture'
import { Moment } from '../ui/moment'
import { RuledTable } from '../ui/ruled-table'
import { handOf } from '../who.server'
import type { Route } from './+types/sites'

const newSite = z.object({
  name: z.string({ error: 'Give the site a name, such as the building or the floor.' }).pipe(nameField),
  note: z.string().max(2000, { error: 'A note has at most 2000 characters.' }).optional(),
})

export const meta: Route.MetaFunction = () => [{ title: 'Sites · Hallway' }]

/** Every site with how it stands and what was done there last. */
export async function loader() {
  const [all, last, shown] = await Promise.all([
    load(listSites),
    load(lastChanges),
    load((knex) => sitesFor(knex, asker())),
  ])
  const listed = all.filter(({ id }) => shown?.has(id) ?? true)
  const lately = (id: string): string => last.get(id)?.at ?? ''
  const open = listed.filter(({ putAway }) => !putAway)
  const { standings, working } = await standingsOf(
    open.toSorted((one, other) => lately(other.id).localeCompare(lately(one.id))),
  )
  return {
    working,
    sites: listed.map(({ identity: _, place: __, ...site }) => {
      const hides = shown?.get(site.id)?.hides ?? []
      // what was done there last is told by the site's history, which is shown to nobody who is kept from anything
      const line = hides.length > 0 ? undefined : last.get(site.id)
      return {
        ...site,
        note: hides.includes('notes') ? null : site.note,
        standing: withoutOrders(standings[site.id] ?? null, hides),
        last: line ? { at: line.at, by: line.by, words: changeWords(line.what) } : null,
      }
    }),
  }
}
/** What is bought is not told to whoever is kept from prices. */
const withoutOrders = (standing: Standing | null, hides: readonly Detail[]): Standing | null =>
  standing && hides.includes('prices') ? { ...standing, waiting: { ...standing.waiting, order: 0 } } : standing
type ListedSite = Awaited<ReturnType<typeof loader>>['sites'][number]

export async function action({ request }: Route.ActionArgs) {
  const form = await readForm(request)
  const submission = parseFields(form, newSite)
  if (submission.status !== 'success') return data(submission.reply(), { status: 422 })
  const { name, note } = submission.value
  const id = await save(async (knex) => createSite(knex, await handOf(request, form), name, note))
  if (id === null) return data(submission.reply({ formErrors: [AWAY_MESSAGE] }), { status: 503 })
  return redirect(`/sites/${id}`)
}

export default function Sites({ loaderData, actionData }: Route.ComponentProps) {
  const { sites } = loaderData
  const open = sites.filter(({ putAway }) => !putAway)
  const away = sites.filter(({ putAway }) => putAway)
  const saving = useNavigation().state === 'submitting'
  useAskAgain(loaderData.working)
  const [form, fields] = useForm({
    id: 'new-site',
    lastResult: actionData,
    constraint: getZodConstraint(newSite),
    onValidate: ({ formData }) => parseWithZod(formData, { schema: newSite }),
    shouldRevalidate: 'onInput',
  })
  return (
    <>
      <TopBar />
      <Box as="main" id="content" tabIndex={-1} maxW="900px" mx="auto" px="5" py="7">
        <HallwayPicture />
        <Heading as="h1" size="xl" mb="3">
          Sites
        </Heading>
        {sites.length === 0 && <Text mb="6">No site yet. Create one below, or import a plan file.</Text>}
        {open.length > 0 && <SiteTable sites={open} />}
        {away.length > 0 && (
          <Box as="details" mb="7">
            <Box as="summary" cursor="pointer" fontWeight="600" color="brassInk" mb="2">
              Put away ({away.length})
            </Box>
            <SiteTable sites={away} />
          </Box>
        )}
        <Flex gap="8" direction={{ base: 'column', md: 'row' }} align="start">
          <Box flex="1" w="100%">
            <Heading as="h2" size="md" mb="2">
              New site
            </Heading>
            <Form method="post" {...getFormProps(form)}>
              {form.errors && <Notice tone="blocked">{form.errors.join(' ')}</Notice>}
              <Flex direction="column" gap="3">
                <TextField field={fields.name} label="Name" required />
                <TextField field={fields.note} label="Note" hint="Something to recognise the job by" />
                <Box>
                  <MainButton loading={saving}>Create the site</MainButton>
                </Box>
              </Flex>
            </Form>
          </Box>
          <Box flex="1">
            <Heading as="h2" size="md" mb="2">
              From a file
            </Heading>
            <Text mb="2">
              A plan file holds a whole site: devices, cables, runs and needs. Importing one creates a new site and
              overwrites nothing.
            </Text>
            <Link asChild color="brassInk" textDecoration="underline" fontWeight="600">
              <RouterLink to="/import">Import a plan file</RouterLink>
            </Link>
          </Box>
        </Flex>
      </Box>
    </>
  )
}

function SiteTable({ sites }: { sites: readonly ListedSite[] }) {
  return (
    <Box mb="7">
      <RuledTable
        label="Sites"
        cards
        columns={['Site', 'Its runs', 'What waits', 'Last change']}
        widths={['36%', '16%', '23%', '25%']}
      >
        {sites.map((site) => (
          <tr key={site.id}>
            <td className={text.wide}>
              <RouterLink to={`/sites/${site.id}`} className={`${text.link} ${text.strong}`}>
                {site.name}
              </RouterLink>
              {site.note && <span className={`${text.block} ${text.quiet} ${text.brief}`}>{site.note}</span>}
            </td>
            <td>
              <Verdicts site={site} />
            </td>
            <td>{site.standing ? waitingWords(site.standing.waiting) : ''}</td>
            <td className={text.small}>
              {site.last && (
                <>
                  <Moment at={site.last.at} />: {site.last.by} {site.last.words}
                </>
              )}
            </td>
          </tr>
        ))}
      </RuledTable>
    </Box>
  )
}

/** How many runs of a site have each verdict, the worst first. */
function Verdicts({ site: { standing, runs } }: { site: ListedSite }) {
  if (runs === 0) return <span className={text.quiet}>no runs yet</span>
  if (!standing) return <span className={text.quiet}>{runs === 1 ? 'one run' : `${runs} runs`}</span>
  return (
    <>
      {(['blocked', 'tight', 'clear'] as const).map((grade) =>
        standing.runs[grade] === 0 ? null : (
          <span key={grade} className={`${text.block} ${text.whole}`}>
            <span className={text.mono}>{standing.runs[grade]}</span> <GradeMark grade={grade} />
          </span>
        ),
      )}
    </>
  )
}

/** The stages of the work at which something waits, as the sign at the left counts it. */
function waitingWords({
  drawer,
  survey,
  needs,
  match,
  order,
  install,
}: NonNullable<ListedSite['standing']>['waiting']): string {
  const told = [
    drawer > 0 && `${drawer} ${drawer === 1 ? 'cable' : 'cables'} to look at`,
    survey > 0 && `${survey} ${survey === 1 ? 'device' : 'devices'} to survey`,
    needs > 0 && `${needs} ${needs === 1 ? 'need' : 'needs'} not clear`,
    match > 0 && `${match} ${match === 1 ? 'run' : 'runs'} not clear`,
    order > 0 && `${order} ${order === 1 ? 'order line' : 'order lines'} to see to`,
    install > 0 && `${install} ${install === 1 ? 'run' : 'runs'} to lay`,
  ].filter(Boolean)
  return told.length > 0 ? told.join(', ') : 'nothing'
}

/** Asks for the list again while something on it is being worked out; not for ever, where that does not end. */
function useAskAgain(waiting: boolean): void {
  const { revalidate, state } = useRevalidator()
  const asked = useRef(0)
  useEffect(() => {
    if (!waiting || state !== 'idle' || asked.current >= MOST_ASKED) return
    const timer = setTimeout(() => {
      asked.current += 1
      revalidate()
    }, ASK_AGAIN_MS)
    return () => clearTimeout(timer)
  }, [waiting, state, revalidate])
}
const ASK_AGAIN_MS = 1000
const MOST_ASKED = 60
