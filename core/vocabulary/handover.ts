import { z } from 'zod'
import { asNote, forAll, idField, instantField, nameField, noteField } from './fields'

/** The parts of a book, in the order in which people use them. */
export const SECTIONS = [
  'desks',
  'cards',
  'works-with',
  'places',
  'devices',
  'floors',
  'runs',
  'conditions',
  'cautions',
  'changes',
  'spares',
  'tags',
] as const
export type SectionName = (typeof SECTIONS)[number]

/** Sheets of paper, in points. */
export const PAPERS = ['a4', 'letter'] as const
export type Paper = (typeof PAPERS)[number]

/** Lengths as a book writes them: one unit, or the other in brackets. */
export const BOOK_UNITS = ['m', 'ft', 'both'] as const
export type BookUnits = (typeof BOOK_UNITS)[number]

/** What was handed over to a client: the plan at a place of the log. It is never edited; a later one follows it. */
export const handoverSchema = z.strictObject({
  id: idField,
  name: nameField,
  client: nameField.describe('For whom'),
  at: instantField,
  by: nameField.optional(),
  log: forAll(z.string().min(1).max(64)).describe('Which log the place is of'),
  place: z.number().int().min(1).max(1e9).describe('The change of the log after which the plan was handed over'),
  judged: z
    .number()
    .int()
    .min(1)
    .max(1e6)
    .optional()
    .describe('By which rules of Hallway it was judged; left out: from before that was noted'),
  conditions: noteField.optional(),
  open: z
    .array(asNote(z.string().max(500)))
    .max(60)
    .default([])
    .describe('What was not settled when it was made'),
  pins: z
    .array(forAll(z.string().regex(/^[0-9a-f]{64}$/, 'a file is named by its SHA-256')))
    .max(20_000)
    .default([])
    .describe('The drawings and photos it shows'),
  paper: z.enum(PAPERS).default('a4'),
  units: z.enum(BOOK_UNITS).default('both'),
  sections: z
    .array(z.enum(SECTIONS))
    .min(1)
    .max(SECTIONS.length)
    .default([...SECTIONS]),
})
export type Handover = z.output<typeof handoverSchema>
