import type { Subject } from '../../observe/every'
import type { Observation, Unwritten } from '../../observe/observation'
import type { Instant } from '../../vocabulary/fields'
import type { ChangeToMake } from '../change'
import type { ChangeName } from '../words'

/** Who writes down what was seen, and when; `newId` gives each observation an id of its own. */
export type Witness = { at: Instant; by: string | undefined; newId: () => string }

/** What was seen as observations of a cable, run, port or device. */
export const observed = (seen: readonly Unwritten[], subject: Subject, { at, by, newId }: Witness): Observation[] =>
  seen.map((each) => ({ ...each, id: newId(), at, ...(by ? { by } : {}), subject }) as Observation)

/** Writes observations down. `about` names what they are of, and in a few words what was seen. */
export const writeDown = (
  observations: readonly Observation[],
  about: readonly string[],
  name: ChangeName = 'write down',
): ChangeToMake => ({
  what: { name, about },
  edits: observations.map((value) => ({ list: 'observations', id: value.id, base: null, value })),
})

/** Takes observations back: they stay, and others say that they do not count and why. */
export const takeBack = (
  observations: readonly Observation[],
  reason: string,
  about: readonly string[],
  { at, by, newId }: Witness,
): ChangeToMake =>
  writeDown(
    observations.map(({ id, subject }) => ({
      id: newId(),
      at,
      ...(by ? { by } : {}),
      subject,
      kind: 'retraction' as const,
      retracts: id,
      reason,
    })),
    about,
    'take back',
  )
