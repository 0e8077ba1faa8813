import { z } from 'zod'

/** Where practitioners disagree: what this site goes by. Every verdict a policy changes says so. */
export const policySchema = z.strictObject({
  length: z
    .enum(['book', 'bench'])
    .default('book')
    .describe('book: the published limit. bench: what this cable has passed counts, even beyond the book'),
  extensions: z
    .enum(['never', 'soaked'])
    .default('never')
    .describe('type-C extensions: never, or where the very chain has passed a soak'),
  cables: z
    .enum(['any', 'supplied'])
    .default('any')
    .describe('any known cable, or only the one supplied with a device'),
  computerDisplays: z
    .enum(['displayport', 'either'])
    .default('displayport')
    .describe('HDMI to a computer display: with a note, or as good'),
  slack: z.number().min(0).max(1).default(0.1).describe('Share of the route kept as slack'),
  headroom: z.number().min(0).max(1).default(0.1).describe('Margin below which a rate is called tight'),
  chargeAtLeast: z
    .number()
    .min(0)
    .max(1)
    .default(0.5)
    .describe('Share of its own supply below which a laptop does not charge under load'),
})
export type Policy = z.output<typeof policySchema>
export const defaultPolicy: Policy = policySchema.parse({})
