import { spawnSync } from 'node:child_process'
import { accessSync, constants } from 'node:fs'
import { delimiter, join } from 'node:path'
import { Failure } from '../failure'

/** How long another installation is waited for. */
const LOCK_SECONDS = 300

const SBIN = ['/usr/sbin', '/usr/local/sbin', '/sbin']

/** Where a program is, on the path or in the system's own folders; null where it is not installed. */
export function findProgram(name: string): string | null {
  for (const folder of [...(process.env.PATH ?? '').split(delimiter), ...SBIN]) {
    const file = join(folder, name)
    try {
      accessSync(file, constants.X_OK)
      return file
    } catch {
      // not here
    }
  }
  return null
}

/** A program, and Debian's package that brings it. */
export type Needed = { program: string; packageName: string }

/** Makes sure a program is there, through apt-get where that is allowed; otherwise says which package to install. */
export const needProgram = (program: string, packageName: string, say: (line: string) => void): string =>
  needPrograms([{ program, packageName }], say)[0] as string

/** The same of several programs: all that are missing are asked for in one go. Answers where each is. */
export function needPrograms(needed: readonly Needed[], say: (line: string) => void): string[] {
  const missing = needed.filter(({ program }) => !findProgram(program))
  if (missing.length > 0) install(missing, say)
  return needed.map(({ program, packageName }) => {
    const found = findProgram(program)
    if (!found) throw new Failure(`${packageName} is installed, and yet there is no program ${program}.`)
    return found
  })
}

const listed = (words: readonly string[]): string => [...new Set(words)].join(', ')

function install(missing: readonly Needed[], say: (line: string) => void): void {
  const packages = [...new Set(missing.map(({ packageName }) => packageName))]
  const prefix = process.getuid?.() === 0 ? [] : mayUseSudo() ? ['sudo', '-n'] : null
  if (!findProgram('apt-get') || prefix === null) {
    throw new Failure(
      `Not installed: ${listed(missing.map(({ program }) => program))}. Hallway may not install packages here. Do it by hand (apt-get install ${packages.join(' ')}) and start again.`,
    )
  }
  say(
    `Installing Debian's ${listed(packages)} through apt-get (once). Another installation that is under way is waited for.`,
  )
  const apt = (...words: string[]) => {
    // another apt at work is waited for
    const [command, ...rest] = [...prefix, 'apt-get', '-o', `DPkg::Lock::Timeout=${LOCK_SECONDS}`, ...words] as [
      string,
      ...string[],
    ]
    return spawnSync(command, rest, {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    })
  }
  apt('update', '-q')
  // without recommended packages: Hallway starts the program itself and wants no system service
  if (apt('install', '-y', '-q', '--no-install-recommends', ...packages).status !== 0)
    throw new Failure(`apt-get could not install ${listed(packages)}. Install by hand and start again.`)
}

const mayUseSudo = (): boolean =>
  findProgram('sudo') !== null && spawnSync('sudo', ['-n', 'true'], { stdio: 'ignore' }).status === 0
