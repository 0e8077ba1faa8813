import { LINK_MODES, type LinkMode, linkModeFacts } from '../standards/link-modes'
import {
  DISPLAYPORT_LINKS,
  type DisplayPortLink,
  displayPortLane,
  type HdmiLevel,
  hdmiLink,
} from '../standards/picture-links'

/** What a link is called, whatever family it is of. */
export const modeName = (mode: LinkMode | DisplayPortLink | HdmiLevel): string => {
  if ((LINK_MODES as readonly string[]).includes(mode)) return linkModeFacts[mode as LinkMode].name
  if ((DISPLAYPORT_LINKS as readonly string[]).includes(mode))
    return `DisplayPort ${displayPortLane[mode as DisplayPortLink].name}`
  return hdmiLink[mode as keyof typeof hdmiLink].name
}
