import type { Plan } from '../plan/plan'

/** With fewer kinds than this a site has no catalogue of its own yet. */
const FEW = 12

/** Whether a site has a catalogue to buy from; until then the ready one is offered. */
export const hasCatalogue = ({ kinds }: Pick<Plan, 'kinds'>): boolean => kinds.length >= FEW
