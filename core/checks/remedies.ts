import { z } from 'zod'
import { CONCESSIONS, type Concession } from '../picture/fit'
import { formatPictureMode } from '../picture/mode-text'
import { formatLength, type LengthUnit } from '../quantity/length'
import { decimal } from '../quantity/parsed'
import { formatRate } from '../quantity/rate'
import { formatWatts } from '../quantity/watts'
import { LINK_MODES } from '../standards/link-modes'
import { DISPLAYPORT_LINKS, HDMI_LEVELS } from '../standards/picture-links'
import { pictureModeSchema } from '../vocabulary/need'
import type { Coded } from './coded'
import { modeName } from './mode-name'

const modeField = z.enum([...LINK_MODES, ...DISPLAYPORT_LINKS, ...HDMI_LEVELS])

/** Something a person can do about a finding: its figures, and the sentence they make. */
const remedy = <Shape extends z.ZodRawShape>(
  shape: Shape,
  say: (figures: z.output<z.ZodObject<Shape>>, unit: LengthUnit) => string,
) => ({ figures: z.strictObject(shape), say })

/** A remedy that is the same wherever it is offered. */
const always = (words: string) => remedy({}, () => words)

const concessionWords: Record<Concession, (mode: string) => string> = {
  compression: () => 'With compression, if both ends have it, this very picture fits.',
  'standard range': (mode) => `In standard range it comes: ${mode}.`,
  'fewer bits': (mode) => `With fewer bits it fits: ${mode}.`,
  'lower refresh': (mode) => `At a lower refresh it fits: ${mode}.`,
  'less colour': (mode) => `With less colour it fits, and text blurs: ${mode}.`,
  'smaller picture': (mode) => `A smaller one fits: ${mode}.`,
}

/** Every remedy that a check may offer. */
export const remedies = {
  shorter: remedy(
    { reach: z.number(), mode: modeField },
    ({ reach, mode }, unit) => `A lead of the same sort up to ${formatLength(reach, unit)} carries ${modeName(mode)}.`,
  ),
  longer: remedy({ length: z.number() }, ({ length }, unit) => `Take a lead of ${formatLength(length, unit)} or more.`),
  active: remedy(
    { length: z.number(), mode: modeField, build: z.enum(['active', 'optical']) },
    ({ length, mode, build }, unit) =>
      `An ${build} lead made for ${modeName(mode)} keeps the rate at ${formatLength(length, unit)}.`,
  ),
  'better-grade': remedy({ mode: modeField }, ({ mode }) => `Take a lead that carries ${modeName(mode)}.`),
  marked: remedy({ amps: z.literal([3, 5]), volts: z.literal([20, 50]) }, ({ amps, volts }) =>
    volts === 50
      ? 'Take a lead marked for 240 W (extended power range).'
      : `Take a lead with a ${amps} A mark (100 W).`,
  ),
  'powered-far-end': always('Feed the device at its own end, or take a lead that carries power.'),
  'feed-lead': always('Feed the lead at its far end, where it reaches further; plan for mains there.'),
  'stronger-supply': remedy({ watts: z.number() }, ({ watts }) => `Take a supply of ${formatWatts(watts)} or more.`),
  'c-to-c-lead': always('Take a lead with type-C plugs at both ends: only there more than 5 V is negotiated.'),
  'mains-there': always('Bring mains to it, or move it to where there is some.'),
  'own-supply': remedy({ volts: z.number() }, ({ volts }) => `Get its own supply of ${decimal(volts, 1)} V.`),
  'no-drivers': always('Take one that needs no drivers, or another computer.'),
  'extend-own-lead': remedy(
    { length: z.number() },
    ({ length }, unit) => `Put an extension of ${formatLength(length, unit)} or more before it.`,
  ),
  'swap-own-lead': remedy(
    { device: z.string(), length: z.number() },
    ({ device, length }, unit) =>
      `Swap the own lead of ${device} for one of ${formatLength(length, unit)} or more; a bracket holds it.`,
  ),
  'turn-round': always('Turn it round.'),
  'two-way-lead': always('Take a lead made for both directions.'),
  'other-lead': always('Take another lead.'),
  'choose-lead': always('Choose one from the drawer, or one to buy.'),
  'other-port': always('Use another port.'),
  'test-it': always('Prove it on the bench.'),
  'lay-run': always('Lay a run between them, or from a dock.'),
  'ask-less': always('Or ask for less: a lower rate, or fewer needs on this run.'),
  'compress-pictures': remedy(
    { rate: z.number() },
    ({ rate }) =>
      `Have the pictures compressed, if the host lets you choose: then ${formatRate(rate)} are left. A host does not do it for the sake of data.`,
  ),
  'expect-less': always('Plan with the band, or share the link with less.'),
  'thicker-or-shorter': always('Take a shorter lead, or one with thicker wire.'),
  'fewer-hubs': always('Take a port nearer the host.'),
  'powered-hub': always('Take a powered hub.'),
  'optical-only': always('Use a non-conductive optical run, and ask a licensed electrician.'),
  'gentler-bend': remedy(
    { allowed: z.number() },
    ({ allowed }) => `Lead it round in ${decimal(allowed, 0)} mm or more, or take a thinner one.`,
  ),
  'wider-conduit': always(
    'Take a wider conduit or another route, or have licensed people fit the plugs after the cable is pulled.',
  ),
  'join-pathways': always('Lay a pathway that joins its two ends, or type the length of its route.'),
  'a-to-c-lead': always('Feed it from a type-A socket over an A-to-C lead.'),
  'outboard-display': always('Put a display on the graphics box itself: nothing of that comes back over the lead.'),
  'picture-instead': remedy({ concession: z.enum(CONCESSIONS), mode: pictureModeSchema }, ({ concession, mode }) =>
    concessionWords[concession](formatPictureMode(mode)),
  ),
}

export type RemedyCode = keyof typeof remedies
/** Remedies of some codes, each with its figures. */
export type RemedyOf<Code extends RemedyCode> = {
  [Each in Code]: Coded<Each, (typeof remedies)[Each]['figures']>
}[Code]
export type Remedy = RemedyOf<RemedyCode>

/** What a person can do about it. */
export const remedySentence = ({ code, ...figures }: Remedy, unit: LengthUnit = 'm'): string =>
  remedies[code].say(figures as never, unit)
