import { spawnSync } from 'node:child_process'

type Asked = {
  input?:
    | Uint8Array
    | string /** It ends with a code of its own where it finds something wrong, and that is an answer too. */
  anyEnd?: true
}

/** What a program of Debian's packages prints. One that is not there is named with its package, as nothing else would explain what is missing. */
export function printedBy(program: string, packageName: string, words: readonly string[], asked: Asked = {}): string {
  const { status, stdout, stderr, error } = spawnSync(program, words, { input: asked.input, encoding: 'utf8' })
  if (error)
    throw new Error(
      (error as NodeJS.ErrnoException).code === 'ENOENT'
        ? `${program} is not installed: apt-get install ${packageName}`
        : `${program} did not run: ${error.message}`,
    )
  if (status !== 0 && !asked.anyEnd) throw new Error(`${program} ended with ${status}: ${stderr}`)
  return stdout
}
