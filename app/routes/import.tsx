import { Box, Flex, Heading, Text } from '@chakra-ui/react'
import { useState } from 'react'
import { data, redirect, useNavigation } from 'react-router'
import { LARGEST_SITE_ARCHIVE_BYTES } from '../../core/files/file-types'
import type { Fault } from '../../core/plan/entity'
import { importSite } from '../off-thread.server'
import { readFormWithFile } from '../read-form.server'
import { AWAY_MESSAGE, FULL_MESSAGE } from '../stored.server'
import { MainButton, Notice } from '../ui/controls'
import { PlainTextArea } from '../ui/field'
import { Form } from '../ui/form'
import { TopBar } from '../ui/frame'
import { handOf } from '../who.server'
import type { Route } from './+types/import'

export const meta: Route.MetaFunction = () => [{ title: 'Import a plan file · Hallway' }]

/** A larger file is chosen, not pasted. */
const LONGEST_PASTED = 2_000_000

export const action = ({ request }: Route.ActionArgs) =>
  readFormWithFile(request, { file: LARGEST_SITE_ARCHIVE_BYTES, longest: LONGEST_PASTED }, async (form, file) => {
    const text = String(form.get('text') ?? '')
    const wrong = (message: string, status: number, faults: Fault[] = [], more = false) =>
      data({ message, faults, more, pasted: text.length < LONGEST_SHOWN_AGAIN ? text : '' }, { status })
    if (!file && text.trim() === '') return wrong('Choose a file or paste its text. Nothing was saved.', 422)
    const told = file ? { path: file.path } : { text }
    // a new site has no rights to ask for
    const { rights: _, ...hand } = await handOf(request, form)
    const work = await importSite({ told, hand })
    if (!work.done) return wrong(`${work.problem} Nothing was saved.`, work.status)
    const came = work.value
    switch (came.became) {
      case 'site':
        return redirect(`/sites/${came.id}`)
      case 'away':
        return wrong(AWAY_MESSAGE, 503)
      case 'full':
        return wrong(FULL_MESSAGE, 503)
      case 'refused': {
        const { problem, faults, more } = came
        return wrong(problem ? `${problem} Nothing was saved.` : faultsSaid(faults.length, more), 422, faults, more)
      }
    }
  })

const LONGEST_SHOWN_AGAIN = 200_000

const faultsSaid = (count: number, more: boolean): string =>
  count === 1
    ? 'One thing in the file is wrong. Nothing was saved.'
    : `${more ? `More than ${count}` : count} things in the file are wrong. Nothing was saved.`

export default function Import({ actionData }: Route.ComponentProps) {
  const busy = useNavigation().state !== 'idle'
  const [chosen, setChosen] = useState('')
  return (
    <>
      <TopBar />
      <Box as="main" id="content" tabIndex={-1} maxW="760px" mx="auto" px="5" py="7">
        <Heading as="h1" size="2xl" mb="2">
          Import a plan file
        </Heading>
        <Text mb="4">
          It becomes a new site; nothing you have is overwritten. How a file is made up is told in docs/plan-file.md.
        </Text>
        {actionData && (
          <Notice tone="blocked" id="faults">
            <Text fontWeight="700">{actionData.message}</Text>
            {actionData.faults.length > 0 && (
              <Box as="ul" mt="2" pl="5" listStyleType="disc">
                {actionData.faults.map((fault) => (
                  <li key={`${fault.path} ${fault.reason}`}>
                    <Box as="code" fontFamily="mono" fontWeight="600">
                      {fault.path}
                    </Box>
                    : {fault.reason}
                  </li>
                ))}
              </Box>
            )}
            {actionData.more && <Text mt="2">These are the first; it was not read any further.</Text>}
          </Notice>
        )}
        <Form method="post" encType="multipart/form-data">
          <Flex direction="column" gap="4">
            <Box>
              <label htmlFor="plan-file">
                <b>Plan file</b>
              </label>
              <Box>
                <input
                  id="plan-file"
                  type="file"
                  name="file"
                  accept=".json,.zip,application/json,application/zip"
                  aria-describedby={actionData ? 'faults' : undefined}
                  onChange={(event) => setChosen(event.target.value)}
                />
              </Box>
            </Box>
            <Box>
              <label htmlFor="plan-text">
                <b>or its text</b>
              </label>
              <PlainTextArea
                mono
                id="plan-text"
                name="text"
                rows={8}
                defaultValue={actionData?.pasted}
                disabled={chosen !== ''}
              />
            </Box>
            <Box>
              <MainButton loading={busy}>Import</MainButton>
            </Box>
          </Flex>
        </Form>
      </Box>
    </>
  )
}
