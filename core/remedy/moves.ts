import type { Proposer } from './move'
import { dockMoves } from './moves/docks'
import { extenderPair } from './moves/extenders'
import { extensionMoves } from './moves/extensions'
import { otherLeads } from './moves/leads'
import { swappedLeads } from './moves/own-leads'
import { pictureMoves } from './moves/pictures'
import { otherPorts } from './moves/ports'
import { powerMoves } from './moves/power'

/** Where small changes come from, what disturbs least first: whoever wants one that does need not ask for the rest. */
export const proposers: readonly Proposer[] = [
  otherLeads,
  extensionMoves,
  swappedLeads,
  otherPorts,
  pictureMoves,
  powerMoves,
  dockMoves,
  extenderPair,
]
