import type { TryName } from '../vocabulary/search'

/** What each try is called where it is named among others. */
export const tryNames: Readonly<Record<TryName, string>> = {
  'another lead': 'Another lead',
  'shorter lead': 'A short lead, the device brought to the host',
  'another port': 'Another port of the host',
  'fewer neighbours': 'Fewer neighbours',
  reseat: 'Every plug out and in again',
  restart: 'A restart',
  drivers: 'Old driver entries removed',
  firmware: 'Firmware and system brought up to date',
  'other charger': 'Another supply',
  feed: 'Its own supply connected',
  'turn round': 'The lead turned round',
  settings: 'The wanted mode chosen in the settings',
  'lower picture': 'A smaller picture',
  'other input': 'Another port of the far device',
  'other device': 'Another device at the far end',
  'other computer': 'Another host',
  'without the dock': 'Without the dock',
  'power cycle': 'The far device without power for a minute',
  'part by part': 'Built up part by part',
  'read the link': 'What comes up, read',
  'read the watts': 'The watts, read',
  'feel the plugs': 'Both plugs felt',
}
