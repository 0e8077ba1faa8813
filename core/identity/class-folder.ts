import { type Parsed, parsed, unreadable } from '../quantity/parsed'
import type { IdentityWords } from './e-marker'

/** What a Linux computer shows of one cable in its type-C class folder (kernel ABI document, class typec). */
export type FolderCable = { port: string; words: IdentityWords; plug: string | null; type: string | null }

/** Files of a folder: their paths and texts. */
export type FolderFile = { path: string; text: string }

/** An archive of such a folder is a few kilobytes; one that is larger holds something else. */
export const LARGEST_ARCHIVE_BYTES = 2_000_000

/**
 * The cables in a type-C class folder. Files may be as an archive holds them or as `grep . -r` prints them; padding that archives of
 * such folders carry (the files claim 4096 bytes) is dropped. A folder with no cable in it is said so.
 */
export function readClassFolder(files: readonly FolderFile[]): Parsed<FolderCable[]> {
  const byPort = new Map<string, Map<string, string>>()
  for (const { path, text } of files) {
    const place = placeOf(path.trim())
    if (!place) continue
    const values = byPort.get(place.port) ?? new Map<string, string>()
    values.set(place.name, text.replaceAll('\u0000', '').trim())
    byPort.set(place.port, values)
  }
  const cables: FolderCable[] = []
  for (const [port, values] of [...byPort].sort()) {
    if (!values.has('identity/id_header')) continue
    const read = cableFrom(port, values)
    if (!read.ok) return read
    cables.push(read.value)
  }
  if (cables.length > 0) return parsed(cables)
  return unreadable(
    byPort.size > 0
      ? 'The folder has a cable in it, but no identity: the cable has no chip, or the computer did not ask it.'
      : 'There is no portN-cable/identity in this. Plug the cable in, then take the whole folder /sys/class/typec.',
  )
}

/** Such a folder lies a few steps down; what lies deeper is something else. */
const LONGEST_PATH = 1000

const WORDS = ['id_header', 'cert_stat', 'product', 'product_type_vdo1', 'product_type_vdo2'] as const
const BESIDE = ['type', 'plug_type', 'usb_power_delivery_revision']

/** Which port's cable a file speaks of; files of one cable's folder alone have no port in their paths. */
function placeOf(path: string): { port: string; name: string } | null {
  const steps = path.slice(0, LONGEST_PATH).split('/')
  const folder = steps.findIndex((step) => /^port\d+-(cable|plug\d)$/.test(step))
  const below = steps.slice(folder + 1).join('/')
  if (folder >= 0 && below !== '') return { port: steps[folder]?.split('-')[0] ?? '', name: below }
  const name = path.replace(/^(\.?\/)?(identity\/)?/, '')
  if ((WORDS as readonly string[]).includes(name)) return { port: '', name: `identity/${name}` }
  return BESIDE.includes(name) ? { port: '', name } : null
}

function cableFrom(port: string, values: ReadonlyMap<string, string>): Parsed<FolderCable> {
  const word = (name: string): Parsed<number | null> => {
    const text = values.get(`identity/${name}`)
    if (text === undefined || text === '') return parsed(null)
    return /^0x[0-9a-f]{1,8}$/i.test(text)
      ? parsed(Number.parseInt(text, 16))
      : unreadable(
          `${port || 'The folder'}: ${name} is "${text.slice(0, 24)}", not a hex word of at most eight digits.`,
        )
  }
  const read = WORDS.map(word)
  for (const each of read) if (!each.ok) return each
  const [idHeader, certStat, product, vdo1, vdo2] = read.map((each) => (each.ok ? each.value : null))
  const revision = values.get('usb_power_delivery_revision')?.startsWith('2') ? 2 : 3
  return parsed({
    port: port || 'port',
    words: {
      idHeader: idHeader ?? 0,
      certStat: certStat ?? 0,
      product: product ?? 0,
      // the folder shows a zero where the cable gave no such word
      vdo1: vdo1 || null,
      vdo2: vdo2 || null,
      revision,
    },
    plug: values.get('plug_type') ?? null,
    type: values.get('type') ?? null,
  })
}

/** Lines of a text that are looked at, and how much of each: far more than a class folder has. */
const MOST_LINES = 5000
const LONGEST_LINE = 400

/** Text as `grep . -r /sys/class/typec/` prints it, or "name: value" lines of one cable's folder. */
export const filesFromText = (text: string): FolderFile[] =>
  text.split(/\r?\n/, MOST_LINES).flatMap((line) => {
    const found = /^\s*([^\s:=]+)\s*[:=]\s*(\S.*)$/.exec(line.slice(0, LONGEST_LINE))
    return found ? [{ path: found[1] ?? '', text: found[2] ?? '' }] : []
  })
