import { type Connector, speaksTmds } from '../standards/connectors'
import type { LaidLead } from './lay'

const speaksDisplayPort = (connector: Connector): boolean =>
  connector === 'type-c' || connector === 'displayport' || connector === 'mini-displayport'

/**
 * Whether a lead would have to turn HDMI into DisplayPort and is not made for it. Adapters convert DisplayPort, also as the alternate mode of type-C,
 * into HDMI; the other way needs a converter with a supply of its own (common practice), which is entered as a one-way lead with its HDMI end first.
 */
export function convertsBackwards({ cable, hostEnd, farEnd, reversed }: LaidLead): boolean {
  if (!speaksTmds(hostEnd.connector) || !speaksDisplayPort(farEnd.connector)) return false
  return !cable.oneWay || reversed
}
