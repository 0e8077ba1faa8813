import type { z } from 'zod'
import type { Learning } from '../learnt'

/** One kind of observation. Adding one is adding a file like this and a line in the list. */
export type ObservationKind<Schema extends z.ZodObject> = {
  schema: Schema
  /** What it adds to what is known of the cable, or of the run as it lay. Observations come oldest first. */
  teach(learning: Learning, seen: z.output<Schema>): void
  /** What it does not show, as people take it to. */
  cannot: string
  /** What it says, in a few words. */
  text(seen: z.output<Schema>): string
  /** Who says so. */
  saidBy(seen: z.output<Schema>): string
}

/** A kind with the type of what it sees told by its schema. */
export const kindOf = <Schema extends z.ZodObject>(kind: ObservationKind<Schema>): ObservationKind<Schema> => kind
