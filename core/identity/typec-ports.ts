import { filesFromText } from './class-folder'
import type { DeviceReading, ReadPort } from './reading-shape'

/** What a mode of a port is called by its number (USB-IF and VESA, as the kernel's own headers name them). */
const DISPLAYPORT_SVID = 'ff01'
const THUNDERBOLT_SVID = '8087'

/** The ports in the type-C class of a computer, as `grep -r . /sys/class/typec` prints it (kernel ABI document, class typec). */
export function readTypeCPorts(text: string, reading: DeviceReading): void {
  if (!text.includes('port')) return
  const ports = new Map<string, ReadPort>()
  for (const { path, text: value } of filesFromText(text)) {
    const steps = path.split('/')
    const at = steps.findIndex((step) => /^port\d{1,2}$/.test(step))
    const name = steps[at]
    if (at < 0 || name === undefined) continue
    const port = ports.get(name) ?? { name, pictures: false, thunderbolt: false, role: null }
    ports.set(name, port)
    const [below, field] = steps.slice(at + 1)
    if (below === 'data_role') port.role = value.includes('[device]') ? 'device' : 'host'
    // its own modes lie in portN.M; those of what is plugged in lie elsewhere
    if (below?.startsWith(`${name}.`) && field === 'svid') {
      if (value.toLowerCase().includes(DISPLAYPORT_SVID)) port.pictures = true
      if (value.toLowerCase().includes(THUNDERBOLT_SVID)) port.thunderbolt = true
    }
  }
  reading.ports.push(...ports.values())
}
