import type { Instant } from '../../../core/vocabulary/fields'

/** A date as the database writes it, which is in UTC, as an instant. */
export const instantOf = (date: string): Instant => new Date(`${date}Z`).toISOString()
