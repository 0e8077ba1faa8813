import { z } from 'zod'
import { SHORTEST_SOAK_SECONDS } from '../standards/soak'
import { asPrice, forAll, priceField } from './fields'

/** What may have to be bought beside leads. */
export const EQUIPMENT = ['dock', 'hub', 'charger', 'extender pair'] as const
export type Equipment = (typeof EQUIPMENT)[number]

/** Longer than this nobody has to look before it is relied on. */
export const LONGEST_LOOK_SECONDS = 86_400

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
  reliedFrom: z
    .number()
    .int()
    .min(SHORTEST_SOAK_SECONDS)
    .max(LONGEST_LOOK_SECONDS)
    .optional()
    .describe(
      'Seconds that a link has to hold in one look before it is relied on. Left out: 60. A shorter look shows only that it comes up',
    ),
  proveIn: z
    .enum(['own port', 'each controller'])
    .default('own port')
    .describe('a run is proved in the port it is planned in, or on each controller that may be used'),
  others: z
    .enum(['as own', 'half', 'not'])
    .optional()
    .describe(
      'how much other sites’ and sellers’ tries count beside those made here. Left out: half. They rank and price, and decide no verdict',
    ),
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
/** What a site goes by whose file says nothing of it. */
export const defaultPolicy: Policy = policySchema.parse({})
/** What a new site begins with: bad leads drop between 45 and 90 s, so a look is relied on from 120 s on (common practice). */
export const newPolicy: Policy = { ...defaultPolicy, reliedFrom: 120 }

/** From how many seconds on a site relies on a look; one that says nothing of it relies on the least. */
export const reliedOf = ({ reliedFrom = SHORTEST_SOAK_SECONDS }: Pick<Policy, 'reliedFrom'>): number => reliedFrom

/** How much a try of somebody else counts beside one of this site. */
export const othersWeight = ({ others = 'half' }: Pick<Policy, 'others'>): 0 | 0.5 | 1 =>
  others === 'as own' ? 1 : others === 'half' ? 0.5 : 0

/** How long a site watches a link before it calls it good. */
export const soakSeconds: Record<Policy['soak'], number> = {
  minute: SHORTEST_SOAK_SECONDS,
  night: 8 * 3600,
  'ten days': 10 * 86_400,
}
