import { useCallback, useMemo } from 'react'
import { portKey, type SiteIndex } from '../../core/plan/site-index'
import { connectorNames } from '../../core/standards/connectors'
import type { Device, Port } from '../../core/vocabulary/device'
import { ChoiceField, type Option, type OptionGroup } from './choice'
import type { Known } from './field'
import { useSite } from './site-context'

type Props = { field: Known; label: string; required?: boolean; none?: string }

/** Every port, under its place and device, with what its socket is. */
export function PortField({ field, label, required, none = 'Choose a port' }: Props) {
  const { index } = useSite()
  const { plan } = index
  const count = useMemo(() => plan.devices.reduce((sum, { ports }) => sum + ports.length, 0), [plan.devices])
  const groups = useCallback(() => portGroups(index), [index])
  return (
    <ChoiceField
      field={field}
      label={label}
      required={required}
      none={none}
      count={count}
      groups={groups}
      one={(value) => {
        const [device = '', port = ''] = value.split('/')
        const found = index.devices.get(device)
        const own = found?.ports.find(({ id }) => id === port)
        return found && own ? portOption(index, found, own) : null
      }}
    />
  )
}

/** Devices in the order of their places; those that stand nowhere yet come last. */
function portGroups(index: SiteIndex): OptionGroup[] {
  const { plan, places } = index
  const order = new Map(plan.places.map(({ id }, at) => [id, at]))
  const placeOf = ({ place }: Device): number => (place === undefined ? order.size : (order.get(place) ?? order.size))
  return [...plan.devices]
    .sort((one, other) => placeOf(one) - placeOf(other))
    .map((device) => ({
      label: [device.place && places.get(device.place)?.name, device.name].filter(Boolean).join(' · '),
      options: device.ports.map((port) => portOption(index, device, port)),
    }))
}

/** A port with what its socket is, and which run has it already. */
function portOption({ runsIn }: SiteIndex, device: Device, port: Port): Option {
  const address = { device: device.id, port: port.id }
  const taken = (runsIn.get(portKey(address)) ?? []).map(({ tag }) => tag).join(', ')
  return {
    value: portKey(address),
    words: `${device.name}: ${port.name} (${connectorNames[port.connector]}${abilities(port)})${taken && `, has ${taken}`}`,
  }
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
