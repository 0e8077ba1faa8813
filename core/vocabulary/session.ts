import { z } from 'zod'
import { SHORTEST_SOAK_SECONDS } from '../standards/soak'
import { dayField, idField, instantField, nameField, noteField } from './fields'
import { pictureModeSchema } from './need'
import { restsField } from './rests'
import { portAddressSchema } from './run'

/** A permanent run soaks for days; a drawer is sorted in minutes. */
const LONGEST_SOAK_SECONDS = 10 * 86_400
/** Nobody watches a run for longer. */
const MOST_SOAK_SECONDS = 60 * 86_400

const everyTest = {
  id: idField,
  from: portAddressSchema.describe('The port the host end goes into'),
  to: portAddressSchema.describe('The port the far end goes into'),
}

/** One fixed test that every cable of a session goes through. */
export const benchTestSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    ...everyTest,
    kind: z.literal('link'),
    soak: z
      .number()
      .int()
      .min(0)
      .max(LONGEST_SOAK_SECONDS)
      .default(SHORTEST_SOAK_SECONDS)
      .describe('Seconds it is watched'),
  }),
  z.strictObject({ ...everyTest, kind: z.literal('write') }),
  z.strictObject({ ...everyTest, kind: z.literal('read') }),
  z.strictObject({ ...everyTest, kind: z.literal('watts') }),
  z.strictObject({ ...everyTest, kind: z.literal('picture'), mode: pictureModeSchema }),
  z.strictObject({ ...everyTest, kind: z.literal('volts lost'), amps: z.number().min(0.1).max(5) }),
  z.strictObject({ ...everyTest, kind: z.literal('warmth') }),
])
export type BenchTest = z.output<typeof benchTestSchema>
export type BenchTestKind = BenchTest['kind']
export const BENCH_TEST_KINDS = [
  'link',
  'write',
  'read',
  'watts',
  'picture',
  'volts lost',
  'warmth',
] as const satisfies BenchTestKind[]

/** A sort-out session: these cables through these tests. Its readings are observations of the cables, and name it. */
export const sessionSchema = z.strictObject({
  id: idField,
  name: nameField,
  on: dayField,
  cables: z.array(idField).min(1, 'a session has at least one cable').max(500),
  tests: z.array(benchTestSchema).min(1, 'a session has at least one test').max(12),
  note: noteField.optional(),
})
export type Session = z.output<typeof sessionSchema>

/** A cable that soaks in a session since a moment. What comes of it is an observation. */
const benchSoakSchema = z.strictObject({
  id: idField,
  session: idField,
  test: idField,
  cable: idField,
  since: instantField,
})

/** A run that soaks as it lies, since a moment and for as long as was asked, with each drop that somebody or something told. */
const runSoakSchema = z.strictObject({
  id: idField,
  run: idField,
  leads: z
    .array(idField)
    .max(8)
    .describe("The leads that lay in it then, in order; none where a device's own spans it"),
  socket: portAddressSchema.describe('The socket of its host end'),
  since: instantField,
  seconds: z.number().int().min(SHORTEST_SOAK_SECONDS).max(MOST_SOAK_SECONDS).describe('How long it is to be watched'),
  hard: z.literal(true).optional().describe('Everything goes on at once, as the plan has it'),
  drops: z.array(instantField).max(500).optional().describe('When it dropped'),
  by: nameField.optional(),
  rests: restsField,
})
export type RunSoak = z.output<typeof runSoakSchema>

export const soakSchema = z.union([benchSoakSchema, runSoakSchema])
export type Soak = z.output<typeof soakSchema>
export type BenchSoak = z.output<typeof benchSoakSchema>
export const isRunSoak = (soak: Soak): soak is RunSoak => 'run' in soak
export const isBenchSoak = (soak: Soak): soak is BenchSoak => 'session' in soak
