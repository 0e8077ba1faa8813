import { Text } from '@chakra-ui/react'
import { useNavigation } from 'react-router'
import { READING_COMMANDS } from '../../../core/identity/device-reading'
import type { FieldRead } from '../../../core/survey/take-reading'
import type { Device } from '../../../core/vocabulary/device'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { MainButton, Notice, QuietButton } from '../../ui/controls'
import { FileField, LabelledField, PlainTextArea, plainField } from '../../ui/field'
import { Form } from '../../ui/form'
import { RuledTable } from '../../ui/ruled-table'
import look from './survey.module.css'

/** What was read, and what of it is not on record. */
export type ReadingAnswer = {
  fields: readonly FieldRead[]
  seen: readonly string[]
  faults: readonly string[]
  skipped: readonly string[]
}

/** So many things are named; a hub may have dozens. */
const MOST_NAMED = 12

/** Reads a device by what it says of itself, and lets what was read be taken field by field. */
export function ReadDevice({ device, answer }: { device: Device; answer: ReadingAnswer | null | undefined }) {
  const busy = useNavigation().state === 'submitting'
  return (
    <details className={look.newDevices} open={answer != null}>
      <summary>Read it from the device</summary>
      <Text fontSize="sm" mb="2" maxW="720px">
        {device.screen
          ? `It was read on ${device.screen.read} and lists ${device.screen.modes.length} modes.`
          : 'A display says in its EDID which modes it takes; a computer prints what is on its ports.'}{' '}
        Choose the file, or paste what one of these prints:
      </Text>
      <ul className={`${text.tiny} ${look.commands}`}>
        {READING_COMMANDS.map(({ what, command }) => (
          <li key={command}>
            {what}: <code className={`${text.mono} ${text.anywhere}`}>{command}</code>
          </li>
        ))}
      </ul>
      <Form method="post" encType="multipart/form-data" className={look.reading}>
        <MadeFrom />
        <FileField label="File (EDID, log, JSON, CSV)" name="reading" accept="*/*" />
        <LabelledField field={plainField('said')} label="or its text">
          <PlainTextArea id="field-said" name="said" rows={4} mono spellCheck={false} />
        </LabelledField>
        <QuietButton name="intent" value="read" loading={busy}>
          Read it
        </QuietButton>
      </Form>
      {answer && <WhatWasRead answer={answer} busy={busy} />}
    </details>
  )
}

function WhatWasRead({ answer: { fields, seen, faults, skipped }, busy }: { answer: ReadingAnswer; busy: boolean }) {
  return (
    <section aria-label="What was read">
      <Notice tone="note" slim>
        Read: {seen.slice(0, MOST_NAMED).join(', ')}
        {seen.length > MOST_NAMED && ` and ${seen.length - MOST_NAMED} more`}.
      </Notice>
      {faults.map((fault) => (
        <Notice key={fault} tone="tight" slim>
          {fault}
        </Notice>
      ))}
      {skipped.length > 0 && (
        <Text fontSize="sm" color="quiet">
          Passed over: {skipped.slice(0, MOST_NAMED).join(', ')}.
        </Text>
      )}
      {fields.length === 0 ? (
        <Text>Everything Hallway can use from it is on record already.</Text>
      ) : (
        <Form method="post">
          <MadeFrom />
          <RuledTable
            label="What was read beside what is on record"
            cards
            columns={['Take it', 'What', 'On record', 'Read']}
          >
            {fields.map(({ what, had, read, patch, sure }) => (
              <tr key={what}>
                <td>
                  <input
                    type="checkbox"
                    name="accept"
                    value={JSON.stringify(patch)}
                    defaultChecked={sure}
                    aria-label={`Take ${what}: ${read}`}
                  />
                </td>
                <td>{what}</td>
                <td className={text.quiet}>{had}</td>
                <td>
                  <b>{read}</b>
                </td>
              </tr>
            ))}
          </RuledTable>
          <p className={look.tick}>
            <MainButton name="intent" value="accept" loading={busy}>
              Save what is ticked
            </MainButton>
          </p>
        </Form>
      )}
    </section>
  )
}
