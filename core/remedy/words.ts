import { formatPictureMode } from '../picture/mode-text'
import { formatLength, type LengthUnit } from '../quantity/length'
import { formatWatts } from '../quantity/watts'
import type { Effort, MoveWords } from './move'

/** What a small change is, as something to do. */
export function moveSentence(move: MoveWords, unit: LengthUnit = 'm'): string {
  const metres = (value: number): string => formatLength(value, unit)
  switch (move.code) {
    case 'drawer lead':
      return `Lay ${move.cable} from the drawer (${metres(move.length)}) in ${move.run}.`
    case 'bought lead':
      return `Buy ${move.kind}, ${metres(move.length)}, for ${move.run}${move.listed ? '' : '; your catalogue has none, and it is commonly sold'}.${move.optical ? ' Check what power it passes.' : ''}`
    case 'other port':
      return `Plug ${move.run} into ${move.port} of ${move.device}${overLead(move)}.`
    case 'extension':
      return `Put an extension before ${move.before} in ${move.run}: ${toGet(move)}, ${metres(move.length)}${unlisted(move)}.`
    case 'feed adapter':
      return `Put a feed adapter before ${move.before} in ${move.run}: ${toGet(move)}${unlisted(move)}. It passes on ${formatWatts(move.watts)} from a charger at its third plug.`
    case 'swap own lead':
      return `Swap the own lead of ${move.device} for one of ${metres(move.length)} or more; a bracket holds it.`
    case 'powered hub':
      return `Put a powered hub in the place of ${move.hub}, with its supply.`
    case 'other charger':
      return `Charge ${move.sink} from ${move.port} of ${move.charger}, which is there already and gives ${formatWatts(move.watts)}${overLead(move)}.`
    case 'host by stream':
      return `Take a host that holds for each picture what it sends, in the place of ${move.device}: newer ones do, and some let you choose.`
    case 'exchange ports':
      return `Let ${move.run} and ${move.other} exchange their ports at ${move.device}.`
    case 'lesser picture':
      return `Ask for ${formatPictureMode(move.mode)} as the ${move.need}${concessionWords[move.concession]}.`
    case 'allow compression':
      return `Allow compression for the ${move.need}.`
    case 'served first':
      return `Bring the ${move.need} up first, before the other pictures on this path.`
    case 'dock to far side':
      return `Move ${move.dock} to the far side: its own lead then runs ${metres(move.uplink)}, the others get short.`
    case 'dock to host side':
      return `Move ${move.dock} beside the host: its own lead then runs ${metres(move.uplink)}, the others get longer.`
    case 'second dock':
      return `Put a second ${move.dock} at ${move.port}, for this run alone.`
    case 'hub instead':
      return `Put a USB hub in the place of ${move.dock}: only USB crosses it.`
    case 'power lead':
      return `Give ${move.sink} a ${formatWatts(move.watts)} charger of its own, over a power lead of ${metres(move.length)} beside what it has.`
    case 'larger charger':
      return `Take a charger of ${formatWatts(move.watts)} as ${move.charger}.`
    case 'mains at':
      return `Bring mains to ${move.place}: work for licensed people, by the local code.`
    case 'extender pair':
      return `Put an extender pair into ${move.run}, with category cable over the ${metres(move.length)}.`
  }
}

const toGet = ({ lead, bought }: { lead: string; bought: boolean }): string => (bought ? `buy ${lead}` : lead)
const unlisted = ({ bought, listed }: { bought: boolean; listed: boolean }): string =>
  bought && !listed ? '; your catalogue has none, and it is commonly sold' : ''

/** The lead that goes with a move, and that it has to be bought where it has. */
const overLead = ({ lead, bought }: { lead: string | null; bought: boolean }): string =>
  lead === null ? '' : bought ? `, over a lead to buy: ${lead}` : `, over ${lead}`

const concessionWords = {
  'standard range': ', in standard range',
  'fewer bits': ', with fewer bits',
  'lower refresh': ', at a lower refresh',
  'less colour': ', with less colour; text blurs',
  'smaller picture': ', a smaller picture',
} as const

/** What a change of that sort disturbs. */
export const effortWords: Record<Effort, string> = {
  setting: 'a setting',
  plug: 'replugging',
  lead: 'a lead from the drawer',
  less: 'asks for less',
  bought: 'something to buy',
  rearranged: 'moving equipment',
  device: 'another device to buy',
  building: 'work on the building',
}
