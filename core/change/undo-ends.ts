import type { LogPosition } from './change'

/** Undo ends: what is older or further behind stands in the log, and is changed by hand. Files that only such a change would bring back are not kept. */
export const UNDO_CHANGES = 1000
export const UNDO_DAYS = 90

const DAY_MS = 24 * 3600 * 1000

/** Whether a change may still be undone on a site that stands at `now`, as far as its age goes. */
export const isWithinUndo = (
  change: { place: LogPosition; at: string },
  now: { place: LogPosition; at: string },
): boolean => now.place - change.place < UNDO_CHANGES && Date.parse(now.at) - Date.parse(change.at) < UNDO_DAYS * DAY_MS
