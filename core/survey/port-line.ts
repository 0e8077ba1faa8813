import { slugOf } from '../plan/free-id'
import { parseLength } from '../quantity/length'
import { type Parsed, parsed, plainText, unreadable } from '../quantity/parsed'
import { type Connector, connectorNames } from '../standards/connectors'
import { CABLE_GRADES } from '../standards/grades'
import type { DisplayPortLink, HdmiLevel } from '../standards/picture-links'
import { PORT_SITES, type Port, portSchema } from '../vocabulary/device'
import { fromWord, oneWord } from './one-word'

/** A port as a line says it: all but its id, which whoever keeps ports gives it. */
export type SaidPort = Omit<Port, 'id'>

export const portExample = '2x type-C tb4 dp1.4 15W'

const CONNECTOR_WORDS: Readonly<Record<string, Connector>> = {
  'type-c': 'type-c',
  c: 'type-c',
  'type-a': 'type-a',
  a: 'type-a',
  'type-b': 'type-b',
  b: 'type-b',
  'micro-b': 'micro-b',
  'mini-b': 'mini-b',
  displayport: 'displayport',
  dp: 'displayport',
  'mini-displayport': 'mini-displayport',
  'mini-dp': 'mini-displayport',
  hdmi: 'hdmi',
  dvi: 'dvi',
  category: '8p8c',
  '8p8c': '8p8c',
  fibre: 'lc',
  lc: 'lc',
}
const USB_WORDS: Readonly<Record<string, NonNullable<Port['usb']>>> = {
  usb2: 'usb2',
  '5g': 'gen1x1',
  gen1: 'gen1x1',
  '10g': 'gen2x1',
  gen2: 'gen2x1',
  '20g': 'gen2x2',
  gen2x2: 'gen2x2',
}
/** A generation of DisplayPort as data sheets name it, and its links by their own names. */
const LINK_WORDS: Readonly<Record<string, DisplayPortLink>> = {
  'dp1.1': 'hbr',
  'dp1.2': 'hbr2',
  'dp1.4': 'hbr3',
  'dp2.0': 'uhbr10',
  'dp2.1': 'uhbr20',
  rbr: 'rbr',
  hbr: 'hbr',
  hbr2: 'hbr2',
  hbr3: 'hbr3',
  uhbr10: 'uhbr10',
  'uhbr13.5': 'uhbr13.5',
  uhbr20: 'uhbr20',
}
const HDMI_WORDS: Readonly<Record<string, HdmiLevel>> = {
  '1.0': 'tmds-4.95',
  '1.4': 'tmds-10.2',
  '2.0': 'tmds-18',
  '2.1': 'frl-48',
  frl9: 'frl-9',
  frl18: 'frl-18',
  frl24: 'frl-24',
  frl32: 'frl-32',
  frl40: 'frl-40',
  frl48: 'frl-48',
}
const wordOf = <Value extends string>(words: Readonly<Record<string, Value>>, value: Value): string =>
  Object.keys(words).find((word) => words[word] === value) ?? value

const MOST_AT_ONCE = 16

type PortSaid = {
  connector?: Connector
  gender?: 'plug'
  role?: Port['role']
  usb?: Port['usb']
  usb4?: Port['usb4']
  thunderbolt?: Port['thunderbolt']
  link?: DisplayPortLink
  lanes?: 1 | 2 | 4
  level?: HdmiLevel
  direction?: 'out' | 'in'
  compression?: true
  gives?: number
  takes?: number
  sits?: Port['sits']
  controller?: string
  levels?: { volts: number; amps: number }[]
  ownPlug?: string
  lacksResistors?: true
  accepts?: number[]
  captive?: Port['captive']
  swappable?: true
  reserves?: Port['reserves']
  powerOnly?: true
  /** Of HDMI, where a port speaks DisplayPort as well and otherwise. */
  hdmiDirection?: 'out' | 'in'
  hdmiCompression?: true
  /** A tunnel and no plain USB; a picture connector without a picture. */
  noUsb?: true
  noPicture?: true
}

/**
 * Reads a port, or several alike, as people say them off a data sheet: how many, a name before a colon, then what it is in any order. The connector is
 * needed; every other word adds something.
 *
 * @example parsePortLine('left: type-C tb4 dp1.4 15W takes 96W @left')
 */
export function parsePortLine(line: string): Parsed<SaidPort[]> {
  if (line.length > LONGEST_LINE) return unreadable(`A port is said in at most ${LONGEST_LINE} characters.`)
  const [head, rest] = splitName(line.trim())
  const words = rest.split(/\s/).filter(Boolean)
  const counted = /^(\d{1,2})x$/i.exec(words[0] ?? '')
  const count = counted ? Number(counted[1]) : 1
  if (counted) words.shift()
  if (count < 1 || count > MOST_AT_ONCE) return unreadable(`One line says at most ${MOST_AT_ONCE} ports.`)
  const draft: PortSaid = {}
  for (let at = 0; at < words.length; at += 1) {
    const word = (words[at] ?? '').toLowerCase()
    const next = (words[at + 1] ?? '').toLowerCase()
    const pair = (word === 'gives' || word === 'takes') && wattsOf(next) !== null
    const read = pair ? readPower(draft, word, next) : readWord(draft, word, words[at] ?? '')
    if (!read)
      return unreadable(`"${words[at]}" is not a word for a port. Write a line like ${portExample}, or hdmi 2.0 in.`)
    if (pair) at += 1
  }
  if (!draft.connector)
    return unreadable(
      `Say which connector it is: ${Object.values(connectorNames).join(', ')}. Write a line like ${portExample}.`,
    )
  if (draft.powerOnly && (draft.usb || draft.usb4 || draft.thunderbolt || draft.link))
    return unreadable('A port that is power-only carries no data and no picture; take one of the two words away.')
  const name = head || draft.ownPlug || connectorNames[draft.connector]
  const ports: SaidPort[] = []
  for (let number = 1; number <= count; number += 1) {
    const made = portSchema.safeParse({ id: 'said', ...portOf(draft), name: count > 1 ? `${name} ${number}` : name })
    if (!made.success) return unreadable(made.error.issues[0]?.message ?? 'That is not a port.')
    const { id: _, ...port } = made.data
    ports.push(port)
  }
  return parsed(ports)
}

/** Longer than the longest names, plug and controller together. */
const LONGEST_LINE = 1500

/** What stands before the first colon is the name; a name with a colon in it stands in quotes, a quote in it doubled. */
function splitName(text: string): [string, string] {
  if (text.startsWith('"')) {
    const quoted = /^"((?:[^"]|"")*)" ?:/.exec(text)
    if (quoted) return [(quoted[1] ?? '').replaceAll('""', '"'), text.slice(quoted[0].length)]
  }
  const colon = text.indexOf(':')
  return colon < 0 ? ['', text] : [plainText(text.slice(0, colon)), text.slice(colon + 1)]
}

/** A name as `splitName` reads it back. */
const namePart = (name: string): string => (/^"|:|\s\s|[^\S ]/.test(name) ? `"${name.replaceAll('"', '""')}"` : name)

const wattsOf = (word: string): number | null => {
  const found = /^(\d{1,3}(?:\.\d{1,22})?)w$/.exec(word)
  return found ? Number(found[1]) : null
}

function readPower(draft: PortSaid, word: string, watts: string): boolean {
  draft[word as 'gives' | 'takes'] = wattsOf(watts) ?? undefined
  return true
}

/** Takes one word into the draft; false where it is none. */
function readWord(draft: PortSaid, word: string, written: string): boolean {
  // after its connector a number is the generation of HDMI
  if (draft.connector === 'hdmi' && word in HDMI_WORDS) draft.level = HDMI_WORDS[word]
  else if (draft.connector === undefined && word in CONNECTOR_WORDS) draft.connector = CONNECTOR_WORDS[word]
  else if (word in USB_WORDS) draft.usb = USB_WORDS[word]
  else if (word in LINK_WORDS) draft.link = LINK_WORDS[word]
  else if (draft.connector === undefined && /^own-./.test(word)) {
    draft.connector = 'own'
    draft.ownPlug = fromWord(written.slice(4))
  } else if (word === 'no-resistors') draft.lacksResistors = true
  else if (word === 'power-only') draft.powerOnly = true
  else if (word === 'plug') draft.gender = 'plug'
  else if (word === 'host' || word === 'device') draft.role = word
  else if (/^tb[345]$/.test(word)) draft.thunderbolt = Number(word[2]) as Port['thunderbolt']
  else if (word === 'usb4') draft.usb4 = 40
  else if (/^usb4-(20|40|80)$/.test(word)) draft.usb4 = Number(word.slice(5)) as Port['usb4']
  else if (/^[124]lanes?$/.test(word)) draft.lanes = Number(word[0]) as 1 | 2 | 4
  else if (word === 'in' || word === 'out') draft.direction = word
  else if (word === 'dsc') draft.compression = true
  else if (word.startsWith('hdmi-') && word.slice(5) in HDMI_WORDS) draft.level = HDMI_WORDS[word.slice(5)]
  else if (word === 'hdmi-in' || word === 'hdmi-out') draft.hdmiDirection = word === 'hdmi-in' ? 'in' : 'out'
  else if (word === 'hdmi-dsc') draft.hdmiCompression = true
  else if (word === 'no-usb') draft.noUsb = true
  else if (word === 'no-picture') draft.noPicture = true
  else if (wattsOf(word) !== null) draft.gives = wattsOf(word) ?? undefined
  else if (acceptedVolts(word)) draft.accepts = acceptedVolts(word) ?? undefined
  else if (captiveFrom(word)) draft.captive = captiveFrom(word) ?? undefined
  else if (word === 'swappable') draft.swappable = true
  else if (word in HOLDS_WORDS) draft.reserves = HOLDS_WORDS[word]
  else if (levelOf(word)) draft.levels = [...(draft.levels ?? []), levelOf(word) as Level]
  else if (word in SITE_WORDS) draft.sits = SITE_WORDS[word]
  else if (written.startsWith('@') && written.length > 1) draft.controller = fromWord(written.slice(1))
  else return false
  return true
}

type Level = { volts: number; amps: number }

/** A supply level as a plate lists it: "9Vx3A". */
function levelOf(word: string): Level | null {
  const found = /^(\d{1,2}(?:\.\d{1,22})?)vx(\d(?:\.\d{1,22})?)a$/.exec(word)
  return found ? { volts: Number(found[1]), amps: Number(found[2]) } : null
}

/** The voltages that a port charges at, where it is particular: "accepts-5,9,20v". */
function acceptedVolts(word: string): number[] | null {
  const found = /^accepts-([\d.,]{1,60})v$/.exec(word)
  const volts = (found?.[1] ?? '').split(',').map(Number)
  return found && volts.every((each) => each > 0) ? volts : null
}

/** A lead that belongs to the device and ends in its plug: "captive-1.8m", and what it carries where somebody knows: "captive-1.8m/gen2". */
function captiveFrom(word: string): NonNullable<Port['captive']> | null {
  const [said = '', mark, ...rest] = word.split('/')
  const length = /^captive-\d/.test(said) && rest.length === 0 ? parseLength(said.slice('captive-'.length)) : null
  if (!length?.ok) return null
  if (mark === undefined) return { length: length.value }
  const grade = CABLE_GRADES.find((each) => each === mark)
  return grade ? { length: length.value, grade } : null
}

const HOLDS_WORDS: Readonly<Record<string, NonNullable<Port['reserves']>>> = {
  'holds-link-rates': 'link',
  'holds-stream-rates': 'stream',
}

const SITE_WORDS: Readonly<Record<string, NonNullable<Port['sits']>>> = Object.fromEntries(
  PORT_SITES.map((site) => [`on-${site.replace(' ', '-')}`, site]),
)

/** What a draft comes to: a DisplayPort connector speaks DisplayPort, an HDMI one HDMI, where no word says of which generation. */
function portOf(draft: PortSaid): Record<string, unknown> {
  const { connector, gender, role, usb, usb4, thunderbolt, gives, takes, sits, controller } = draft
  const { link, lanes = 4, level, direction = 'out', compression = false, noUsb, noPicture } = draft
  const dp = !noPicture && (connector === 'displayport' || connector === 'mini-displayport')
  const both = link !== undefined || dp
  const hdmi = {
    direction: both ? (draft.hdmiDirection ?? direction) : direction,
    compression: both ? draft.hdmiCompression === true : compression,
  }
  return {
    connector,
    ...(gender ? { gender } : {}),
    ...(role ? { role } : {}),
    // a tunnel speaks 10 Gb/s of plain USB as well
    ...(usb ? { usb } : (thunderbolt || usb4) && !noUsb ? { usb: 'gen2x1' } : {}),
    ...(usb4 ? { usb4 } : {}),
    ...(thunderbolt ? { thunderbolt } : {}),
    ...(link || dp ? { displayport: { direction, link: link ?? 'hbr2', lanes, compression } } : {}),
    // one link of DVI goes as far as 165 MHz
    ...(level || (!noPicture && (connector === 'hdmi' || connector === 'dvi'))
      ? { hdmi: { ...hdmi, level: level ?? (connector === 'dvi' ? 'tmds-4.95' : 'tmds-18') } }
      : {}),
    ...(gives ? { gives } : {}),
    ...(takes ? { takes } : {}),
    ...(draft.levels ? { levels: draft.levels } : {}),
    ...(draft.ownPlug ? { ownPlug: draft.ownPlug } : {}),
    ...(draft.lacksResistors ? { lacksResistors: true } : {}),
    ...(draft.accepts ? { accepts: draft.accepts } : {}),
    ...(draft.captive ? { captive: { ...draft.captive, ...(draft.swappable ? { swappable: true } : {}) } } : {}),
    ...(draft.reserves ? { reserves: draft.reserves } : {}),
    ...(sits ? { sits } : {}),
    ...(controller ? { controller } : {}),
  }
}

/** The line that `parsePortLine` reads back to the same port. */
export function portLine(port: SaidPort): string {
  const { connector, gender, role, usb, usb4, thunderbolt, displayport, hdmi, gives, takes, sits, controller } = port
  const direction = displayport?.direction ?? hdmi?.direction
  const pictured = connector === 'hdmi' || connector === 'dvi'
  const shown = pictured || connector === 'displayport' || connector === 'mini-displayport'
  return `${namePart(port.name)}: ${[
    port.ownPlug ? `own-${oneWord(port.ownPlug)}` : connector,
    gender === 'plug' ? 'plug' : '',
    hdmi && connector === 'hdmi' ? wordOf(HDMI_WORDS, hdmi.level) : '',
    hdmi && connector !== 'hdmi' && !(connector === 'dvi' && hdmi.level === 'tmds-4.95')
      ? `hdmi-${wordOf(HDMI_WORDS, hdmi.level)}`
      : '',
    displayport && hdmi && hdmi.direction !== displayport.direction ? `hdmi-${hdmi.direction}` : '',
    displayport && hdmi?.compression ? 'hdmi-dsc' : '',
    shown && (pictured ? !hdmi : !displayport) ? 'no-picture' : '',
    (usb4 || thunderbolt) && !usb ? 'no-usb' : '',
    role === 'either' ? '' : role,
    usb ? wordOf(USB_WORDS, usb) : '',
    usb4 ? `usb4-${usb4}` : '',
    thunderbolt ? `tb${thunderbolt}` : '',
    displayport ? wordOf(LINK_WORDS, displayport.link) : '',
    displayport && displayport.lanes !== 4 ? `${displayport.lanes}lanes` : '',
    direction ?? '',
    (displayport ?? hdmi)?.compression ? 'dsc' : '',
    gives === undefined ? '' : `gives ${gives}W`,
    takes === undefined ? '' : `takes ${takes}W`,
    ...(port.levels ?? []).map(({ volts, amps }) => `${volts}Vx${amps}A`),
    port.lacksResistors ? 'no-resistors' : '',
    port.accepts ? `accepts-${port.accepts.join(',')}V` : '',
    port.captive ? `captive-${port.captive.length}m${port.captive.grade ? `/${port.captive.grade}` : ''}` : '',
    port.captive?.swappable ? 'swappable' : '',
    port.reserves ? wordOf(HOLDS_WORDS, port.reserves) : '',
    sits ? `on-${sits.replace(' ', '-')}` : '',
    controller ? `@${oneWord(controller)}` : '',
  ]
    .filter(Boolean)
    .join(' ')}`
}

export type LineFault = { line: number; problem: string }

/** Reads the ports of a device, a line each (or several alike), with what is wrong in which line. `lines` tells of each port which line says it, from 0 on. */
export function parsePortLines(text: string): { ports: SaidPort[]; lines: number[]; faults: LineFault[] } {
  const ports: SaidPort[] = []
  const lines: number[] = []
  const faults: LineFault[] = []
  for (const [at, line] of text.split('\n').entries()) {
    if (line.trim() === '') continue
    const read = parsePortLine(line)
    if (read.ok) {
      ports.push(...read.value)
      lines.push(...read.value.map(() => at))
    } else faults.push({ line: at + 1, problem: read.problem })
  }
  return { ports: distinct(ports), lines, faults }
}

/** A text with one of its lines moved to the place of another. */
export function lineMoved(text: string, from: number, to: number): string {
  const lines = text.split('\n')
  const [line] = lines.splice(from, 1)
  if (line === undefined || to < 0 || to > lines.length) return text
  lines.splice(to, 0, line)
  return lines.join('\n')
}

/** Ports of one name are told apart by a number. */
function distinct(ports: readonly SaidPort[]): SaidPort[] {
  const count = new Map<string, number>()
  for (const { name } of ports) count.set(name.toLowerCase(), (count.get(name.toLowerCase()) ?? 0) + 1)
  const given = new Map<string, number>()
  return ports.map((port) => {
    const key = port.name.toLowerCase()
    if ((count.get(key) ?? 0) < 2) return port
    const number = (given.get(key) ?? 0) + 1
    given.set(key, number)
    return { ...port, name: `${port.name} ${number}` }
  })
}

/**
 * The ports as they were said, each with its id: the one of the port that had its name before, else of the one that stood in its place and whose name is no
 * longer said, so that a port that is renamed keeps its runs.
 */
export function keptPorts(said: readonly SaidPort[], before: readonly Port[]): Port[] {
  const names = new Set(said.map(({ name }) => name.toLowerCase()))
  const byName = new Map(before.map((port) => [port.name.toLowerCase(), port]))
  const used = new Set<string>()
  const ports: Port[] = []
  for (const [at, port] of said.entries()) {
    const there = before[at]
    const renamed = there && !names.has(there.name.toLowerCase()) ? there : undefined
    const known = byName.get(port.name.toLowerCase()) ?? renamed
    const own = known && !used.has(known.id) ? known : undefined
    let id = own?.id ?? slugOf(port.name, 'port')
    const taken = (wanted: string) => used.has(wanted) || (!own && before.some((each) => each.id === wanted))
    for (let number = 2; taken(id); number += 1) id = `${slugOf(port.name, 'port')}-${number}`
    used.add(id)
    ports.push({ id, ...port })
  }
  return ports
}
