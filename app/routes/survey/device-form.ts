import { z } from 'zod'
import type { LengthUnit } from '../../../core/quantity/length'
import { type Parsed, parsed } from '../../../core/quantity/parsed'
import { deviceFacts, deviceTicks, ticksOf, withFact, withTicks } from '../../../core/survey/device-facts'
import { keptPorts, type LineFault, parsePortLines } from '../../../core/survey/port-line'
import { DEVICE_KINDS, type Device, type Port } from '../../../core/vocabulary/device'
import { nameField } from '../../../core/vocabulary/fields'

/** Ports of one device at most, as the plan has it. */
const MOST_PORTS = 64
/** So many characters are looked at: thousands of lines more than any device has. */
const LONGEST_PORTS = 200_000

const deviceForm = z.object({
  name: z.string({ error: 'Give the device a name.' }).pipe(nameField),
  kind: z.enum(DEVICE_KINDS, { error: 'Choose what it is.' }),
  place: z.string().max(64).optional(),
  note: z.string().max(2000, { error: 'A note has at most 2000 characters.' }).optional(),
})

/** What keeps a device from being read: a sentence, or lines of ports that are not understood. */
export type DeviceFault = { problem: string; lines: readonly LineFault[] }

/** The device that a form describes, without its id; what the form does not show stays as it was. */
export function readDevice(
  form: FormData,
  before: Device | Omit<Device, 'id'> | null,
  unit: LengthUnit,
): Parsed<Omit<Device, 'id'>> | ({ ok: false } & DeviceFault) {
  const filled = Object.fromEntries([...form].filter(([, value]) => value !== ''))
  const read = deviceForm.safeParse(filled)
  if (!read.success) return { ok: false, problem: read.error.issues[0]?.message ?? 'This cannot be read.', lines: [] }
  const said = String(form.get('ports') ?? '')
  if (said.length > LONGEST_PORTS)
    return {
      ok: false,
      problem: `A device has at most ${MOST_PORTS} ports; this is the text of something else.`,
      lines: [],
    }
  const { ports, faults } = parsePortLines(said)
  if (faults.length > 0)
    return { ok: false, problem: 'Some lines of ports are not understood; nothing was saved.', lines: faults }
  if (ports.length > MOST_PORTS)
    return { ok: false, problem: `A device has at most ${MOST_PORTS} ports; these are ${ports.length}.`, lines: [] }
  const { name, kind, place, note } = read.data
  const { place: _, note: __, ...rest } = before ?? { ports: [] as Port[], busPowered: false }
  const kept = keptPorts(ports, before?.ports ?? [])
  const ticks = ticksOf({ busPowered: false, ...before })
  for (const { name: tick } of deviceTicks) if (form.has(`asks-${tick}`)) ticks[tick] = form.get(tick) === 'on'
  let made: Omit<Device, 'id'> = withTicks(
    { ...rest, name, kind, ports: kept, ...(place ? { place } : {}), ...(note ? { note } : {}) },
    ticks,
  )
  // what the form does not show of this kind of device stays as it was
  for (const fact of deviceFacts) {
    if (!form.has(fact.field)) continue
    const said = withFact(made, fact, String(form.get(fact.field) ?? ''), { unit, ports: kept })
    if (!said.ok) return { ok: false, problem: said.problem, lines: [] }
    made = said.value
  }
  return parsed(made)
}
