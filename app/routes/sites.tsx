import { Box, Flex, Heading, Link, Text } from '@chakra-ui/react'
import { getFormProps, useForm } from '@conform-to/react'
import { getZodConstraint, parseWithZod } from '@conform-to/zod/v4'
import { data, Form, Link as RouterLink, redirect, useNavigation } from 'react-router'
import { z } from 'zod'
import { nameField } from '../../core/vocabulary/fields'
import { createSite, listSites } from '../../server/sites/sites'
import { parseFields } from '../parse-fields.server'
import { readForm } from '../read-form.server'
import { AWAY_MESSAGE, load, save } from '../stored.server'
import text from '../theme/text.module.css'
import { MainButton, Notice } from '../ui/controls'
import { TextField } from '../ui/field'
import { TopBar } from '../ui/frame'
import { RuledTable } from '../ui/ruled-table'
import { handOf } from '../who.server'
import type { Route } from './+types/sites'

const newSite = z.object({
  name: z.string({ error: 'Give the site a name, such as the building or the floor.' }).pipe(nameField),
  note: z.string().max(2000, { error: 'A note has at most 2000 characters.' }).optional(),
})

export const meta: Route.MetaFunction = () => [{ title: 'Sites · Hallway' }]

export const loader = async () => ({ sites: await load(listSites) })

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
      <Box as="main" maxW="900px" mx="auto" px="5" py="7">
        <Heading as="h1" size="2xl" mb="4">
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

function SiteTable({ sites }: { sites: Route.ComponentProps['loaderData']['sites'] }) {
  return (
    <Box mb="7">
      <RuledTable label="Sites" columns={['Site', 'Runs', 'Devices', 'Cables']}>
        {sites.map((site) => (
          <tr key={site.id}>
            <td>
              <RouterLink to={`/sites/${site.id}`} className={`${text.link} ${text.strong}`}>
                {site.name}
              </RouterLink>
              {site.note && <span className={`${text.block} ${text.quiet} ${text.brief}`}>{site.note}</span>}
            </td>
            {[site.runs, site.devices, site.cables].map((count, at) => (
              <td key={['runs', 'devices', 'cables'][at]} className={text.mono}>
                {count}
              </td>
            ))}
          </tr>
        ))}
      </RuledTable>
    </Box>
  )
}
