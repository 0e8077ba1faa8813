import { type LengthUnit, parseLength } from '../quantity/length'
import { decimal, type Parsed, parsed, plainText, unreadable } from '../quantity/parsed'
import { parseWatts } from '../quantity/watts'
import { type Device, INSTALLED } from '../vocabulary/device'
import { dayField, nameField } from '../vocabulary/fields'
import { offsetText } from './points-text'

type Installed = NonNullable<Device['installed']>

export const installedExample = 'system 12.4 since 2026-03-02'
/** Lines of what is installed at most, as the plan has it. */
const MOST_INSTALLED = 20

/**
 * What is installed on a computer, a line each: system, firmware or driver, its version, since when.
 *
 * @example parseInstalled('system 12.4 since 2026-03-02\nfirmware F9 since 2026-01-10')
 */
export function parseInstalled(text: string): Parsed<Installed> {
  const lines = text.split('\n').map(plainText).filter(Boolean)
  if (lines.length > MOST_INSTALLED) return unreadable(`At most ${MOST_INSTALLED} lines of what is installed.`)
  const installed: Installed = []
  for (const line of lines) {
    const [first = '', ...rest] = line.split(' ')
    const since = rest.lastIndexOf('since')
    const what = INSTALLED.find((each) => each === first.toLowerCase())
    const version = nameField.safeParse((since < 0 ? rest : rest.slice(0, since)).join(' '))
    const on = dayField.safeParse(since < 0 ? '' : rest[since + 1])
    if (!what || !version.success || !on.success)
      return unreadable(
        `"${line.slice(0, 40)}" is not understood. Write ${INSTALLED.join(', ')}, like ${installedExample}.`,
      )
    installed.push({ what, version: version.data, on: on.data })
  }
  return parsed(installed)
}

export const installedText = (installed: Installed = []): string =>
  installed.map(({ what, version, on }) => `${what} ${version} since ${on}`).join('\n')

export const batteryExample = '14 Wh, draws 8 W, 9.5 W at 120 Hz'

/** A battery and what is drawn from it while it is used, at some refresh rates where somebody measured it: "14 Wh, draws 8 W, 9.5 W at 120 Hz". */
export function parseBattery(text: string): Parsed<NonNullable<Device['battery']>> {
  const [capacity = '', drawn = '', ...more] = plainText(text)
    .toLowerCase()
    .split(/, ?(?=[a-z]|\d)/)
  const wattHours = Number(capacity.replace(/ ?wh$/, ''))
  const draw = parseWatts(drawn.replace(/^draws /, ''))
  const uses = more.map((part) => {
    const [watts = '', refresh = ''] = part.split(' at ')
    return { refresh: Number(refresh.replace(/ ?hz$/, '')), draw: parseWatts(watts) }
  })
  if (
    !draw.ok ||
    !(wattHours >= 0.1 && wattHours <= 1000) ||
    !uses.every(({ refresh, draw: each }) => each.ok && refresh >= 10 && refresh <= 480)
  )
    return unreadable(
      `"${plainText(text).slice(0, 40)}" is not a battery. Write what it holds and what is drawn, like ${batteryExample}.`,
    )
  return parsed({
    wattHours,
    draw: draw.value,
    ...(uses.length > 0
      ? { uses: uses.flatMap(({ refresh, draw: each }) => (each.ok ? { refresh, draw: each.value } : [])) }
      : {}),
  })
}

export const batteryText = (battery: Device['battery']): string =>
  battery
    ? [
        `${decimal(battery.wattHours, 2)} Wh`,
        `draws ${decimal(battery.draw, 2)} W`,
        ...(battery.uses ?? []).map(({ refresh, draw }) => `${decimal(draw, 2)} W at ${decimal(refresh, 3)} Hz`),
      ].join(', ')
    : ''

export const noiseExample = '34 to 52 dB at 1 m'

/** How loud something is and where that was read, idle and loaded where these differ: "52 dB at 1 m", "34 to 60 dB at 3 ft". */
export function parseNoise(text: string, unit: LengthUnit = 'm'): Parsed<NonNullable<Device['noise']>> {
  const plain = plainText(text)
  const at = plain.toLowerCase().indexOf(' at ')
  const levels = plain
    .slice(0, at < 0 ? plain.length : at)
    .replaceAll(',', '.')
    .replace(/ ?db$/i, '')
    .split(' to ')
    .map(Number)
  const [level = Number.NaN, loaded, ...more] = levels
  const distance = at < 0 ? null : parseLength(plain.slice(at + 4), unit)
  const isLevel = (value: number): boolean => value >= 0 && value <= 140
  if (!distance?.ok || more.length > 0 || !levels.every(isLevel) || distance.value < 0.05 || distance.value > 100)
    return unreadable(
      `"${plain.slice(0, 40)}" is not a level of sound. Write the level and where it was read, like ${noiseExample}.`,
    )
  return parsed({ level, ...(loaded === undefined ? {} : { loaded }), distance: distance.value })
}

export const noiseText = (noise: Device['noise'], unit: LengthUnit): string =>
  noise
    ? `${decimal(noise.level, 1)}${noise.loaded === undefined ? '' : ` to ${decimal(noise.loaded, 1)}`} dB at ${offsetText(noise.distance, unit === 'm' ? 'm' : 'ft')}${unit === 'm' ? ' m' : ''}`
    : ''
