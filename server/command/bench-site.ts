import { emptyPlan, type Plan } from '../../core/plan/plan'
import type { CableGrade, Construction } from '../../core/standards/grades'
import type { Cable } from '../../core/vocabulary/cable'
import type { Device, Port } from '../../core/vocabulary/device'
import type { Need } from '../../core/vocabulary/need'
import type { Run } from '../../core/vocabulary/run'

/** A made-up site of any size, the same every time: docks with what hangs on them, disks, cameras, displays and a drawer. */
export function benchSite(runs: number, cables: number): Plan {
  const plan = emptyPlan({ id: 'bench', name: 'Bench site' })
  addDocks(plan, Math.min(10, Math.floor(runs / 4)))
  for (let at = 0; plan.runs.length < runs; at += 1) addPair(plan, at)
  addDrawer(plan, cables)
  chooseCables(plan)
  return plan
}

const port = (id: string, connector: Port['connector'], more: Partial<Port>): Port => ({
  id,
  name: id,
  connector,
  gender: 'socket',
  role: 'either',
  ...more,
})
const dp = (direction: 'out' | 'in', link: 'hbr2' | 'hbr3' = 'hbr3') => ({
  displayport: { direction, link, lanes: 4 as const, compression: false },
})
const device = (id: string, kind: Device['kind'], ...ports: Port[]): Device => ({
  id,
  name: id,
  kind,
  busPowered: false,
  ports,
})

function lay(plan: Plan, from: string, to: string, length: number): void {
  const [fromDevice = '', fromPort = ''] = from.split('/')
  const [toDevice = '', toPort = ''] = to.split('/')
  const id = String(plan.runs.length).padStart(5, '0')
  const run: Run = {
    id: `r${id}`,
    tag: `R-${id}`,
    from: { device: fromDevice, port: fromPort },
    to: { device: toDevice, port: toPort },
    leads: [],
    route: { length },
  }
  plan.runs.push(run)
}

function ask(plan: Plan, need: Need extends infer N ? (N extends Need ? Omit<N, 'id'> : never) : never): void {
  plan.needs.push({ ...need, id: `n${String(plan.needs.length).padStart(5, '0')}` } as Need)
}

function addDocks(plan: Plan, count: number): void {
  for (let at = 0; at < count; at += 1) {
    const laptop = `laptop${at}`
    const dock = `dock${at}`
    plan.devices.push(
      device(laptop, 'computer', port('c', 'type-c', { usb: 'gen2x1', thunderbolt: 4, takes: 96, ...dp('out') })),
      device(
        dock,
        'dock',
        port('up', 'type-c', { role: 'device', usb: 'gen2x1', thunderbolt: 4, gives: 96 }),
        port('dp', 'displayport', dp('out')),
        port('c', 'type-c', { role: 'host', usb: 'gen2x1', gives: 15 }),
      ),
      device(`screen${at}`, 'display', port('dp', 'displayport', dp('in'))),
      device(`stick${at}`, 'storage', port('c', 'type-c', { role: 'device', usb: 'gen2x1' })),
    )
    lay(plan, `${laptop}/c`, `${dock}/up`, 0.7)
    lay(plan, `${dock}/dp`, `screen${at}/dp`, 1.4)
    lay(plan, `${dock}/c`, `stick${at}/c`, 0.4)
    ask(plan, {
      kind: 'picture',
      from: laptop,
      to: `screen${at}`,
      mode: { width: 3840, height: 2160, refresh: 60, bits: 8, chroma: '444' },
    })
    ask(plan, { kind: 'storage', from: laptop, to: `stick${at}`, rate: 6.4e9 })
    ask(plan, { kind: 'power', from: dock, to: laptop, watts: 96 })
  }
}

/** One host and one device of five sorts, on routes of many lengths. */
function addPair(plan: Plan, at: number): void {
  const host = `host${at}`
  const end = `end${at}`
  const length = 0.3 + ((at * 37) % 97) / 20
  const both = (near: Port, far: Port, kind: Device['kind']): void => {
    plan.devices.push(device(host, 'computer', near), device(end, kind, far))
    lay(plan, `${host}/p`, `${end}/p`, length)
  }
  switch (at % 5) {
    case 0:
      both(
        port('p', 'type-c', { role: 'host', usb: 'gen2x1', gives: 15 }),
        port('p', 'type-c', { role: 'device', usb: 'gen2x1' }),
        'camera',
      )
      ask(plan, { kind: 'camera', from: end, to: host, rate: 4e9, watts: 4.5 })
      break
    case 1:
      both(port('p', 'displayport', dp('out')), port('p', 'displayport', dp('in')), 'display')
      ask(plan, {
        kind: 'picture',
        from: host,
        to: end,
        mode: { width: 2560, height: 1440, refresh: 120, bits: 8, chroma: '444' },
      })
      break
    case 2:
      both(
        port('p', 'type-c', { role: 'host', usb: 'gen2x1', thunderbolt: 4, gives: 15 }),
        port('p', 'type-c', { role: 'device', thunderbolt: 3 }),
        'storage',
      )
      ask(plan, { kind: 'storage', from: host, to: end, rate: 20e9 })
      break
    case 3:
      both(
        port('p', 'type-a', { role: 'host', usb: 'gen1x1' }),
        port('p', 'type-b', { role: 'device', usb: 'gen1x1' }),
        'other',
      )
      ask(plan, { kind: 'data', from: host, to: end, rate: 5e9 })
      break
    default:
      both(
        port('p', 'type-c', { role: 'host', gives: 100 }),
        port('p', 'type-c', { role: 'either', usb: 'gen2x1', takes: 96 }),
        'computer',
      )
      ask(plan, { kind: 'power', from: host, to: end, watts: 96 })
  }
}

const SORTS: [CableGrade, Construction, Port['connector'], Port['connector'], 0 | 3 | 5][] = [
  ['usb2', 'passive', 'type-c', 'type-c', 3],
  ['gen1', 'passive', 'type-c', 'type-c', 3],
  ['gen2', 'passive', 'type-c', 'type-c', 3],
  ['gen2', 'active', 'type-c', 'type-c', 3],
  ['usb4-20', 'passive', 'type-c', 'type-c', 5],
  ['usb4-40', 'passive', 'type-c', 'type-c', 5],
  ['usb4-40', 'active', 'type-c', 'type-c', 5],
  ['thunderbolt3', 'passive', 'type-c', 'type-c', 5],
  ['thunderbolt3', 'active', 'type-c', 'type-c', 5],
  ['charge-only', 'passive', 'type-c', 'type-c', 3],
  ['dp-hbr2', 'passive', 'displayport', 'displayport', 0],
  ['dp-hbr3', 'passive', 'displayport', 'displayport', 0],
  ['usb2', 'passive', 'type-a', 'type-b', 3],
  ['gen1', 'passive', 'type-a', 'type-b', 3],
]

function addDrawer(plan: Plan, count: number): void {
  for (let at = 0; at < count; at += 1) {
    const [grade, construction, one, other, amps] = SORTS[at % SORTS.length] as (typeof SORTS)[number]
    const id = String(at).padStart(5, '0')
    plan.cables.push({
      id: `c${id}`,
      tag: `C-${id}`,
      ends: [
        { connector: one, gender: 'plug' },
        { connector: other, gender: 'plug' },
      ],
      oneWay: false,
      length: 0.3 + ((at * 53) % 101) / 20,
      construction,
      feed: 'bus',
      standing: 'drawer',
    })
    observe(plan, `c${id}`, at, grade, amps)
  }
}

/** What was seen of each cable: its mark, and four looks at it. */
function observe(plan: Plan, cable: string, number: number, grade: CableGrade, amps: 0 | 3 | 5): void {
  const at = (minute: number) => new Date(Date.UTC(2026, 0, 1 + (number % 28), 9, minute)).toISOString()
  const every = { subject: { cable }, by: 'Bench' }
  plan.observations.push(
    { ...every, id: `${cable}.o1`, at: at(0), kind: 'statement', basis: 'claimed', grade, amps },
    { ...every, id: `${cable}.o2`, at: at(5), kind: 'reading', measure: 'write', rate: 2.4e9, limit: 'disk' },
    { ...every, id: `${cable}.o3`, at: at(6), kind: 'reading', measure: 'read', rate: 2.6e9 },
    { ...every, id: `${cable}.o4`, at: at(7), kind: 'reading', measure: 'warmth', felt: 'cool' },
    {
      ...every,
      id: `${cable}.o5`,
      at: at(9),
      kind: 'trial',
      basis: 'soaked',
      tried: 'usb2',
      cameUp: 'usb2',
      seconds: 60,
      where: { controller: `board ${number % 3}` },
    },
  )
}

/** Gives each run the next free cable that plugs into both its ports. */
function chooseCables(plan: Plan): void {
  const connectors = new Map(
    plan.devices.flatMap((each) => each.ports.map((own) => [`${each.id}/${own.id}`, own.connector] as const)),
  )
  const drawers = new Map<string, Cable[]>()
  for (const cable of plan.cables) {
    const key = cable.ends.map((end) => end.connector).join()
    drawers.set(key, [...(drawers.get(key) ?? []), cable])
  }
  for (const run of plan.runs) {
    const key = [run.from, run.to].map((end) => connectors.get(`${end.device}/${end.port}`)).join()
    const cable = drawers.get(key)?.shift()
    if (cable) run.leads = [{ cable: cable.id, reversed: false }]
  }
}
