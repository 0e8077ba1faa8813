import type { Edit } from '../change/change'
import type { Fault, ListName } from '../plan/entity'

/** What somebody may do on a site, the least first: read it; plan, lay and test; decide its rules, its people and what is handed over. */
export const RIGHTS = ['look', 'work', 'lead'] as const
export type Right = (typeof RIGHTS)[number]

/** Whether what somebody may do is enough for what is asked. Nobody without a right may do anything. */
export const covers = (held: Right | null, asked: Right): boolean =>
  held !== null && RIGHTS.indexOf(held) >= RIGHTS.indexOf(asked)

/** Lists that only whoever leads a site changes: what the site is and goes by, and what was handed to a client. */
const LEADS: readonly ListName[] = ['site', 'policy', 'handovers']

/** The right that a change of a list asks for. */
export const rightToChange = (list: ListName): Right => (LEADS.includes(list) ? 'lead' : 'work')

/** Each edit that goes beyond a right, with why, by its list and id; none where all of them may be made. */
export const beyond = (held: Right | null, edits: readonly Edit[]): Fault[] =>
  edits.flatMap(({ list, id }) =>
    covers(held, rightToChange(list))
      ? []
      : [
          {
            path: `${list}/${id}`,
            reason: covers(held, 'work')
              ? 'only whoever leads this site changes that'
              : 'you may look at this site, not change it',
          },
        ],
  )
