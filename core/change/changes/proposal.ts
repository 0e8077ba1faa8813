import type { ChangeToMake, Edit } from '../change'

/** What a proposal may be called that Hallway worked out and a person took. */
export const PROPOSALS = ['follow advice', 'choose leads', 'plan order', 'wait for lead'] as const
export type ProposalName = (typeof PROPOSALS)[number]

/** Takes a proposal as it was shown: its edits, all or none. */
export const takeProposal = (name: ProposalName, about: readonly string[], edits: readonly Edit[]): ChangeToMake => ({
  what: { name, about },
  edits,
})
