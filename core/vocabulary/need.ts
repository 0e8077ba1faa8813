import { z } from 'zod'
import { forAll, idField, nameField, noteField, rateField, wattsField } from './fields'

export const CHROMAS = ['444', '422', '420'] as const

/** High dynamic range has 10 bits per colour at least (ITU-R BT.2100, from memory). */
export const HDR_BITS = 10

export const pictureModeSchema = z
  .strictObject({
    width: z.number().int().min(320).max(16_384),
    height: z.number().int().min(200).max(16_384),
    refresh: z
      .number()
      .min(10, 'a refresh lies between 10 and 480 Hz')
      .max(480, 'a refresh lies between 10 and 480 Hz'),
    bits: z.literal([6, 8, 10, 12, 16]).default(8).describe('Bits per colour'),
    chroma: z.enum(CHROMAS).default('444'),
    hdr: z.literal(true).optional().describe('High dynamic range'),
  })
  .refine(({ hdr, bits }) => !hdr || bits >= HDR_BITS, {
    path: ['bits'],
    error: `high dynamic range has ${HDR_BITS} bits per colour at least`,
  })
export type PictureMode = z.output<typeof pictureModeSchema>

const everyNeed = {
  id: idField,
  name: nameField.optional(),
  from: idField.describe('The device it flows from'),
  to: idField.describe('The device it flows to'),
  priority: z
    .number()
    .int()
    .min(1)
    .max(9)
    .optional()
    .describe(
      '1 is served first among needs of its kind; left out: after those that have one, in the order of the list',
    ),
  through: z.array(idField).max(16).optional().describe('Runs its path must take, where there are several'),
  variants: z
    .array(
      z.strictObject({
        name: nameField,
        mode: pictureModeSchema.optional(),
        rate: rateField.optional(),
        back: rateField.optional(),
        watts: wattsField.optional(),
      }),
    )
    .max(12)
    .optional()
    .describe('What else may be asked in its place, each with the figures that differ'),
  said: forAll(z.string().max(120))
    .optional()
    .describe('Its size as it was said, where it was worked out: "100 GB in 20 min"'),
  note: noteField.optional(),
}
/** Bus power that must travel beside the data, from the host to the device. */
const withPower = { watts: wattsField.optional() }

export const needSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    ...everyNeed,
    kind: z.literal('picture'),
    mode: pictureModeSchema,
    uncompressed: z.boolean().optional().describe('It must arrive as it left, without stream compression'),
  }),
  z.strictObject({
    ...everyNeed,
    ...withPower,
    kind: z.literal('storage'),
    rate: rateField.describe('Written and read'),
    back: rateField.optional().describe('Read, where that is another rate than is written'),
  }),
  z.strictObject({
    ...everyNeed,
    ...withPower,
    kind: z.literal('headset'),
    rate: rateField,
    hours: z.number().min(0.1).max(24).optional().describe('Hours it is worn in one go'),
    refresh: z.number().min(10).max(480).optional().describe('The refresh it is used at'),
    link: z.enum(['gen1x1', 'gen2x1']).optional().describe('The link it asks for, whatever rate it uses of it'),
  }),
  z.strictObject({ ...everyNeed, ...withPower, kind: z.literal('camera'), rate: rateField.describe('Raw frames') }),
  z.strictObject({
    ...everyNeed,
    ...withPower,
    kind: z.literal('sensor'),
    rate: rateField.describe('Link rate it asks for'),
    volts: z.number().min(1).max(60).optional().describe('A voltage of its own that it asks for beside the link'),
    feed: z.enum(['there', 'missing']).optional().describe('Whether the supply for that voltage is there'),
  }),
  z.strictObject({
    ...everyNeed,
    ...withPower,
    kind: z.literal('audio'),
    rate: rateField,
    delay: z.number().min(0).max(1000).optional().describe('The delay in ms that the path may add'),
  }),
  z.strictObject({
    ...everyNeed,
    ...withPower,
    kind: z.literal('data'),
    rate: rateField.describe('Link rate it asks for'),
  }),
  z.strictObject({
    ...everyNeed,
    kind: z.literal('own screen'),
    rate: rateField.describe("Finished frames that an outboard graphics box sends back for the laptop's own screen"),
  }),
  z.strictObject({ ...everyNeed, kind: z.literal('power'), watts: wattsField }),
])
export type Need = z.output<typeof needSchema>
export type NeedKind = Need['kind']

/** The order in which needs are admitted to a shared link: pictures first, then what cannot wait, then what can. */
export const NEED_KINDS = [
  'picture',
  'own screen',
  'headset',
  'camera',
  'sensor',
  'audio',
  'data',
  'storage',
  'power',
] as const satisfies NeedKind[]

/** What a need is called: its own name, or what it is and where it goes. */
export const needLabel = (need: Need, devices: ReadonlyMap<string, { name: string }>): string =>
  need.name ?? `${need.kind} to ${devices.get(need.to)?.name ?? need.to}`

/** The bus power that a need asks beside its data; undefined where it asks for none. */
export const busWatts = (need: Need): number | undefined =>
  need.kind !== 'power' && 'watts' in need ? need.watts : undefined

/** The most that a need asks either way, in bits a second; nothing of power. */
export const mostAsked = (need: Need): number =>
  need.kind === 'storage' ? Math.max(need.rate, need.back ?? 0) : 'rate' in need ? need.rate : 0
