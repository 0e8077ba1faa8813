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

/** Makes sure a program is there, through apt-get where that is allowed; otherwise says which package to install. */
export function needProgram(program: string, packageName: string, say: (line: string) => void): string {
  const found = findProgram(program)
  if (found) return found
  const prefix = process.getuid?.() === 0 ? [] : mayUseSudo() ? ['sudo', '-n'] : null
  if (!findProgram('apt-get') || prefix === null) {
    throw new Failure(
      `${program} is not installed and Hallway may not install it here. Install Debian's package ${packageName} (apt-get install ${packageName}) and start again.`,
    )
  }
  say(
    `Installing Debian's ${packageName} through apt-get (once). Another installation that is under way is waited for.`,
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
  const installed = apt('install', '-y', '-q', '--no-install-recommends', packageName)
  const now = findProgram(program)
  if (installed.status !== 0 || !now) {
    throw new Failure(`apt-get could not install ${packageName}. Install it by hand and start again.`)
  }
  return now
}

const mayUseSudo = (): boolean =>
  findProgram('sudo') !== null && spawnSync('sudo', ['-n', 'true'], { stdio: 'ignore' }).status === 0
