import { type Parsed, parsed, plainText, unreadable } from '../quantity/parsed'
import { DEVICE_KINDS, type Device, type DeviceKind } from '../vocabulary/device'
import { nameField } from '../vocabulary/fields'
import { keptPorts, type LineFault, parsePortLine, parsePortLines } from './port-line'
import { fromTemplate, type Template, templates } from './templates'

/** A device as a line says it: at the place named above it, or at none; `from` is the usual device it began as. */
export type SaidDevice = { line: number; place: string | null; device: Omit<Device, 'id'>; from: string | null }

/** Places and devices of a pasted list: places in the order in which they are named first. */
export type SaidSurvey = { places: readonly string[]; devices: readonly SaidDevice[]; faults: readonly LineFault[] }

/** Lines of one list at most. */
export const MOST_SURVEY_LINES = 200

export const surveyExample =
  'Desk 1:\nDesk 1 laptop; laptop\nDesk 1 dock; tunnel dock\nDisplay left; display; hdmi 2.0 in'

/** What people say for what the usual devices are called. */
const SAID: Readonly<Record<string, string>> = {
  monitor: 'display',
  screen: 'display',
  tv: 'television',
  pc: 'desktop',
  workstation: 'desktop',
  tower: 'desktop',
  ssd: 'solid-state',
  hdd: 'hard',
  drive: 'disk',
  notebook: 'laptop',
  phone: 'tablet',
  beamer: 'projector',
}

const wordsOf = (text: string): string[] =>
  plainText(text)
    .toLowerCase()
    .split(/[^\p{L}\p{N}.+-]+/u)
    .filter((word) => word !== '' && !/^\d+$/.test(word))
    .map((word) => SAID[word] ?? word)

const searched = templates.map((template) => ({ template, words: wordsOf(`${template.name} ${template.kind}`) }))

/** The first usual device that all of some words speak of: "tunnel dock", "webcam", "display". */
export function usualDevice(text: string): Template | null {
  const asked = wordsOf(text)
  if (asked.length === 0) return null
  const found = searched.find(({ words }) => asked.every((word) => words.some((each) => each.startsWith(word))))
  return found?.template ?? null
}

/**
 * Reads places and devices, a line each. "Desk 1:" is a place, and what follows stands there. A device is its name, what it is, and its ports where they are
 * not the usual ones. Semicolons or the cells of a spreadsheet part them: "Desk 1 dock; dock; type-C device tb4 gives 96W; 2x displayport dp1.4".
 * A name that says what the device is needs no more: "Desk 1 laptop".
 *
 * @example parseSurveyLines('Desk 1:\nlaptop')
 */
export function parseSurveyLines(text: string): SaidSurvey {
  const places: string[] = []
  const devices: SaidDevice[] = []
  const faults: LineFault[] = []
  let place: string | null = null
  for (const [at, raw] of text.split(/\r?\n/).entries()) {
    const line = at + 1
    const said = raw.trim()
    if (said === '') continue
    if (places.length + devices.length >= MOST_SURVEY_LINES) {
      faults.push({ line, problem: `A list has at most ${MOST_SURVEY_LINES} lines; add the rest after these.` })
      break
    }
    const heading = /^([^;\t]{1,200}):$/.exec(said)?.[1]
    if (heading !== undefined) {
      const name = nameField.safeParse(heading)
      if (!name.success) faults.push({ line, problem: 'This is too long for the name of a place.' })
      else {
        place = places.find((each) => each.toLowerCase() === name.data.toLowerCase()) ?? name.data
        if (!places.includes(place)) places.push(place)
      }
      continue
    }
    const read = parseDevice(said)
    if (read.ok) devices.push({ line, place, ...read.value })
    else faults.push({ line, problem: read.problem })
  }
  return { places, devices, faults }
}

function parseDevice(text: string): Parsed<Pick<SaidDevice, 'device' | 'from'>> {
  const [first = '', ...parts] = text
    .split(/[;\t]/)
    .map((part) => part.trim())
    .filter(Boolean)
  const name = nameField.safeParse(first)
  if (!name.success) return unreadable('A device begins with its name, of 120 characters at most.')
  const [what = '', ...rest] = parts
  const isPort = what !== '' && parsePortLine(what).ok
  const said = isPort ? first : what === '' ? first : what
  const kind = kindOf(said)
  const template = usualDevice(said) ?? (what === '' || isPort ? usualDevice(lastWord(first)) : null)
  if (!template && !kind)
    return unreadable(
      what === '' || isPort
        ? `Say what "${first.slice(0, 60)}" is after a semicolon: laptop, dock, display, disk.`
        : `"${what.slice(0, 60)}" is not a device Hallway knows. Say ${DEVICE_KINDS.slice(0, 5).join(', ')} or another.`,
    )
  const lines = isPort ? parts : rest
  const { ports, faults } = parsePortLines(lines.join('\n'))
  const [fault] = faults
  if (fault) return unreadable(`Port ${fault.line}: ${fault.problem}`)
  const usual = template ? fromTemplate(template) : { kind: kind ?? 'other', busPowered: false, ports: [] }
  if (lines.length === 0) return parsed({ device: { ...usual, name: name.data }, from: template?.name ?? null })
  // its own ports in place of the usual ones; what was usual of a pool of ports fits no others
  const { pool: _, ...others } = usual as Omit<Device, 'id'>
  return parsed({
    device: { ...others, name: name.data, ports: keptPorts(ports, []) },
    from: template?.name ?? null,
  })
}

const lastWord = (name: string): string => wordsOf(name).at(-1) ?? ''
const kindOf = (text: string): DeviceKind | null =>
  DEVICE_KINDS.find((kind) => kind === text.trim().toLowerCase()) ?? null
