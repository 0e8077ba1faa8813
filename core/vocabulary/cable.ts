import { z } from 'zod'
import { CONNECTORS, GENDERS } from '../standards/connectors'
import { CABLE_GRADES, CONSTRUCTIONS } from '../standards/grades'
import {
  asPrice,
  dayField,
  idField,
  lengthField,
  millimetresField,
  nameField,
  noteField,
  priceField,
  tagField,
  whyField,
} from './fields'

const endSchema = z.strictObject({
  connector: z.enum(CONNECTORS),
  gender: z.enum(GENDERS).default('plug'),
  ownPlug: nameField.optional().describe("What a maker's own plug is called; only plugs of one name mate"),
})
const endsSchema = z.tuple([endSchema, endSchema]).describe('The host end first on one-way leads')
export const ampsField = z.literal([0, 3, 5]).describe('Current the lead is marked for; 0 carries no power')
export const voltsField = z.literal([20, 50]).describe('50 for extended power range leads')

const thirdPlug = z.number().min(1).max(240)

/** Lengths a kind is sold in. */
export const MOST_LENGTHS = 40

/** How a lead lies. */
export const FEELS = ['supple', 'usual', 'stiff'] as const

/** How an active lead is fed: by the bus, by a supply it may have, or by one it must have. */
export const FEEDS = ['bus', 'optional', 'required'] as const

/** The end at which a lead is fed. */
export const FEED_ENDS = ['far', 'host'] as const

/** What a shop sells, and on what terms. */
export const cableKindSchema = z.strictObject({
  id: idField,
  name: nameField,
  ends: endsSchema,
  oneWay: z.boolean().default(false),
  construction: z.enum(CONSTRUCTIONS).default('passive'),
  grade: z.enum(CABLE_GRADES),
  feed: z.enum(FEEDS).optional().describe('How it is powered; left out: from the bus'),
  feedEnd: z.enum(FEED_ENDS).optional().describe('The end it takes that power at; left out: the far end'),
  pair: z.boolean().optional().describe('Whether it has the pair of USB 2.0; left out: as leads of its sort have'),
  passesBack: thirdPlug
    .optional()
    .describe('Where it takes power at a third plug: the watts it passes back to the host'),
  passesOn: thirdPlug.optional().describe('Where it takes power at a third plug: the watts it passes on to the device'),
  wants: z.array(nameField).max(8).optional().describe('What it needs beside it: a supply, drivers, an adapter'),
  includes: z.array(nameField).max(8).optional().describe('What comes in its box'),
  wantsPrice: priceField.optional().describe('What the parts cost that it needs and that are not in its box'),
  cord: lengthField.optional().describe('How far the cord of its supply reaches'),
  avoid: z
    .strictObject({ why: whyField, on: dayField })
    .optional()
    .describe('It is not bought any more: why, and since when'),
  amps: ampsField.optional(),
  volts: voltsField.optional(),
  stock: asPrice(z.array(z.strictObject({ length: lengthField, price: priceField })))
    .max(MOST_LENGTHS)
    .default([])
    .describe("Lengths it is sold in, each with its price in the site's currency"),
  leadDays: z.number().int().min(0).max(365).optional().describe('Days from order to delivery'),
  returnDays: z
    .number()
    .int()
    .min(0)
    .max(365)
    .optional()
    .describe('Days within which it may be sent back; 0 for never'),
  hand: z
    .strictObject({
      gramsPerMetre: z.number().min(1).max(2000).optional(),
      feel: z.enum(FEELS).optional(),
      strap: z.boolean().optional().describe('A strap or hook comes with it'),
      angled: z.boolean().optional().describe('A plug at a right angle'),
    })
    .optional()
    .describe('How it is in the hand, where somebody has said: stiff leads load the socket of a headset or a laptop'),
  note: noteField.optional(),
})
export type CableKind = z.output<typeof cableKindSchema>

export const CABLE_STANDINGS = ['drawer', 'lent', 'retired'] as const

export const cableSchema = z.strictObject({
  id: idField,
  tag: tagField,
  kind: idField.optional(),
  ends: endsSchema,
  oneWay: z.boolean().default(false).describe('Carries from its first end to its second only'),
  length: lengthField,
  construction: z.enum(CONSTRUCTIONS).default('passive'),
  awg: z.number().min(0).max(40).optional().describe('Gauge of its supply conductors, where it is printed or known'),
  thickness: millimetresField(0.5, 50).optional().describe('Its diameter in mm'),
  feed: z.enum(FEEDS).default('bus').describe('How an active lead is powered'),
  feedEnd: z.enum(FEED_ENDS).optional().describe('The end it takes that power at; left out: the far end'),
  pair: z.boolean().optional().describe('Whether it has the pair of USB 2.0; left out: as leads of its sort have'),
  copper: z
    .boolean()
    .optional()
    .describe('Whether there is copper in an optical lead; left out: where it carries power'),
  passesBack: thirdPlug
    .optional()
    .describe('A lead that takes power at a third plug: the watts it passes back to the host'),
  passesOn: thirdPlug
    .optional()
    .describe('A lead or feed adapter that takes power at a third plug: the watts it passes on to the device'),
  suppliedWith: idField.optional().describe('The device it came in the box of'),
  standing: z.enum(CABLE_STANDINGS).default('drawer'),
  note: noteField.optional(),
})
export type Cable = z.output<typeof cableSchema>
