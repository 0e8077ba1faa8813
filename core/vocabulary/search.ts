import { z } from 'zod'
import { asNote, forAll, idField, instantField, nameField, noteField } from './fields'

/** What people see when something is wrong, each told by one name. */
export const SYMPTOMS = [
  'not detected',
  'charges only',
  'usb2 only',
  'slow copy',
  'drops',
  'alone only',
  'listed but black',
  'fewer modes',
  'low refresh',
  'blurred',
  'both black',
  'frames lost',
  'charges slowly',
  'headset drains',
  'no power',
  'supply dark',
  'wakes on old charger',
  'too much current',
  'refused',
  'reduced function',
  'nothing new appears',
  'wants format',
  'hot',
  'smoke',
] as const
export type Symptom = (typeof SYMPTOMS)[number]

/** What is tried to tell one cause from another. */
export const TRIES = [
  'another lead',
  'shorter lead',
  'another port',
  'fewer neighbours',
  'reseat',
  'restart',
  'drivers',
  'firmware',
  'other charger',
  'feed',
  'turn round',
  'settings',
  'lower picture',
  'other input',
  'other device',
  'other computer',
  'without the dock',
  'power cycle',
  'part by part',
  'read the link',
  'read the watts',
  'feel the plugs',
] as const
export type TryName = (typeof TRIES)[number]

/** What has to be dealt with before anything is tried. */
export const STOPS = ['format', 'hot', 'both black', 'dead supply', 'smoke'] as const
export type StopName = (typeof STOPS)[number]

/** How a search may end. */
export const ENDS = ['found', 'not found', 'nothing wrong', 'went away', 'noted'] as const
export type EndName = (typeof ENDS)[number]

/** A search for a fault of a run. What was seen and tried in it are observations that name it. */
export const searchSchema = z.strictObject({
  id: idField,
  run: idField,
  since: instantField,
  by: nameField.optional().describe('Who began it'),
  cleared: z
    .array(
      z.strictObject({
        stop: z.enum(STOPS),
        at: instantField,
        by: nameField.optional(),
        how: noteField.min(1).describe('What was done about it: "copied everything off it first"'),
      }),
    )
    .max(40)
    .optional()
    .describe('Stops that somebody dealt with'),
  ended: z
    .strictObject({
      at: instantField,
      by: nameField.optional(),
      how: z.enum(ENDS),
      cause: forAll(z.string().max(200)).optional().describe('Which cause was found, by its key'),
      words: asNote(z.string().max(500)).optional().describe('What was found, as it was told then'),
      odds: z.number().min(0).max(1).optional().describe('How sure it was'),
      note: noteField.optional(),
    })
    .optional(),
})
export type Search = z.output<typeof searchSchema>
export const isOpen = ({ ended }: Search): boolean => ended === undefined
