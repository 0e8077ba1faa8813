import { knownOf } from '../../../core/link/lay'
import type { Port } from '../../../core/plan/device'
import type { Plan } from '../../../core/plan/plan'
import type { Run } from '../../../core/plan/run'
import { formatLength } from '../../../core/quantity/length'
import { connectorNames } from '../../../core/standards/connectors'
import { gradeFacts } from '../../../core/standards/grades'
import { FEW_OPTIONS, ManyOptions } from '../../ui/many-options'
import { useSite } from '../../ui/site-context'
import { useUnit } from '../../ui/units'

/** Every port, under its device, with what its socket is. */
export function PortOptions({ plan, chosen }: { plan: Plan; chosen: string }) {
  const options = (devices: Plan['devices']) => (
    <>
      <option value="">Choose a port</option>
      {devices.map((device) => (
        <optgroup key={device.id} label={device.name}>
          {device.ports.map((port) => (
            <option key={port.id} value={`${device.id}/${port.id}`}>
              {device.name}: {port.name} ({connectorNames[port.connector]}
              {abilities(port)})
            </option>
          ))}
        </optgroup>
      ))}
    </>
  )
  if (plan.devices.length <= FEW_OPTIONS) return options(plan.devices)
  return (
    <ManyOptions chosen={options(plan.devices.filter(({ id }) => chosen.startsWith(`${id}/`)))}>
      {() => options(plan.devices)}
    </ManyOptions>
  )
}

const usbNames: Record<NonNullable<Port['usb']>, string> = {
  usb2: 'USB 2.0',
  gen1x1: '5 Gb/s',
  gen2x1: '10 Gb/s',
  gen2x2: '20 Gb/s',
}

function abilities(port: Port): string {
  const words = [
    port.thunderbolt ? `Thunderbolt ${port.thunderbolt}` : '',
    port.usb4 && !port.thunderbolt ? `USB4 ${port.usb4}` : '',
    port.usb && !port.thunderbolt && !port.usb4 ? usbNames[port.usb] : '',
    port.displayport && port.connector === 'type-c' ? 'picture' : '',
    port.gives && port.gives > 15 ? `${port.gives} W` : '',
  ].filter(Boolean)
  return words.length > 0 ? `, ${words.join(', ')}` : ''
}

/** Every cable that may be chosen: those in the drawer first, then those laid elsewhere; the retired are left out. */
export function LeadOptions({ plan, run, chosen }: { plan: Plan; run: Run | null; chosen: string }) {
  if (plan.cables.length <= FEW_OPTIONS) return <LeadsAmong plan={plan} run={run} cables={plan.cables} />
  return (
    <ManyOptions
      chosen={<LeadsAmong plan={plan} run={run} cables={plan.cables.filter((cable) => cable.id === chosen)} />}
    >
      {() => <LeadsAmong plan={plan} run={run} cables={plan.cables} />}
    </ManyOptions>
  )
}

function LeadsAmong({ plan, run, cables }: { plan: Plan; run: Run | null; cables: Plan['cables'] }) {
  const unit = useUnit()
  const { index } = useSite()
  const laid = new Map(
    plan.runs
      .filter((other) => other.id !== run?.id)
      .flatMap((other) => other.leads.map((lead) => [lead.cable, other.tag])),
  )
  const usable = cables.filter(
    (cable) => cable.standing !== 'retired' || run?.leads.some((lead) => lead.cable === cable.id),
  )
  const option = (cable: Plan['cables'][number]) => {
    const grade = knownOf(index, cable).grade.value
    const ends = cable.ends
      .map((end) => connectorNames[end.connector] + (end.gender === 'socket' ? ' socket' : ''))
      .join(' to ')
    const place = laid.get(cable.id)
    return (
      <option key={cable.id} value={cable.id}>
        {cable.tag}: {ends}, {formatLength(cable.length, unit)}, {grade ? gradeFacts[grade].name : 'unknown'}{' '}
        {cable.construction}
        {place ? ` (lies in ${place})` : cable.standing === 'drawer' ? '' : ` (${cable.standing})`}
      </option>
    )
  }
  return (
    <>
      <option value="">No cable yet</option>
      <optgroup label="In the drawer">{usable.filter((cable) => !laid.has(cable.id)).map(option)}</optgroup>
      <optgroup label="Laid in other runs">{usable.filter((cable) => laid.has(cable.id)).map(option)}</optgroup>
    </>
  )
}
