import { type ChildProcess, execFileSync, spawn, spawnSync } from 'node:child_process'
import {
  appendFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'

// Machines of a test's own: each is booted by systemd over the files of this one, keeps what it changes to itself, and reaches only the others.

/** What of this machine would start there as well, and is not wanted. */
const UNWANTED = ['postgresql', 'avahi-daemon', 'apt-daily.timer', 'apt-daily-upgrade.timer', 'man-db.timer']
/** What they are made with, and what is installed on them beforehand. */
const NEEDED = {
  'systemd-nspawn': 'systemd-container',
  ip: 'iproute2',
  mariadbd: 'mariadb-server galera-4 rsync',
  haproxy: 'haproxy',
  curl: 'curl',
  adduser: 'adduser',
}
const PATH = '/usr/local/sbin:/usr/local/bin:/usr/sbin:/usr/bin:/sbin:/bin'

export type Machine = {
  name: string
  address: string
  /** Runs a line as root in a folder there, as it would be typed, and answers what it said. */
  run(line: string, given?: { folder?: string; input?: string }): string
  /** Runs a line until it goes through. */
  untilRuns(line: string, seconds?: number): Promise<string>
  write(file: string, text: string): void
  /** Asked to go down, as by its button. */
  powerOff(): Promise<void>
  /** As when the plug is pulled. */
  cut(): Promise<void>
  /** Takes its cable to the others out, or puts it back in. */
  cable(how: 'out' | 'in'): void
  boot(): Promise<void>
}

/** Where processes are counted together, by either layout. */
const GROUPS = ['/sys/fs/cgroup', '/sys/fs/cgroup/systemd', '/sys/fs/cgroup/unified'].filter((each) =>
  existsSync(join(each, 'cgroup.procs')),
)

/** Machines by name, the first at 10.77.0.1, in a network of their own. `code` is copied to /srv/hallway on each. */
export async function startMachines(names: readonly string[], code: readonly string[]) {
  for (const [program, its] of Object.entries(NEEDED))
    if (spawnSync('which', [program]).status !== 0) throw new Error(`${program} is missing: apt-get install ${its}`)
  const running = new Set<ChildProcess>()
  // a test that gives up leaves nothing running
  process.once('exit', () => {
    for (const child of running) child.kill('SIGKILL')
  })
  const folder = mkdtempSync(join(tmpdir(), 'hallway-machines-'))
  const network = `hallway-${process.pid}`
  const run = (program: string, words: readonly string[]) => execFileSync(program, words, { encoding: 'utf8' })
  // what machines write lies in memory: an overlay takes no place under what it lies over
  run('mount', ['-t', 'tmpfs', '-o', 'size=12g', 'tmpfs', folder])
  const shared = join(folder, 'shared')
  mkdirSync(join(shared, 'srv/hallway'), { recursive: true })
  run('cp', ['-a', '--parents', ...code, join(shared, 'srv/hallway')])
  run('ip', ['netns', 'add', network])
  const inNetwork = (words: readonly string[]) => run('ip', ['-n', network, ...words])
  inNetwork(['link', 'add', 'lines', 'type', 'bridge'])
  inNetwork(['link', 'set', 'lines', 'up'])

  const machines = names.map((name, at) => makeMachine(name, `10.77.0.${at + 1}`))

  function makeMachine(name: string, address: string): Machine & { end(): void } {
    const own = join(folder, name)
    const root = join(own, 'root')
    for (const part of ['kept', 'work', 'root']) mkdirSync(join(own, part), { recursive: true })
    const layers = `lowerdir=${shared}:/,upperdir=${join(own, 'kept')},workdir=${join(own, 'work')}`
    run('mount', ['-t', 'overlay', 'overlay', '-o', layers, root])
    const write = (file: string, text: string) => writeFileSync(join(root, file), text)
    write('/etc/machine-id', `${execFileSync('openssl', ['rand', '-hex', '16'], { encoding: 'utf8' })}`)
    write('/etc/hostname', `${name}\n`)
    for (const unit of UNWANTED) {
      const file = join(root, 'etc/systemd/system', unit.includes('.') ? unit : `${unit}.service`)
      rmSync(file, { force: true })
      symlinkSync('/dev/null', file)
    }
    write(
      '/etc/systemd/system/its-address.service',
      `[Unit]
DefaultDependencies=no
Before=network-pre.target network.target
[Service]
Type=oneshot
ExecStart=ip address replace ${address}/24 dev host0
ExecStart=ip link set host0 up
[Install]
WantedBy=sysinit.target
`,
    )
    symlinkSync(
      '/etc/systemd/system/its-address.service',
      join(root, 'etc/systemd/system/sysinit.target.wants/its-address.service'),
    )
    // its systemd takes the group it is started in for its own
    const groups = GROUPS.map((each) => join(each, `${network}-${name}`))
    const intoGroups = groups.map((each) => `mkdir -p ${each} && echo $$ > ${each}/cgroup.procs`).join(' && ')
    let nspawn: ChildProcess | null = null
    /** The first process there; what it is run by has no other child. */
    const leader = () => run('pgrep', ['-P', String(nspawn?.pid)]).trim()
    const there = (line: string, { folder: at = '/srv/hallway', input = '' } = {}) =>
      spawnSync(
        'nsenter',
        [
          ...['--all', '--target', leader(), 'env', '-i', `PATH=${PATH}`, 'HOME=/root', 'LANG=C.UTF-8'],
          ...['sh', '-c', `cd ${at} && ${line}`],
        ],
        { encoding: 'utf8', input },
      )
    const isUp = (): string => {
      try {
        return there('systemctl is-system-running', { folder: '/' }).stdout
      } catch {
        // nothing runs there yet
        return ''
      }
    }
    const gone = async () => {
      const child = nspawn
      if (!child || child.exitCode !== null || child.signalCode !== null) return
      await new Promise((done) => child.once('exit', done))
    }
    const untilRuns = async (line: string, seconds = 90) => {
      for (let left = seconds; ; left -= 1) {
        const { status, stdout, stderr } = there(line)
        if (status === 0) return stdout
        if (left <= 0) throw new Error(`${name}: ${line} did not go through: ${stdout}${stderr}`)
        await wait(1000)
      }
    }
    return {
      name,
      address,
      write,
      run(line, given) {
        const { status, stdout, stderr } = there(line, given)
        if (status !== 0)
          throw new Error(
            `${name}: ${line} answered ${status}: ${stdout}${stderr}\n${there('journalctl --no-pager -n 30').stdout}`,
          )
        return stdout + stderr
      },
      untilRuns,
      async powerOff() {
        if (isUp() !== '') there('systemctl poweroff')
        await gone()
      },
      async cut() {
        run('kill', ['-KILL', leader()])
        await gone()
      },
      cable(how) {
        inNetwork(['link', 'set', `vb-${name}`, how === 'out' ? 'down' : 'up'])
      },
      async boot() {
        const log = join(own, 'console')
        const child = spawn(
          'sh',
          [
            ...['-c', `${intoGroups} && exec "$@"`, 'sh'],
            ...['nsenter', `--net=/run/netns/${network}`, 'systemd-nspawn', `--directory=${root}`, `--machine=${name}`],
            ...['--boot', '--network-bridge=lines', '--register=no', '--keep-unit', '--console=pipe', '--quiet'],
            '--link-journal=no',
          ],
          { stdio: ['ignore', 'pipe', 'pipe'] },
        )
        nspawn = child
        for (const said of [child.stdout, child.stderr]) said?.on('data', (text) => appendFileSync(log, text))
        running.add(child)
        child.once('exit', () => running.delete(child))
        for (let left = 60; ; left -= 1) {
          await wait(1000)
          if (child.exitCode !== null) throw new Error(`${name} does not boot: ${readFileSync(log, 'utf8')}`)
          // one that waits for a node of the cluster is still on its way up
          if (/running|degraded|starting/.test(isUp())) return
          if (left <= 0) throw new Error(`${name} is not up: ${readFileSync(log, 'utf8')}`)
        }
      },
      end() {
        run('umount', ['--recursive', root])
        for (const each of groups) spawnSync('find', [each, '-depth', '-type', 'd', '-exec', 'rmdir', '{}', ';'])
      },
    }
  }

  const stop = async () => {
    for (const machine of machines) await machine.powerOff()
    for (const machine of machines) machine.end()
    run('umount', [folder])
    rmSync(folder, { recursive: true, force: true })
    run('ip', ['netns', 'delete', network])
  }
  try {
    for (const machine of machines) await machine.boot()
  } catch (error) {
    await stop()
    throw error
  }
  return { machines: machines as readonly Machine[], stop }
}
