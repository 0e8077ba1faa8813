import { entityLists } from '../plan/entity'
import { freeIds, slugOf } from '../plan/free-id'
import { byId, planLookup } from '../plan/lookup'
import type { Place, Plan } from '../plan/plan'
import { put } from '../plan/put'
import { faultsOfEntity } from '../plan/read'
import { type LengthUnit, parseLength, parseOffset, sameLength } from '../quantity/length'
import { type Parsed, parsed, unreadable } from '../quantity/parsed'
import { legsText, parseRoute } from '../route/legs'
import { DEVICE_KINDS, type Device } from '../vocabulary/device'
import { foldTag } from '../vocabulary/fields'
import { type Floor, toMillimetre } from '../vocabulary/floor'
import { laidCables, type PortAddress, type Run, type RunLead, withLength } from '../vocabulary/run'
import { deviceFacts, withFact } from './device-facts'
import { mainsText, readMains } from './mains-text'
import { needs } from './needs-table'
import { offsetText } from './points-text'
import { keptPorts, parsePortLine, portLine } from './port-line'
import { called, found, known, type Made, type Row, type Table, withText, yesNo } from './table-row'

/** What of a survey goes in and out as tables. */
export const SURVEY_TABLES = ['places', 'devices', 'ports', 'runs', 'needs'] as const
export type SurveyTable = (typeof SURVEY_TABLES)[number]

const places: Table = {
  columns: ['name', 'mains', 'outlet', 'floor', 'right', 'down', 'height', 'note'],
  needed: ['name'],
  rows: (plan) =>
    plan.places.map(({ id, mains, outlet, at, height, note }) => [
      called(plan.places, id),
      mainsText(mains),
      outlet === undefined ? '' : `${outlet} m`,
      at ? called(plan.floors, at.floor) : '',
      at ? offsetText(at.x, 'ft') : '',
      at ? offsetText(at.y, 'ft') : '',
      height === undefined ? '' : offsetText(height, 'ft'),
      note ?? '',
    ]),
  read(row, { plan, unit, idOf }) {
    const was = known(plan.places, row('name'))
    if (!was.ok) return was
    let place: Place = was.value ?? { id: idOf('places', row('name')), name: row('name'), mains: true }
    if (row('mains') !== '') {
      const mains = readMains(row('mains'))
      if (mains === null) return unreadable('mains: write yes, no or not known')
      place = { ...place, mains }
    }
    if (row('outlet') !== '') {
      const outlet = parseLength(row('outlet'), unit)
      if (!outlet.ok) return unreadable(`outlet: ${outlet.problem}`)
      place = { ...place, outlet: outlet.value }
    }
    if (row('floor') !== '') {
      const floor = found<Floor>(plan.floors, row('floor'), 'floor')
      if (!floor.ok) return floor
      const [x, y] = [parseOffset(row('right'), unit), parseOffset(row('down'), unit)]
      if (!x.ok) return unreadable(`right: ${x.problem}`)
      if (!y.ok) return unreadable(`down: ${y.problem}`)
      place = { ...place, at: { floor: floor.value.id, x: toMillimetre(x.value), y: toMillimetre(y.value) } }
    }
    if (row('height') !== '') {
      const height = parseOffset(row('height'), unit)
      if (!height.ok) return unreadable(`height: ${height.problem}`)
      place = { ...place, height: toMillimetre(height.value) }
    }
    return parsed(put(plan, 'places', row('note') === '' ? place : { ...place, note: row('note') }))
  },
}

/** The columns of what can be said of a device. */
const factColumns: Readonly<Record<(typeof deviceFacts)[number]['field'], string>> = {
  disk: 'drive',
  battery: 'battery',
  decoder: 'decoder',
  pool: 'shares',
  keeps: 'keeps',
  pictureOverUsb: 'picture over usb',
  rated: 'rated',
  controllers: 'controllers',
  noise: 'noise',
  installed: 'installed',
}

const devices: Table = {
  columns: [
    'name',
    'kind',
    'place',
    'hub without a supply',
    'drivers',
    'note',
    ...deviceFacts.map(({ field }) => factColumns[field]),
  ],
  needed: ['name', 'kind'],
  rows: (plan) =>
    plan.devices.map((device) => [
      called(plan.devices, device.id),
      device.kind,
      device.place === undefined ? '' : called(plan.places, device.place),
      device.busPowered ? 'yes' : '',
      device.drivers ?? '',
      device.note ?? '',
      ...deviceFacts.map((fact) => fact.say(device, { unit: 'm', ports: device.ports }).replaceAll('\n', '; ')),
    ]),
  read(row, { plan, unit, idOf }) {
    const was = known(plan.devices, row('name'))
    if (!was.ok) return was
    const kind = DEVICE_KINDS.find((each) => each === row('kind').toLowerCase())
    if (!kind) return unreadable(`kind: one of ${DEVICE_KINDS.join(', ')}`)
    let device: Device = {
      ...(was.value ?? { id: idOf('devices', row('name')), name: row('name'), busPowered: false, ports: [] }),
      kind,
    }
    if (row('place') !== '') {
      const place = found(plan.places, row('place'), 'place')
      if (!place.ok) return place
      device = { ...device, place: place.value.id }
    }
    const alone = row('hub without a supply')
    if (alone !== '') {
      const busPowered = yesNo(alone)
      if (busPowered === null) return unreadable('hub without a supply: write yes or no')
      device = { ...device, busPowered }
    }
    const drivers = (['needs', 'takes none'] as const).find((each) => each === row('drivers').toLowerCase())
    if (row('drivers') !== '' && !drivers) return unreadable('drivers: write needs or takes none')
    if (drivers) device = { ...device, drivers }
    for (const fact of deviceFacts) {
      const text = row(factColumns[fact.field]).replaceAll('; ', '\n')
      if (text === '') continue
      const said = withFact(device, fact, text, { unit, ports: device.ports })
      if (!said.ok) return said
      device = said.value
    }
    return parsed(put(plan, 'devices', row('note') === '' ? device : { ...device, note: row('note') }))
  },
}

const ports: Table = {
  columns: ['device', 'port'],
  needed: ['device', 'port'],
  rows: (plan) =>
    plan.devices.flatMap((device) => device.ports.map((port) => [called(plan.devices, device.id), portLine(port)])),
  read(row, { plan }) {
    const device = found(plan.devices, row('device'), 'device')
    if (!device.ok) return device
    const said = parsePortLine(row('port'))
    if (!said.ok) return unreadable(`port: ${said.problem}`)
    const own = device.value.ports
    const names = new Set(said.value.map(({ name }) => name.toLowerCase()))
    // a port of that name is that port; any other is new behind them
    const kept = own.map(
      ({ id: _, ...port }) => said.value.find(({ name }) => name.toLowerCase() === port.name.toLowerCase()) ?? port,
    )
    const fresh = said.value.filter(({ name }) => !own.some((port) => port.name.toLowerCase() === name.toLowerCase()))
    if (names.size < said.value.length) return unreadable('port: two ports of one name')
    return parsed(put(plan, 'devices', { ...device.value, ports: keptPorts([...kept, ...fresh], own) }))
  },
}

const runs: Table = {
  columns: ['tag', 'from device', 'from port', 'to device', 'to port', 'length', 'cable', 'note'],
  needed: ['tag'],
  aliases: { run: 'tag', cables: 'cable', lead: 'cable', leads: 'cable' },
  rows: (plan) =>
    plan.runs.map((run) => [
      run.tag,
      ...[run.from, run.to].flatMap(({ device, port }) => [
        called(plan.devices, device),
        called(byId(plan.devices).get(device)?.ports ?? [], port),
      ]),
      run.route.legs && !run.route.follows ? legsText(run.route.legs, 'ft') : `${run.route.length} m`,
      laidCables(run)
        .map((id) => byId(plan.cables).get(id)?.tag ?? id)
        .join(' + '),
      run.note ?? '',
    ]),
  read(row, { plan, before, unit, idOf }) {
    const was = plan.runs.find(({ tag }) => foldTag(tag) === foldTag(row('tag')))
    const laid = before.runs.find(({ id }) => id === was?.id)?.leads ?? []
    const from = endOf(row, 'from', plan, was?.from)
    if (!from.ok) return from
    const to = endOf(row, 'to', plan, was?.to)
    if (!to.ok) return to
    if (row('length') === '' && !was) return unreadable('length: it is empty')
    const route = row('length') === '' ? null : parseRoute(row('length'), unit)
    if (route && !route.ok) return unreadable(`length: ${route.problem}`)
    const leads = leadsOf(row('cable'), plan, was, laid)
    if (!leads.ok) return leads
    const run: Run = {
      ...(was ?? { id: idOf('runs', row('tag')), tag: row('tag') }),
      from: from.value,
      to: to.value,
      leads: leads.value,
      route: routeOf(route?.value ?? null, was),
    }
    return parsed(put(plan, 'runs', row('note') === '' ? run : withText(run, 'note', row('note'))))
  },
}

/** An end of a run by its device and port; an empty cell leaves the one that is there. */
function endOf(row: Row, end: 'from' | 'to', plan: Plan, was: PortAddress | undefined): Parsed<PortAddress> {
  const [deviceText, portText] = [row(`${end} device`), row(`${end} port`)]
  if (was && deviceText === '' && portText === '') return parsed(was)
  if (deviceText === '' && !was) return unreadable(`${end} device: it is empty`)
  const device =
    deviceText === '' && was
      ? found(plan.devices, was.device, `${end} device`)
      : found(plan.devices, deviceText, `${end} device`)
  if (!device.ok) return device
  if (portText === '') return was?.device === device.value.id ? parsed(was) : unreadable(`${end} port: it is empty`)
  const port = found(device.value.ports, portText, `${end} port of ${device.value.name}`)
  return port.ok ? parsed({ device: device.value.id, port: port.value.id }) : port
}

/** The route that a row says; as it was where it says nothing, or the same. */
function routeOf(said: Pick<Run['route'], 'length' | 'legs'> | null, was: Run | undefined): Run['route'] {
  if (!said) return was?.route ?? { length: 1 }
  const same = was && sameLength(was.route.length, said.length) && (!said.legs || was.route.follows)
  if (same) return was.route
  return {
    ...withLength(was?.route ?? { length: 1 }, said.length),
    ...(said.legs ? { legs: said.legs } : {}),
  }
}

/** The leads of a run by their tags; an empty cell leaves what lies there, "none" takes it out. */
function leadsOf(text: string, plan: Plan, was: Run | undefined, laid: readonly RunLead[]): Parsed<RunLead[]> {
  if (text === '') return parsed(was?.leads ?? [])
  if (text.toLowerCase() === 'none') return parsed([])
  const leads: RunLead[] = []
  for (const tag of text.split('+').map((each) => each.trim())) {
    const cable = plan.cables.find((each) => foldTag(each.tag) === foldTag(tag))
    if (!cable) return unreadable(`cable: there is no cable "${tag.slice(0, 24)}" in the drawer`)
    const lay = laid.find((lead) => 'cable' in lead && lead.cable === cable.id)
    leads.push(lay ?? { cable: cable.id, reversed: false })
  }
  return parsed(leads)
}

export const surveyTables: Readonly<Record<SurveyTable, Table>> = { places, devices, ports, runs, needs }

/** A table of the site, its first row naming the columns; `readSurveyTable` reads it back to the same site. */
export const surveyRows = (plan: Plan, table: SurveyTable): string[][] => [
  [...surveyTables[table].columns],
  ...surveyTables[table].rows(plan),
]

export type BadSurveyRow = { line: number; problem: string; cells: readonly string[] }
export type SurveyRead = { plan: Plan; good: { line: number; cells: readonly string[] }[]; bad: BadSurveyRow[] }

/** The list of the plan that a table is of. */
export const listOfTable: Readonly<Record<SurveyTable, Made>> = {
  places: 'places',
  devices: 'devices',
  ports: 'devices',
  runs: 'runs',
  needs: 'needs',
}

/**
 * A plan with the rows of a table in it, one after the other; a row that cannot be read is left out and says why. A row that names what is there changes it,
 * any other is new. Refused where a column that is needed is missing.
 */
export function readSurveyTable(
  table: SurveyTable,
  headers: readonly string[],
  rows: readonly (readonly string[])[],
  plan: Plan,
  unit: LengthUnit,
): Parsed<SurveyRead> {
  const { columns, needed, aliases = {} } = surveyTables[table]
  const names = headers.map((header) => {
    const name = header.trim().toLowerCase().replaceAll('_', ' ')
    return aliases[name] ?? name
  })
  const missing = needed.filter((column) => !names.includes(column))
  if (missing.length > 0)
    return unreadable(
      `There is no column "${missing.join('", "')}". A table of ${table} has ${columns.join(', ')}; its first line names them.`,
    )
  const cellsOf =
    (cells: readonly string[]): Row =>
    (column) =>
      cells[names.indexOf(column)]?.trim() ?? ''
  const begun = table === 'runs' ? withLeadsOut(plan, rows.map(cellsOf)) : plan
  const swapped = begun === plan ? null : readRows(table, rows, cellsOf, begun, plan, unit)
  // where a row is wrong, what is laid stays where it is until a better row comes for it
  return parsed(swapped && swapped.bad.length === 0 ? swapped : readRows(table, rows, cellsOf, plan, plan, unit))
}

/** The plan with the leads out of all runs that a table lays others in, so that leads can change places. */
function withLeadsOut(plan: Plan, rows: readonly Row[]): Plan {
  const laid = new Set(rows.flatMap((row) => (row('cable') === '' ? [] : foldTag(row('tag')))))
  return plan.runs.reduce(
    (now, run) => (laid.has(foldTag(run.tag)) && run.leads.length > 0 ? put(now, 'runs', { ...run, leads: [] }) : now),
    plan,
  )
}

function readRows(
  table: SurveyTable,
  rows: readonly (readonly string[])[],
  cellsOf: (cells: readonly string[]) => Row,
  plan: Plan,
  before: Plan,
  unit: LengthUnit,
): SurveyRead {
  const { needed, read } = surveyTables[table]
  const list = listOfTable[table]
  const ids = {
    places: freeIds(plan.places.map(({ id }) => id)),
    devices: freeIds(plan.devices.map(({ id }) => id)),
    runs: freeIds(plan.runs.map(({ id }) => id)),
    needs: freeIds(plan.needs.map(({ id }) => id)),
  }
  const idOf = (of: Made, name: string): string => ids[of](slugOf(name, of.slice(0, -1)))
  const good: SurveyRead['good'] = []
  const bad: BadSurveyRow[] = []
  let made = plan
  for (const [at, cells] of rows.entries()) {
    const line = at + 2
    const row = cellsOf(cells)
    const empty = needed.find((column) => row(column) === '')
    const answer = empty ? unreadable(`${empty}: it is empty`) : read(row, { plan: made, before, unit, idOf })
    const problem = answer.ok ? faultOf(made, answer.value, list) : answer.problem
    if (answer.ok && problem === null) {
      made = answer.value
      good.push({ line, cells })
    } else bad.push({ line, cells, problem: problem ?? '' })
  }
  return { plan: made, good, bad }
}

/** What keeps the entity that a row made from being part of a plan; null where nothing does. */
function faultOf(before: Plan, after: Plan, list: Made): string | null {
  const was = new Set<unknown>(before[list])
  const entity = (after[list] as readonly { id: string }[]).find((each) => !was.has(each))
  if (!entity) return null
  const shaped = entityLists[list].schema.safeParse(entity)
  if (!shaped.success) {
    const [issue] = shaped.error.issues
    return `${issue?.path.join(' ') ?? ''}: ${issue?.message ?? 'not allowed'}`
  }
  if (after[list].length > entityLists[list].most) return `a site has at most ${entityLists[list].most} ${list}`
  for (const { path, reason } of faultsOfEntity(list, shaped.data as never, planLookup(after, 'either')))
    return `${path}: ${reason}`
  return null
}
