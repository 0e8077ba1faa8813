import { z } from 'zod'
import { asPrice, forAll, priceField } from './fields'

/** What may have to be bought beside leads. */
export const EQUIPMENT = ['dock', 'hub', 'charger', 'extender pair'] as const
export type Equipment = (typeof EQUIPMENT)[number]

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
  reservation: z
    .enum(['link', 'stream'])
    .default('link')
    .describe('pictures in a tunnel reserve a whole link rate (usual hosts) or their own stream rate (newer hosts)'),
  addInCards: z
    .enum(['record', 'avoid'])
    .default('record')
    .describe("ports on add-in cards: this site's own record decides, or they are a second choice"),
  farData: z
    .enum(['both', 'copper', 'optical'])
    .default('both')
    .describe('data past 5 m: active copper and optical are offered alike, or one of them first'),
  buying: z
    .enum(['cheapest', 'dearest'])
    .default('cheapest')
    .describe(
      'of what does the job: the cheapest, tested on the day it comes, or the dearest, price being taken for quality',
    ),
  soak: z
    .enum(['minute', 'night', 'ten days'])
    .default('minute')
    .describe('how long a link is watched before it counts as proved: 60 s, 8 hours, or 10 days'),
  proveIn: z
    .enum(['own port', 'each controller'])
    .default('own port')
    .describe('a run is proved in the port it is planned in, or on each controller that may be used'),
  searching: z
    .enum(['most telling', 'lead first'])
    .default('most telling')
    .describe('a fault is searched by what tells most for its minutes, or with another lead first'),
  drivers: z
    .enum(['system', 'maker'])
    .default('system')
    .describe("where drivers are taken from first: the system's own, or the board maker's"),
  storageOverhead: z
    .strictObject({ low: z.number().min(0).max(0.9), high: z.number().min(0).max(0.9) })
    .refine(({ low, high }) => low <= high, 'the low end of the band is above its high end')
    .default({ low: 0.2, high: 0.25 })
    .describe('Share of a tunnel that storage loses to protocol: a band'),
  slack: z.number().min(0).max(1).default(0.1).describe('Share of the route kept as slack'),
  loop: z
    .number()
    .min(0)
    .max(20)
    .default(0)
    .describe('Metres of spare lead kept as a loop at each end, so that equipment can be pulled out'),
  headroom: z.number().min(0).max(1).default(0.1).describe('Margin below which a rate is called tight'),
  currency: forAll(z.string().regex(/^[A-Z]{3}$/, 'a currency is three letters, such as EUR'))
    .default('EUR')
    .describe('What prices in the catalogue are in'),
  equipment: asPrice(z.partialRecord(z.enum(EQUIPMENT), priceField))
    .default({})
    .describe('What a device of each sort costs here, for ways out that need one'),
  chargeAtLeast: z
    .number()
    .min(0)
    .max(1)
    .default(0.5)
    .describe('Share of its own supply below which a laptop does not charge under load'),
})
export type Policy = z.output<typeof policySchema>
export const defaultPolicy: Policy = policySchema.parse({})
