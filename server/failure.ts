/** Something a person can mend: its message says what happened, what was kept and what to do. Shown without a stack. */
export class Failure extends Error {
  override name = 'Failure'
}
