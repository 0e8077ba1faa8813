import type { Device } from '../../vocabulary/device'
import type { Upgrade } from '../../vocabulary/growth'
import type { ChangeToMake, LogPosition } from '../change'

/** Says where a visitor sits; null: nowhere any more. */
export function seatVisitor(visitor: Device, base: LogPosition, host: Device | null): ChangeToMake {
  const { visits: _, ...rest } = visitor
  return {
    what: { name: 'seat visitor', about: host ? [visitor.name, host.name] : [visitor.name] },
    edits: [{ list: 'devices', id: visitor.id, base, value: host ? { ...rest, visits: host.id } : rest }],
  }
}

/** Keeps an upgrade with the site. */
export const thinkAhead = (upgrade: Upgrade): ChangeToMake => ({
  what: { name: 'think ahead', about: [upgrade.name] },
  edits: [{ list: 'upgrades', id: upgrade.id, base: null, value: upgrade }],
})

/** No longer thinks of an upgrade. */
export const dropUpgrade = ({ id, name }: Upgrade, base: LogPosition): ChangeToMake => ({
  what: { name: 'drop upgrade', about: [name] },
  edits: [{ list: 'upgrades', id, base, value: null }],
})
