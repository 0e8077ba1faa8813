import { Box, Flex, Heading, Text } from '@chakra-ui/react'
import { useState } from 'react'
import { data, Form, redirect, useNavigation } from 'react-router'
import { isArchive } from '../../core/files/file-types'
import type { Fault } from '../../core/plan/entity'
import { LARGEST_FILE_BYTES } from '../../core/plan/read'
import { importPlan } from '../../server/sites/sites'
import { openArchiveFile, readPlanFile } from '../off-thread.server'
import { readForm } from '../read-form.server'
import { AWAY_MESSAGE, save } from '../stored.server'
import { MainButton, Notice } from '../ui/controls'
import { PlainTextArea } from '../ui/field'
import { TopBar } from '../ui/frame'
import { handOf } from '../who.server'
import type { Route } from './+types/import'

export const meta: Route.MetaFunction = () => [{ title: 'Bring in a plan file · Hallway' }]

export async function action({ request }: Route.ActionArgs) {
  const form = await readForm(request, LARGEST_FILE_BYTES)
  const file = form.get('file')
  const pasted = String(form.get('text') ?? '')
  const bytes = file instanceof File && file.size > 0 ? new Uint8Array(await file.arrayBuffer()) : null
  const archive = bytes && isArchive(bytes) ? await openArchiveFile(bytes) : null
  if (archive && !archive.done)
    return data(
      { ...refusal([], pasted), message: `${archive.problem} Nothing was written.` },
      { status: archive.status },
    )
  const opened = archive?.done ? archive.value : null
  if (opened && !opened.ok)
    return data({ ...refusal([], pasted), message: `${opened.problem} Nothing was written.` }, { status: 422 })
  const text = opened?.ok ? opened.value.plan : bytes ? new TextDecoder().decode(bytes) : pasted
  if (text.trim() === '')
    return data(refusal([{ path: '(file)', reason: 'choose a file or paste its text' }], pasted), { status: 422 })
  const work = await readPlanFile(text)
  if (!work.done)
    return data({ ...refusal([], pasted), message: `${work.problem} Nothing was written.` }, { status: work.status })
  const read = work.value
  if (!read.ok) return data(refusal(read.faults, pasted, read.more), { status: 422 })
  const id = await save(async (knex) =>
    importPlan(knex, await handOf(request, form), read.plan, opened?.ok ? opened.value.files : []),
  )
  if (id === null) return data({ ...refusal([], pasted), message: AWAY_MESSAGE }, { status: 503 })
  return redirect(`/sites/${id}`)
}

const refusal = (faults: Fault[], pasted: string, more = false) => ({
  message:
    faults.length === 1
      ? 'One thing in the file is wrong. Nothing was written.'
      : `${more ? `More than ${faults.length}` : faults.length} things in the file are wrong. Nothing was written.`,
  faults,
  more,
  pasted: pasted.length < 200_000 ? pasted : '',
})

export default function Import({ actionData }: Route.ComponentProps) {
  const busy = useNavigation().state !== 'idle'
  const [chosen, setChosen] = useState('')
  return (
    <>
      <TopBar />
      <Box as="main" maxW="760px" mx="auto" px="5" py="7">
        <Heading as="h1" size="2xl" mb="2">
          Bring in a plan file
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
              <MainButton loading={busy}>Bring it in</MainButton>
            </Box>
          </Flex>
        </Form>
      </Box>
    </>
  )
}
