import { z } from 'zod'
import { SHORTEST_SOAK_SECONDS } from '../standards/soak'
import { dayField, idField, instantField, nameField, noteField } from './fields'
import { pictureModeSchema } from './need'
import { portAddressSchema } from './run'

/** A permanent run soaks for days; a drawer is sorted in minutes. */
const LONGEST_SOAK_SECONDS = 10 * 86_400

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
export const soakSchema = z.strictObject({
  id: idField,
  session: idField,
  test: idField,
  cable: idField,
  since: instantField,
})
export type Soak = z.output<typeof soakSchema>
