import { execFileSync } from 'node:child_process'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { commandsOf, RUN_ELSEWHERE } from '../support/commands-of'
import { PASSWORD } from '../support/hallway-process'
import { type Machine, startMachines } from '../support/machines'

// Not for every day, as it boots machines: `npm run endure:machines`, as root. docs/running.md, done word for word.

const manual = commandsOf('docs/running.md')
const done = new Set<string>()

/** A command as the manual has it, found by how it begins, with what is one's own filled in. */
function told(begins: string, own: Readonly<Record<string, string>> = {}): string {
  const found = manual.find((each) => each.startsWith(begins))
  if (!found) throw new Error(`the manual has no ${begins}`)
  done.add(found)
  return Object.entries(own).reduce((line, [word, is]) => line.replaceAll(word, is), found)
}

const code = execFileSync('git', ['ls-files', '--cached', '--others', '--exclude-standard'], { encoding: 'utf8' })
  .trim()
  .split('\n')
let all: Awaited<ReturnType<typeof startMachines>>
let one: Machine
let two: Machine
let three: Machine
beforeAll(async () => {
  all = await startMachines(['one', 'two', 'three'], [...code, 'build', 'node_modules'])
  const [first, second, third] = all.machines
  if (!first || !second || !third) throw new Error('three machines were asked for')
  one = first
  two = second
  three = third
}, 300_000)
afterAll(() => all?.stop(), 120_000)

const LONG = { timeout: 400_000 }
const BACKUPS = '/var/backups/hallway'
const healthy = (machine: Machine, address = '127.0.0.1:4310') =>
  machine.untilRuns(`curl -sf -H 'Host: localhost' http://${address}/health`)
const newest = (machine: Machine): string =>
  `${BACKUPS}/${machine
    .run(`ls ${BACKUPS}`)
    .trim()
    .split('\n')
    .filter((name) => name.endsWith('.gz'))
    .at(-1)}`

/** A service, as the manual has it. */
function installService(machine: Machine): void {
  machine.run(told('./hallway build'))
  machine.run(told('adduser'))
  machine.run(told('cp deploy/hallway.service'))
}

describe('one machine', () => {
  it(
    'has a service that starts, belongs to root but for what it keeps, and asks whoever comes to sign in',
    LONG,
    async () => {
      installService(one)
      one.run(told('systemctl enable --now hallway'))
      await healthy(one)
      expect(one.run('stat -c %U /srv/hallway /srv/hallway/build /var/lib/hallway').trim().split('\n')).toEqual([
        'root',
        'root',
        'hallway',
      ])
      expect(one.run('systemd-analyze security hallway --no-pager | tail -1')).toMatch(/: [0-4]\.\d OK/)
      expect(one.run(told('deploy/as-hallway people add'))).toContain('/welcome/')
      const signIn = one.run("curl -s -o /dev/null -w '%{http_code} %{redirect_url}' http://127.0.0.1:4310/")
      expect(signIn).toMatch(/^302 .*\/sign-in/)
      one.write('/etc/hallway.env', 'HALLWAY_URL=https://hallway.example\nHALLWAY_PORT=4311\n')
      one.run('chmod 600 /etc/hallway.env')
      one.run(told('systemctl restart hallway'))
      await healthy(one, '127.0.0.1:4311')
      const named = "curl -s -o /dev/null -w '%{http_code}' -H 'Host: HOST' http://127.0.0.1:4311/sign-in"
      expect(one.run(named.replace('HOST', 'hallway.example'))).toBe('200')
      expect(one.run(named.replace('HOST', 'elsewhere.example'))).not.toBe('200')
    },
  )
  it('comes up by itself when it is switched on, and after its plug was pulled', LONG, async () => {
    await one.powerOff()
    await one.boot()
    await healthy(one, '127.0.0.1:4311')
    await one.cut()
    await one.boot()
    await healthy(one, '127.0.0.1:4311')
    expect(one.run('deploy/as-hallway people list')).toContain('Ada Wren')
  })
  it('has a backup every night, and a way back after a loss', LONG, async () => {
    one.run(told('cp deploy/hallway-backup.'))
    one.run(told('systemctl enable --now hallway-backup.timer'))
    expect(one.run('systemctl list-timers --no-pager')).toMatch(/03:15:00.*hallway-backup\.timer/)
    one.run(told('systemctl start hallway-backup'))
    expect(one.run(`stat -c '%U %a' ${BACKUPS} ${newest(one)}`)).toBe('hallway 700\nhallway 600\n')
    one.run(told('systemctl stop hallway'))
    one.run(told('mv /var/lib/hallway/database'))
    one.run(told('deploy/as-hallway restore', { FILE: newest(one) }))
    one.run(told('systemctl start hallway'))
    await healthy(one, '127.0.0.1:4311')
    expect(one.run('deploy/as-hallway people list')).toContain('Ada Wren')
  })
  it('takes new code', LONG, async () => {
    one.run(told('systemctl start hallway-backup'))
    one.run(told('systemctl stop hallway'))
    one.run('touch core/vocabulary/cable.ts')
    expect(one.run(told('./hallway build'))).toContain('Building the application')
    one.run(told('systemctl start hallway'))
    await healthy(one, '127.0.0.1:4311')
  })
})

describe('several machines', () => {
  const SECRET = 'between-the-two-of-us'
  const jar = '/root/cookies'
  /** Asks the balancer as a browser would, by its name and over TLS. */
  const ask = (words: string) =>
    `curl -sSf --max-time 15 --cacert /etc/haproxy/hallway.crt --resolve hallway.example:443:${three.address} -b ${jar} -c ${jar} ${words}`
  const size = (machine: Machine) => machine.run(`mariadb -NBe "SHOW STATUS LIKE 'wsrep_cluster_size'"`).trim()

  it('have a database on three, which take in what one machine had', LONG, async () => {
    one.run(told('deploy/as-hallway backup', { FILE: '/var/lib/hallway/moving.gz' }))
    one.run(told('systemctl stop hallway'))
    const addresses = all.machines.map(({ address }) => address).join(',')
    for (const machine of all.machines) {
      machine.run(told('apt-get install mariadb-server'), { input: 'y\n' })
      machine.run(told('systemctl stop mariadb'))
      machine.run(told('cp deploy/galera.cnf'))
      const file = '/etc/mysql/mariadb.conf.d/60-hallway.cnf'
      machine.run(
        `sed -i -e 's|^# wsrep-cluster-address.*|wsrep-cluster-address = gcomm://${addresses}|' -e 's|^# wsrep-node-address.*|wsrep-node-address = ${machine.address}|' -e 's|^# wsrep-node-name.*|wsrep-node-name = ${machine.name}|' ${file}`,
      )
    }
    one.run(told('galera_new_cluster'))
    for (const machine of [two, three]) machine.run(told('systemctl start mariadb'))
    expect(size(three)).toMatch(/3$/)
    const statements = [told('CREATE DATABASE'), told('CREATE USER', { '…': SECRET }), told('GRANT')]
    one.run('mariadb', { input: statements.map((each) => `${each};`).join('\n') })
    installService(two)
    for (const machine of [one, two])
      machine.write(
        '/etc/hallway.env',
        `HALLWAY_URL=https://hallway.example\nHALLWAY_HOST=${machine.address}\n${told('HALLWAY_DATABASE_URL=', { '…': SECRET })}\n`,
      )
    expect(one.run(told('deploy/as-hallway restore', { FILE: '/var/lib/hallway/moving.gz' }))).toBeDefined()
    for (const machine of [one, two]) {
      machine.run(told('systemctl enable --now hallway'))
      await healthy(machine, `${machine.address}:4310`)
    }
  })
  it('are reached by one name, whichever of them answers', LONG, async () => {
    three.run(told('apt-get install haproxy'), { input: 'y\n' })
    three.run(told('cp deploy/haproxy.cfg'))
    three.run(
      `openssl req -x509 -newkey rsa:2048 -nodes -days 2 -subj /CN=hallway.example -addext subjectAltName=DNS:hallway.example -keyout hallway.key -out hallway.crt && cat hallway.crt hallway.key > hallway.pem`,
      { folder: '/etc/haproxy' },
    )
    three.run(
      `sed -i 's|^  bind "\${HALLWAY_BALANCER.*|  bind :443 ssl crt /etc/haproxy/hallway.pem|' /etc/haproxy/haproxy.cfg`,
    )
    three.write('/etc/default/haproxy', `HALLWAY_WEB_ONE=${one.address}:4310\nHALLWAY_WEB_TWO=${two.address}:4310\n`)
    three.run(told('systemctl restart haproxy'))
    await three.untilRuns(ask('https://hallway.example/sign-in'))
    two.run('deploy/as-hallway people add "Ben Ruff" --admin --password-stdin', { input: PASSWORD })
    three.run(
      ask(
        `-o /dev/null --data-urlencode 'name=Ben Ruff' --data-urlencode 'password=${PASSWORD}' -d to=/ https://hallway.example/sign-in`,
      ),
    )
    expect(three.run(account())).toContain('Ben Ruff')
  })
  const account = () => ask('https://hallway.example/account')
  it('keep going while one of them is down', LONG, async () => {
    for (const machine of [one, two]) {
      await machine.cut()
      expect(await three.untilRuns(account())).toContain('Ben Ruff')
      await machine.boot()
      await healthy(machine, `${machine.address}:4310`)
      expect(size(machine)).toMatch(/3$/)
    }
  })
  it('say so in words where one of them is cut off from the others', LONG, async () => {
    const kept = three.run(`cat ${jar}`).split('\n')
    const cookies = kept
      .flatMap((line) => (line.includes('\t') ? [line.split('\t').slice(5).join('=')] : []))
      .join('; ')
    const there = `-H 'Host: hallway.example' -H 'Cookie: ${cookies}' http://${one.address}:4310/account`
    expect(one.run(`curl -s ${there}`)).toContain('Ben Ruff')
    one.cable('out')
    expect(await three.untilRuns(account())).toContain('Ben Ruff')
    const said = `curl -s -w '%{http_code}' ${there} | tr -d '\\n'`
    await one.untilRuns(`${said} | grep -q 'The database does not answer.*503$'`)
    one.cable('in')
    await healthy(one, `${one.address}:4310`)
    expect(size(one)).toMatch(/3$/)
  })
  it('find each other after a loss of power, and are begun anew after being switched off', LONG, async () => {
    const allAnswer = async () => {
      for (const machine of [one, two]) await healthy(machine, `${machine.address}:4310`)
      expect(size(three)).toMatch(/3$/)
      expect(await three.untilRuns(account())).toContain('Ben Ruff')
    }
    await Promise.all(all.machines.map((machine) => machine.cut()))
    await Promise.all(all.machines.map((machine) => machine.boot()))
    await allAnswer()
    for (const machine of [one, two, three]) await machine.powerOff()
    for (const machine of [three, two, one]) await machine.boot()
    for (const machine of all.machines) machine.run(told('systemctl stop mariadb'))
    const safe = told('safe_to_bootstrap')
    const last = all.machines.filter((machine) => machine.run('cat /var/lib/mysql/grastate.dat').includes(safe))
    expect(last.map(({ name }) => name)).toEqual(['three'])
    three.run(told('galera_new_cluster'))
    for (const machine of [one, two]) machine.run(told('systemctl start mariadb'))
    await allAnswer()
  })
})

it('has done all that the manual tells to do', () => {
  const left = manual.filter((each) => !done.has(each))
  expect(left.filter((each) => !RUN_ELSEWHERE.some((begins) => each.startsWith(begins)))).toEqual([])
})
