import { Command, CommanderError } from 'commander'
import { Failure } from '../failure'

/** A command whose faults are sentences and leave the process to whoever called it. */
export const plainCommand = (name: string): Command =>
  new Command(name)
    .exitOverride()
    .allowExcessArguments(false)
    .showHelpAfterError('(--help tells what it takes)')
    .configureOutput({ outputError: () => {}, writeErr: () => {} })

/** Does what the words ask for; answers the exit code. What cannot be understood is a failure in words. */
export async function obey(command: Command, words: readonly string[]): Promise<number> {
  try {
    await command.parseAsync(words, { from: 'user' })
    return 0
  } catch (error) {
    if (!(error instanceof CommanderError)) throw error
    if (error.exitCode === 0) return 0
    throw new Failure(`${error.message.replace(/^error: /, '')}  (--help tells what there is)`)
  }
}
