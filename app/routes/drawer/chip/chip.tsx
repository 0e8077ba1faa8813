import { Box, Flex, Grid, Text, Textarea } from '@chakra-ui/react'
import { type ChangeEvent, useState } from 'react'
import { data, redirect, useNavigation } from 'react-router'
import { addCables } from '../../../../core/change/changes/cables'
import { observed, writeDown } from '../../../../core/change/changes/observations'
import { type FolderCable, LARGEST_ARCHIVE_BYTES } from '../../../../core/identity/class-folder'
import type { Observation } from '../../../../core/observe/observation'
import { foldTag } from '../../../../core/vocabulary/fields'
import { refused } from '../../../../server/sites/change-site'
import { readFolderFile } from '../../../off-thread.server'
import { readFormWithFile } from '../../../read-form.server'
import { changeBy, whyNotSaved } from '../../../stored.server'
import { MainButton, Notice } from '../../../ui/controls'
import { FileField } from '../../../ui/field'
import { Form } from '../../../ui/form'
import { readUnit } from '../../../unit-cookie'
import { handOf } from '../../../who.server'
import { witnessOf } from '../../../witness.server'
import type { Route } from './+types/chip'
import { ChipAnswer } from './chip-answer'
import { cableWithChip, chipForm, chipStatement, readPasted } from './chip-form'

/** What a class folder comes to as text, and more. */
const LONGEST_PASTE = 40_000

type Answer = { problem: string } | { found: FolderCable[] }
const said = (answer: Answer, status = 200) => data<Answer>(answer, { status })

/** Reads an archive or a paste, or writes what a chip said onto a cable. */
export const action = ({ request, params }: Route.ActionArgs) =>
  readFormWithFile(request, { file: LARGEST_ARCHIVE_BYTES, longest: LONGEST_PASTE }, async (form, file) => {
    if (form.get('intent') === 'save') return saveChip(request, form, params.site)
    if (file) {
      const work = await readFolderFile(file.path)
      if (!work.done) return said({ problem: work.problem }, work.status)
      const found = work.value
      return found.ok ? said({ found: found.value }) : said({ problem: found.problem }, 422)
    }
    const read = readPasted(String(form.get('words') ?? ''), form.get('revision') === '2' ? 2 : 3)
    return read.ok ? said({ found: read.value }) : said({ problem: read.problem }, 422)
  })

async function saveChip(request: Request, form: FormData, site: string) {
  const read = chipForm(readUnit(request)).safeParse(Object.fromEntries(form))
  if (!read.success)
    return said({ problem: `${read.error.issues.map((issue) => issue.message).join(' ')} Nothing was saved.` }, 422)
  const { tag, length, chip } = read.data
  const hand = await handOf(request, form)
  const saved = await changeBy(hand, site, ({ plan }) => {
    const known = plan.cables.find((cable) => foldTag(cable.tag) === foldTag(tag))
    const cable = known ?? (length === undefined ? null : cableWithChip(plan, tag, length, chip))
    if (!cable) return refused('tag', 'no cable has that tag yet: give its length too, and it is made')
    const observations = observed([chipStatement(chip)], { cable: cable.id }, witnessOf(hand))
    return known ? writeDown(observations, [known.tag], 'ask chip') : addCables([cable], observations)
  })
  if (saved?.outcome === 'saved') {
    const [seen] = saved.edits.flatMap(({ list, value }) => (list === 'observations' ? [value as Observation] : []))
    const id = seen && 'cable' in seen.subject ? seen.subject.cable : ''
    return redirect(`/sites/${site}/cables/${encodeURIComponent(id)}?done=read`)
  }
  const { problem, status } = whyNotSaved(saved)
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
              maxLength={LONGEST_PASTE}
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
