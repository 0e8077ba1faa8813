import { plainText } from '../quantity/parsed'
import { type LinkMode, linkModeFacts } from '../standards/link-modes'
import type { Symptom } from '../vocabulary/search'

/** What a line says: a symptom, or a link that came up. */
export type LogFact = { symptom: Symptom } | { cameUp: LinkMode }

/** One form of a line, with what it says and which part of a system prints it. */
export type LogPattern = { name: string; from: LogSource; form: RegExp; says: LogFact }

/** Who prints it: the USB core of a Linux kernel, its type-C, Thunderbolt and display parts, or a desktop in general words. */
export const LOG_SOURCES = ['usb', 'typec', 'thunderbolt', 'drm', 'disk', 'desktop'] as const
export type LogSource = (typeof LOG_SOURCES)[number]

const saw = (symptom: Symptom): LogFact => ({ symptom })

/**
 * Lines that are understood. Those of the kernel are worded after its messages as people quote them (from memory; a script of its own holds each against the
 * kernel's sources); those of desktops are general words, not the text of any one.
 */
export const logPatterns: readonly LogPattern[] = [
  {
    name: 'not accepting address',
    from: 'usb',
    form: /device not accepting address \d{1,3}, error -?\d{1,4}/i,
    says: saw('not detected'),
  },
  {
    name: 'descriptor read',
    from: 'usb',
    form: /device descriptor read\/\w{1,4}, error -?\d{1,4}/i,
    says: saw('not detected'),
  },
  { name: 'unable to enumerate', from: 'usb', form: /unable to enumerate usb device/i, says: saw('not detected') },
  {
    name: 'maybe the cable',
    from: 'usb',
    form: /cannot enable\. maybe the usb cable is bad\?/i,
    says: saw('not detected'),
  },
  {
    name: 'over-current change',
    from: 'usb',
    form: /over-?current (?:change|condition)/i,
    says: saw('too much current'),
  },
  {
    name: 'bus power',
    from: 'usb',
    form: /rejected \d{1,3} configurations? due to insufficient available bus power/i,
    says: saw('too much current'),
  },
  { name: 'disabled by hub', from: 'usb', form: /disabled by hub \(emi\?\), re-enabling/i, says: saw('drops') },
  { name: 'disconnect', from: 'usb', form: /usb disconnect, device number \d{1,3}/i, says: saw('drops') },
  {
    name: 'reset',
    from: 'usb',
    form: /reset (?:low|full|high|super)[-\w ]{0,24} usb device number \d{1,3}/i,
    says: saw('drops'),
  },
  { name: 'not authorized', from: 'usb', form: /device is not authorized for usage/i, says: saw('refused') },
  {
    name: 'not at top speed',
    from: 'usb',
    form: /not running at top speed; connect to a high speed hub/i,
    says: saw('reduced function'),
  },
  { name: 'new high-speed', from: 'usb', form: /new high-speed usb device number \d{1,3}/i, says: { cameUp: 'usb2' } },
  {
    name: 'new super-speed',
    from: 'usb',
    form: /new superspeed(?: gen 1)? usb device number \d{1,3}/i,
    says: { cameUp: 'gen1x1' },
  },
  {
    name: 'new gen 1x2',
    from: 'usb',
    form: /new superspeed plus gen 1x2 usb device number \d{1,3}/i,
    says: { cameUp: 'gen1x2' },
  },
  {
    name: 'new gen 2x1',
    from: 'usb',
    form: /new superspeed(?: plus)? gen 2(?:x1)? usb device number \d{1,3}/i,
    says: { cameUp: 'gen2x1' },
  },
  {
    name: 'new gen 2x2',
    from: 'usb',
    form: /new superspeed plus gen 2x2 usb device number \d{1,3}/i,
    says: { cameUp: 'gen2x2' },
  },
  { name: 'ppm', from: 'typec', form: /ppm init failed/i, says: saw('nothing new appears') },
  { name: 'dead battery', from: 'typec', form: /dead battery condition!/i, says: saw('no power') },
  { name: 'hard reset', from: 'typec', form: /hard reset occurred/i, says: saw('drops') },
  {
    name: 'no dp in',
    from: 'thunderbolt',
    form: /no suitable dp in adapter available, not tunneling/i,
    says: saw('listed but black'),
  },
  {
    name: 'dp tunnel',
    from: 'thunderbolt',
    form: /dp tunnel activation failed, aborting/i,
    says: saw('listed but black'),
  },
  {
    name: 'not enough bandwidth',
    from: 'thunderbolt',
    form: /not enough bandwidth for dp tunnel/i,
    says: saw('low refresh'),
  },
  {
    name: 'pcie tunnel',
    from: 'thunderbolt',
    form: /pcie tunnel activation failed, aborting/i,
    says: saw('not detected'),
  },
  { name: 'link training', from: 'drm', form: /link training (?:failed|unsuccessful)/i, says: saw('listed but black') },
  { name: 'enable link training', from: 'drm', form: /failed to enable link training/i, says: saw('listed but black') },
  {
    name: 'channel equalisation',
    from: 'drm',
    form: /channel equalization failed|failed clock recovery/i,
    says: saw('listed but black'),
  },
  {
    name: 'edid checksum',
    from: 'drm',
    form: /edid (?:block \d{1,3} )?(?:\(tag 0x[0-9a-f]{1,2}\) )?(?:checksum is invalid|has bad checksum)/i,
    says: saw('fewer modes'),
  },
  {
    name: 'no file system',
    from: 'disk',
    form: /can't find (?:a valid )?[\w-]{2,12} filesystem|bad superblock|wrong fs type/i,
    says: saw('wants format'),
  },
  {
    name: 'format',
    from: 'desktop',
    form: /\b(?:needs? to be|must be|want to|do you want to|asks? to be) (?:initiali[sz]ed?|format(?:ted)?)\b/i,
    says: saw('wants format'),
  },
  {
    name: 'not readable',
    from: 'desktop',
    form: /\bdis[ck] (?:you attached )?(?:was|is) not readable\b/i,
    says: saw('wants format'),
  },
  {
    name: 'not recognised',
    from: 'desktop',
    form: /\bdevice (?:is |was )?(?:not recogni[sz]ed|unknown)\b|\bunknown (?:usb )?device\b|\bdevice (?:has )?malfunctioned\b/i,
    says: saw('not detected'),
  },
  {
    name: 'not supported',
    from: 'desktop',
    form: /\b(?:accessory|device|cable) (?:is |may )?(?:not (?:be )?supported|refused|not allowed)\b/i,
    says: saw('refused'),
  },
  {
    name: 'charging slowly',
    from: 'desktop',
    form: /\bslow (?:charger|charging)\b|\bcharg(?:es|ing) slowly\b|\bplugged in, not charging\b|\bnot charging\b/i,
    says: saw('charges slowly'),
  },
  {
    name: 'limited',
    from: 'desktop',
    form: /\b(?:limited|reduced) (?:functionality|functions?|performance|capabilit(?:y|ies))\b|\b(?:try|use) (?:a different|another) (?:port|connector)\b|\bcan (?:perform|run) faster\b/i,
    says: saw('reduced function'),
  },
  {
    name: 'display limited',
    from: 'desktop',
    form: /\bdisplay (?:connection )?(?:might|may) be limited\b/i,
    says: saw('fewer modes'),
  },
  {
    name: 'power surge',
    from: 'desktop',
    form: /\bpower surge\b|\btoo much (?:current|power)\b|\bneeds? more power than\b|\bexceed(?:s|ed)? the power limits\b/i,
    says: saw('too much current'),
  },
  {
    name: 'no signal',
    from: 'desktop',
    form: /\bno signal\b|\bcheck (?:the )?(?:video|signal) cable\b/i,
    says: saw('listed but black'),
  },
]

/** Lines that are looked at, and how much of each. */
const MOST_LINES = 200_000
const LONGEST_LINE = 400
/** A line of another kind is named so often at most. */
const SHOWN_PASSED_OVER = 5
/** What one fact is seen by, at most. */
const LINES_OF_A_FACT = 3

/** What was read out of a text: each fact with the lines it came from, and what was passed over. */
export type ReadLog = {
  facts: readonly { fact: LogFact; key: string; lines: readonly string[]; times: number }[]
  read: number
  passedOver: readonly string[]
  passed: number
  /** It was longer than what is looked at. */
  cut: boolean
}

export const factKey = (fact: LogFact): string => ('symptom' in fact ? fact.symptom : `came up ${fact.cameUp}`)

/** What a fact says, in words. */
export const factWords = (fact: LogFact, saysOf: (symptom: Symptom) => string): string =>
  'symptom' in fact ? saysOf(fact.symptom) : `A device came up as ${linkModeFacts[fact.cameUp].name}`

/**
 * Reads a log, a listing or a message, line by line. Every line that is understood becomes a fact with the words it came from; the rest is named as passed over,
 * and nothing is guessed. A text of any size, of another program or cut in the middle is read as far as it goes.
 */
export function readLog(text: string): ReadLog {
  const facts = new Map<string, { fact: LogFact; key: string; lines: string[]; times: number }>()
  const passedOver: string[] = []
  let [read, passed, from] = [0, 0, 0]
  while (from < text.length && read < MOST_LINES) {
    const end = text.indexOf('\n', from)
    const line = plainText(text.slice(from, Math.min(end < 0 ? text.length : end, from + LONGEST_LINE)))
    from = end < 0 ? text.length : end + 1
    if (line === '') continue
    read += 1
    const pattern = logPatterns.find(({ form }) => form.test(line))
    if (!pattern) {
      passed += 1
      if (passedOver.length < SHOWN_PASSED_OVER) passedOver.push(line)
      continue
    }
    const key = factKey(pattern.says)
    const known = facts.get(key)
    if (!known) facts.set(key, { fact: pattern.says, key, lines: [line], times: 1 })
    else {
      known.times += 1
      if (known.lines.length < LINES_OF_A_FACT) known.lines.push(line)
    }
  }
  return { facts: [...facts.values()], read, passedOver, passed, cut: from < text.length }
}
