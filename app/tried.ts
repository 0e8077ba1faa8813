import { z } from 'zod'
import type { Edit, LogPosition } from '../core/change/change'
import { type Run, runSchema } from '../core/vocabulary/run'

/** What was tried beside what a form holds, as a button sends it that keeps both. */
const triedSchema = z.object({
  /** The what-if, by its words. */
  words: z.string().max(400).nullable(),
  /** The runs it was tried on, where they are not the form's own. */
  on: z.array(z.string().max(64)).max(32),
  /** Runs that were tried otherwise. */
  runs: z.array(z.object({ id: z.string().max(64), base: z.number().int(), value: runSchema })).max(32),
})
export type Tried = z.output<typeof triedSchema>

/** What is said where a what-if cannot be kept. */
export const NOT_TRIED = 'what was tried is no longer there to try; look at it as it is now'

/** What is sent where somebody keeps what was tried. */
export const triedText = (
  words: string | null,
  on: readonly string[] = [],
  runs: readonly Run[] = [],
  base: LogPosition = 0,
): string =>
  JSON.stringify({ words, on: [...on], runs: runs.map((value) => ({ id: value.id, base, value })) } satisfies Tried)

/** What a form says was tried; null where nothing was, undefined where it cannot be read. */
export function triedOf(form: FormData): Tried | null | undefined {
  const text = form.get('tried')
  if (text === null || text === '') return null
  try {
    return triedSchema.safeParse(JSON.parse(String(text))).data
  } catch {
    return undefined
  }
}

export const triedRuns = ({ runs }: Tried): Edit[] =>
  runs.map(({ id, base, value }) => ({ list: 'runs', id, base, value }))
