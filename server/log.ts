import pino from 'pino'

/**
 * An error as the log holds it. A database's error repeats the statement with all that was typed, in its message and at the head of its stack. Of such a one
 * only its kind and where it came from are kept.
 */
export function loggedError(error: unknown) {
  if (!(error instanceof Error)) return { type: typeof error }
  const { name, message, code, errno } = error as Error & { code?: string; errno?: number }
  const fromDatabase = 'sql' in error || 'sqlMessage' in error || 'sqlState' in error
  const frames = (error.stack ?? '').split('\n').filter((line) => line.startsWith('    at '))
  return { type: name, code, errno, ...(fromDatabase ? {} : { message }), stack: frames.join('\n') }
}

/** Structured lines on standard error, so that what a command prints for people stays readable. Never holds what was typed, nor a password. */
export const log = pino(
  { level: process.env.HALLWAY_LOG ?? 'warn', base: null, serializers: { err: loggedError } },
  pino.destination(2),
)
