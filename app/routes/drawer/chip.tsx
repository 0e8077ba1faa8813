import { Box, Flex, Grid, Text, Textarea } from '@chakra-ui/react'
import { type ChangeEvent, useState } from 'react'
import { data, Form, redirect, useNavigation } from 'react-router'
import { type FolderCable, readClassFolder } from '../../../core/identity/class-folder'
import { readArchive } from '../../../server/instruments/class-folder-archive'
import { addCables, addEvidence } from '../../../server/sites/cables'
import { readPlan } from '../../../server/sites/plan-rows'
import { save, whyNotSaved } from '../../stored.server'
import { MainButton, Notice } from '../../ui/controls'
import { FileField } from '../../ui/field'
import type { Route } from './+types/chip'
import { ChipAnswer } from './chip-answer'
import { cableWithChip, chipEvidence, chipForm, readPasted } from './chip-form'
import { today } from './today'

type Answer = { problem: string } | { found: FolderCable[] }
const said = (answer: Answer, status = 200) => data<Answer>(answer, { status })

/** Reads an archive or a paste, or writes what a chip said onto a cable. */
export async function action({ request, params }: Route.ActionArgs) {
  const form = await request.formData()
  if (form.get('intent') === 'save') return saveChip(form, params.site)
  const file = form.get('file')
  if (file instanceof File && file.size > 0) {
    const files = await readArchive(new Uint8Array(await file.arrayBuffer()))
    const found = files.ok ? readClassFolder(files.value) : files
    return found.ok ? said({ found: found.value }) : said({ problem: found.problem }, 422)
  }
  const read = readPasted(String(form.get('words') ?? ''), form.get('revision') === '2' ? 2 : 3)
  return read.ok ? said({ found: read.value }) : said({ problem: read.problem }, 422)
}

async function saveChip(form: FormData, site: string) {
  const read = chipForm.safeParse(Object.fromEntries(form))
  if (!read.success)
    return said({ problem: `${read.error.issues.map((issue) => issue.message).join(' ')} Nothing was saved.` }, 422)
  const done = await save(async (knex) => {
    const stored = await readPlan(knex, site)
    if (!stored) return { outcome: 'no-site' } as const
    const { tag } = read.data
    const known = stored.plan.cables.find((cable) => cable.tag.toLowerCase() === tag.toLowerCase())
    const evidence = chipEvidence(read.data.chip, today())
    if (known) return { id: known.id, ...(await addEvidence(knex, site, known.id, [evidence])) }
    if (read.data.length === undefined) return { outcome: 'unknown-tag' } as const
    const cable = cableWithChip(stored.plan, tag, read.data.length, read.data.chip, evidence)
    return { id: cable.id, ...(await addCables(knex, site, [cable])) }
  })
  if (done?.outcome === 'saved') return redirect(`/sites/${site}/cables/${encodeURIComponent(done.id)}?done=read`)
  if (done?.outcome === 'unknown-tag')
    return said({ problem: 'No cable has that tag yet: give its length too, and it is made. Nothing was saved.' }, 422)
  const { problem, status } = whyNotSaved(done)
  return said({ problem }, status)
}

/** What the chip in a plug says, bit by bit beside its meaning, and where that contradicts what is printed. */
export default function Chip({ actionData }: Route.ComponentProps) {
  const busy = useNavigation().state !== 'idle'
  const [text, setText] = useState('')
  const [revision, setRevision] = useState<2 | 3>(3)
  const pasted = text.trim() === '' ? null : readPasted(text, revision)
  // what is pasted is read as it comes; an archive goes to the server
  const posted = actionData && 'found' in actionData ? actionData.found : []
  const found = pasted ? (pasted.ok ? pasted.value : []) : posted
  const problem = pasted && !pasted.ok ? pasted.problem : actionData && 'problem' in actionData && actionData.problem
  return (
    <>
      <Form method="post" encType="multipart/form-data">
        <Grid templateColumns={{ base: '1fr', lg: '1.6fr 1fr' }} gap="6" alignItems="start" mb="4">
          <Box>
            <label htmlFor="words">
              <b>Words from a tester, or the files of a Linux computer’s type-C class folder as text</b>
            </label>
            <Textarea
              id="words"
              name="words"
              rows={5}
              fontFamily="mono"
              fontSize="sm"
              bg="card"
              borderColor="edge"
              borderRadius="2px"
              maxLength={40_000}
              value={text}
              spellCheck={false}
              aria-describedby="words-hint words-problem"
              onChange={(event: ChangeEvent<HTMLTextAreaElement>) => setText(event.target.value)}
            />
            <Text id="words-hint" fontSize="sm" color="quiet">
              Like <code>1c00abcd 00000000 12340100 11082042</code>, or what <code>grep . -r /sys/class/typec/</code>{' '}
              prints.
            </Text>
          </Box>
          <Flex direction="column" gap="4">
            <Box as="fieldset">
              <Box as="legend" fontWeight="600" fontSize="sm">
                Bare words are of Power Delivery
              </Box>
              <Flex gap="5">
                {([3, 2] as const).map((each) => (
                  <Flex as="label" key={each} gap="2" align="center">
                    <input
                      type="radio"
                      name="revision"
                      value={each}
                      checked={revision === each}
                      onChange={() => setRevision(each)}
                    />
                    {each === 3 ? '3.0 and later' : '2.0'}
                  </Flex>
                ))}
              </Flex>
            </Box>
            <FileField label="or the folder, packed as .tar or .zip" name="file" accept=".tar,.zip" />
            <Box>
              <MainButton loading={busy}>Read it</MainButton>
            </Box>
          </Flex>
        </Grid>
      </Form>
      <Box id="words-problem" aria-live="polite">
        {problem && <Notice tone="blocked">{problem}</Notice>}
      </Box>
      {found.map((cable) => (
        <ChipAnswer key={`${cable.port} ${cable.words.vdo1}`} found={cable} />
      ))}
    </>
  )
}
