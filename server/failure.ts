/** Something a person can mend: its message says what happened, what was kept and what to do. Shown without a stack. */
export class Failure extends Error {
  override name = 'Failure'
}

const codeOf = (error: unknown): string => (error instanceof Error && 'code' in error ? String(error.code) : '')

/** True where a disk has no room left: this machine's, or the database's. */
export const isDiskFull = (error: unknown): boolean =>
  ['ENOSPC', 'EDQUOT', 'ER_DISK_FULL', 'ER_RECORD_FILE_FULL', 'ER_OUT_OF_DISK'].includes(codeOf(error)) ||
  (error instanceof Error && /\b(ENOSPC|Errcode: 28)\b|No space left on device/.test(error.message))

/** True where the machine refused, and not what was sent. */
export const isSystemTrouble = (error: unknown): boolean => /^E[A-Z]{3,}$/.test(codeOf(error))
