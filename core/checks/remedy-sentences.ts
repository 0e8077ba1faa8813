import type { Concession } from '../picture/fit'
import { formatPictureMode } from '../picture/mode-text'
import { formatLength, type LengthUnit } from '../quantity/length'
import { decimal } from '../quantity/parsed'
import { formatWatts } from '../quantity/watts'
import type { Caution, Remedy } from './finding'
import { modeName } from './sentences'

/** What a person can do about it. */
export function remedySentence(remedy: Remedy, unit: LengthUnit = 'm'): string {
  switch (remedy.code) {
    case 'shorter':
      return `A lead of the same sort up to ${formatLength(remedy.reach, unit)} carries ${modeName(remedy.mode)}.`
    case 'longer':
      return `Take a lead of ${formatLength(remedy.length, unit)} or more.`
    case 'active':
      return `An active or optical lead made for ${modeName(remedy.mode)} keeps the rate at ${formatLength(remedy.length, unit)}.`
    case 'better-grade':
      return `Take a lead that carries ${modeName(remedy.mode)}.`
    case 'marked':
      return remedy.volts === 50
        ? 'Take a lead marked for 240 W (extended power range).'
        : `Take a lead with a ${remedy.amps} A mark (100 W).`
    case 'powered-far-end':
      return 'Feed the device at its own end, or take a lead that carries power.'
    case 'feed-lead':
      return 'Feed the lead at its far end, where it reaches further; plan for mains there.'
    case 'stronger-supply':
      return `Take a supply of ${formatWatts(remedy.watts)} or more.`
    case 'turn-round':
      return 'Turn it round.'
    case 'two-way-lead':
      return 'Take a lead made for both directions.'
    case 'other-lead':
      return 'Take another lead.'
    case 'choose-lead':
      return 'Choose one from the drawer, or one to buy.'
    case 'other-port':
      return 'Use another port.'
    case 'test-it':
      return 'Prove it on the bench.'
    case 'retire':
      return 'Retire it, or keep it for a lesser job.'
    case 'lay-run':
      return 'Lay a run between them, or between a dock on the way and them.'
    case 'expect-less':
      return 'Plan with the band, or share the link with less.'
    case 'thicker-or-shorter':
      return 'Take a shorter lead, or one with thicker wire.'
    case 'fewer-hubs':
      return 'Take a port nearer the host.'
    case 'powered-hub':
      return 'Take a hub with a supply of its own.'
    case 'optical-only':
      return 'Use a non-conductive optical run, and ask a licensed electrician.'
    case 'gentler-bend':
      return `Lead it round in ${decimal(remedy.allowed, 0)} mm or more, or take a thinner one.`
    case 'join-pathways':
      return 'Lay a pathway that joins its two ends, or type the length of the way it takes.'
    case 'a-to-c-lead':
      return 'Feed it from a type-A socket over an A-to-C lead.'
    case 'wider-conduit':
      return 'Take a wider conduit, a way beside it, or a cable whose plugs are put on after pulling, by licensed people.'
    case 'picture-instead':
      return insteadSentence(remedy.concession, formatPictureMode(remedy.mode))
    case 'ask-less':
      return 'Or ask for less: a lower rate, or fewer needs on this run.'
  }
}

function insteadSentence(concession: Concession, mode: string): string {
  switch (concession) {
    case 'compression':
      return 'With compression, if both ends have it, this very picture fits.'
    case 'standard range':
      return `In standard range it comes: ${mode}.`
    case 'fewer bits':
      return `With fewer bits it fits: ${mode}.`
    case 'lower refresh':
      return `At a lower refresh it fits: ${mode}.`
    case 'less colour':
      return `With less colour it fits, and text blurs: ${mode}.`
    case 'smaller picture':
      return `A smaller one fits: ${mode}.`
  }
}

export const cautionSentences: Record<Caution, string> = {
  'two-supplies':
    'Never join two supplies with a type-A to type-A or "Y" lead: it ties them together and can destroy both or start a fire.',
  'above-60-watts':
    'Above 60 W only with a lead marked 5 A. A lead or plug that gets hot: disconnect at the supply, let it cool, retire it.',
  'local-code':
    'Jacket rating, fire stopping and separation from mains follow the local code and belong to licensed people. Hallway does not declare this route compliant.',
  earths: 'Never lift a safety earth to cure hum. Ask a licensed electrician about the earths first.',
  height: 'Work at height: proper access equipment, not alone, nothing overhead without a secondary fixing.',
  hot: 'A lead or plug that gets hot: disconnect it at the supply, let it cool, and retire it.',
  trip: 'A lead on the floor or on a head trips people and pulls necks: guide it overhead, tape it down or give it a breakaway.',
  'optical-end': 'Do not look into a disconnected optical end.',
  'approved-supply': 'Use an approved supply only, of the stated voltage and polarity.',
  'above-100-watts':
    'Above 100 W only with extended power range parts, never modified and never extended. A lead that gets hot: disconnect at the supply, let it cool, retire it.',
}
