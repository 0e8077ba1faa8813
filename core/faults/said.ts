import { type ActivePicture, activePicture, activeText, isRefresh, readPasted } from '../prove/pasted'
import { LINK_MODES, type LinkMode } from '../standards/link-modes'
import type { PictureMode } from '../vocabulary/need'
import type { Symptom } from '../vocabulary/search'
import { type ReadLog, readLog } from './log-lines'
import { isUnderMode } from './under-mode'

/** What a pasted text says, whatever it was pasted for: the lines of a log, or what a listing says came up. */
export type Said = { log: ReadLog; link: { mode: LinkMode; line: string } | null; picture: ActivePicture | null }

/** A listing is some pages; a log may be megabytes. */
const LONGEST_LISTING = 100_000

/** Reads a log, a listing of USB or type-C devices, or one of displays. */
export function readSaid(text: string): Said {
  const log = readLog(text)
  if (log.facts.length > 0 || text.length > LONGEST_LISTING) return { log, link: null, picture: null }
  const listed = readPasted({ kind: 'link', spoken: [], mode: null }, text)
  const mode = listed.ok ? LINK_MODES.find((each) => each === listed.value.value) : undefined
  return {
    log,
    link: listed.ok && mode ? { mode, line: listed.value.words } : null,
    picture: activePicture(text),
  }
}

/** A symptom with the line that says so. */
export type SaidSymptom = { what: Symptom; line: string }

/** The symptoms that a text tells of a run: what came up is one only where it is less than what ought to. */
export function symptomsSaid(
  { log, link, picture }: Said,
  { planned, wanted }: { planned: LinkMode | null; wanted: PictureMode | null },
): SaidSymptom[] {
  const found = new Map<Symptom, string>()
  const add = (what: Symptom, line: string): void => void (found.has(what) || found.set(what, line))
  for (const { fact, lines } of log.facts) {
    const [line = ''] = lines
    if ('symptom' in fact) add(fact.symptom, line)
    else if (isUnderMode(planned, fact.cameUp)) add('usb2 only', line)
  }
  if (link && isUnderMode(planned, link.mode)) add('usb2 only', link.line)
  if (picture && wanted) {
    const line = activeText(picture)
    if (picture.width * picture.height < wanted.width * wanted.height) add('fewer modes', line)
    else if (picture.hertz < wanted.refresh && !isRefresh(picture.hertz, wanted.refresh)) add('low refresh', line)
  }
  return [...found].map(([what, line]) => ({ what, line }))
}
