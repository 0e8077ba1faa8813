import type { BatteryCourse } from '../headset/headset'
import { basisNames } from '../observe/basis'
import type { Conflict } from '../observe/known'
import { formatPictureMode } from '../picture/mode-text'
import { formatLength, type LengthUnit } from '../quantity/length'
import { decimal } from '../quantity/parsed'
import { formatBytesPerSecond, formatRate } from '../quantity/rate'
import { formatWatts } from '../quantity/watts'
import { describeEnd } from '../standards/connectors'
import { type CableGrade, gradeFacts } from '../standards/grades'
import { LINK_MODES, type LinkMode, linkModeFacts } from '../standards/link-modes'
import { DISPLAYPORT_LINKS, type DisplayPortLink, displayPortLane, hdmiLink } from '../standards/picture-links'
import type { Limit } from '../storage/storage'
import type { NeedKind } from '../vocabulary/need'
import type { Surrounding } from '../vocabulary/surroundings'
import type { Finding, LackFigures, Reason, Unit } from './finding'

export const needNames: Record<NeedKind, string> = {
  picture: 'picture',
  storage: 'storage',
  headset: 'headset',
  camera: 'camera',
  sensor: 'sensor',
  audio: 'audio',
  data: 'plain data',
  power: 'power',
}

export const gradeWords = { clear: 'Clear', tight: 'Tight', blocked: 'Blocked', note: 'Note' } as const

/** A figure of a finding with its unit. */
export function formatFigure(value: number | null, unit: Unit | null, lengthUnit: LengthUnit = 'm'): string {
  if (value === null || unit === null) return '-'
  const size = Math.abs(value)
  const text =
    unit === 'V'
      ? `${decimal(size, 2)} V`
      : unit === 'm'
        ? formatLength(size, lengthUnit)
        : unit === 'W'
          ? formatWatts(size)
          : formatRate(size)
  return value < 0 ? `-${text}` : text
}

/** The same in the other unit that people think in: feet for metres, bytes for bits; of watts and volts there is none. */
export function otherFigure(value: number | null, unit: Unit | null, lengthUnit: LengthUnit = 'm'): string | null {
  if (value === null || value === 0 || unit === null || unit === 'W' || unit === 'V') return null
  if (unit === 'bit/s') return formatBytesPerSecond(Math.abs(value))
  return formatLength(Math.abs(value), lengthUnit === 'm' ? 'ft' : 'm')
}

/** What a link is called, whatever family it is of. */
export const modeName = (mode: LackFigures['mode']): string => {
  if ((LINK_MODES as readonly string[]).includes(mode)) return linkModeFacts[mode as LinkMode].name
  if ((DISPLAYPORT_LINKS as readonly string[]).includes(mode))
    return `DisplayPort ${displayPortLane[mode as DisplayPortLink].name}`
  return hdmiLink[mode as keyof typeof hdmiLink].name
}

const article = (words: string): string => `${/^[aeiou]/i.test(words) && !/^u(s|h)/i.test(words) ? 'an' : 'a'} ${words}`

/** "The 3 m lead carries 20 Gb/s at most ...": why a finding says what it says, as one or two sentences. */
export function sentence(finding: Finding, unit: LengthUnit = 'm'): string {
  return write(finding.reason, finding, unit)
}

function write(reason: Reason, finding: Finding, unit: LengthUnit): string {
  const { label } = finding.part
  const metres = (value: number): string => formatLength(value, unit)
  switch (reason.code) {
    case 'no-lead':
      return `${label} has no cable yet.`
    case 'mates':
      return reason.leads === 1 ? 'The lead fits both ports.' : `All ${reason.leads} leads fit from port to port.`
    case 'ends-do-not-mate':
      return `${article(describeEnd(reason.one)).replace(/^a/, 'A')} of ${reason.oneLabel} does not fit ${article(describeEnd(reason.other))} of ${reason.otherLabel}.`
    case 'port-taken':
      return `${label} is already used by ${reason.by}.`
    case 'lent':
      return `${label} is lent; it is not here until it comes back.`
    case 'to-buy':
      return `${label} (${metres(reason.length)}) is yet to be had${reason.price === null ? '' : `, for ${decimal(reason.price, 2)} ${reason.currency}`}.${reason.test ? ' Test it on the day it comes, while it can go back.' : ''}`
    case 'retired':
      return `${label} is retired and must not be used again.`
    case 'two-hosts':
      return reason.typeA
        ? `Both ends are type-A host ports: two sources would feed each other through this lead, and neither would see the other as a device.`
        : `Both ends are host ports; neither would see the other as a device.`
    case 'two-devices':
      return 'Both ends are device ports; nothing would drive the link.'
    case 'wrong-way-round':
      return `${label} is drawn from the device to the host; it runs the other way.`
    case 'one-way-lead':
      return `${label} carries one way only, from its ${describeEnd(reason.from)} to its ${describeEnd(reason.to)}, and lies the other way round here.`
    case 'right-way-round':
      return 'The one-way lead lies the way it carries.'
    case 'too-short':
      return `${metres(finding.have ?? 0)} of lead does not span a route of ${metres(reason.route)}.`
    case 'little-slack':
      return `${metres(finding.have ?? 0)} of lead spans the ${metres(reason.route)} but leaves less slack than this site keeps.`
    case 'no-way':
      return `No pathway leads from one end to the other any more; the length is the last that was known, ${metres(reason.route)}.`
    case 'free-section':
      return `${reason.cables} ${reason.cables === 1 ? 'cable takes' : 'cables take'} ${decimal(reason.taken, 0)} mm² of the ${decimal(reason.free, 0)} mm² that are free in ${reason.way}.`
    case 'not-listed':
      return `${label} does not list ${formatPictureMode(reason.mode)} among the modes it takes, as it was read on ${reason.read}; near it are ${reason.instead.map(({ width, height, refresh }) => `${width}x${height}@${decimal(refresh, 2)}`).join(', ')}.`
    case 'fewer-bits':
      return `${label} takes ${reason.most} bits per colour at most, as it was read on ${reason.read}; this picture has ${reason.asked}.`
    case 'no-hdr':
      return `${label} does not list high dynamic range, as it was read on ${reason.read}.`
    case 'hdr':
      return reason.read === null
        ? `Whether ${label} takes high dynamic range is not known: read its EDID, or look it up.`
        : `${label} takes high dynamic range, as it was read on ${reason.read}.`
    case 'hdr-version':
      return `${label} goes to ${reason.level}, as ports do that are older than ${reason.since}, the first that tells the other end of high dynamic range; look up its version.`
    case 'play-area':
      return reason.corners === 0
        ? 'The lead reaches every corner of the play area at head height.'
        : `At head height the lead does not reach ${reason.corners === 1 ? 'one corner' : `${reason.corners} corners`} of the play area: ${metres(reason.short)} are missing to the farthest.`
    case 'own-voltage':
      return `${label} asks for ${decimal(reason.volts, 1)} V of its own beside the link; this run brings none, so it takes a feed of its own.`
    case 'lacks-resistors':
      return `${label} lacks the two type-C resistors: a C-to-C lead gives it nothing, a lead from a type-A socket does.`
    case 'long-enough':
      return `${metres(finding.have ?? 0)} of lead spans the ${metres(reason.route)} with slack.`
    case 'charge-only':
      return `${label} is a charge-only lead: it fits and charges, and carries no data and no picture.`
    case 'unknown-lead':
      return `Nothing is known about what ${label} carries; nothing can be promised until it is tested.`
    case 'mode':
      return `Comes up as ${linkModeFacts[reason.mode].name}, the best both ports can do.`
    case 'falls':
      return `${lackSentence(reason.lack, label, unit)} ${reason.mode ? `It comes up as ${linkModeFacts[reason.mode].name}.` : 'No link comes up.'}`
    case 'rate':
      return writeRate(reason, finding, unit)
    case 'no-carrier':
      return writeNoCarrier(reason, label)
    case 'power':
      return writePower(reason, finding)
    case 'lead-without-power':
      return reason.optical
        ? `${label} is optical and carries no power; the device would have none.`
        : `${label} carries no power; the device would have none.`
    case 'no-supply':
      return `${label} gives no power.`
    case 'type-c-extension':
      return reason.allowed && reason.soaked
        ? `${label} is a type-C extension, outside the standard; this very chain has passed a soak, which this site accepts.`
        : `${label} is a type-C extension, outside the standard${reason.allowed ? '; this site accepts one only after this very chain has passed a soak of 60 s or more' : ', and this site never uses one'}.`
    case 'not-supplied':
      return reason.with
        ? `${label} came with ${reason.with}; this site uses only the lead supplied with a device of the run.`
        : `${label} came with no device; this site uses only supplied leads.`
    case 'bench-pass':
      return `${label} passed ${linkModeFacts[reason.mode].name} on the bench on ${reason.at.slice(0, 10)}, beyond the book. ${reason.counts ? "By this site's policy that counts." : 'This site goes by the book, so it does not count.'}`
    case 'conflict':
      return conflictSentence(reason.conflict, label)
    case 'hdmi-to-display':
      return `${label} is HDMI, and this display has DisplayPort too; straight DisplayPort is the surer way.`
    case 'on-add-in-card':
      return reason.avoided
        ? `${label} is on an add-in card, which this site uses only where no other port does it.`
        : `${label} is on an add-in card: some advise against them, some recommend one where board ports fail. This site goes by its own record.`
    case 'storage-band':
      return `Expect ${formatBytesPerSecond(reason.low)} to ${formatBytesPerSecond(reason.high)} (${reason.way}), limited by ${limitNames[reason.limitedBy]}${reason.overhead ? `, with this site's overhead of ${reason.overhead.low * 100} to ${reason.overhead.high * 100} %` : ''}; ${formatBytesPerSecond(finding.need ?? 0)} are asked.`
    case 'shared':
      return `${reason.count} needs share ${reason.link}; ${reason.down === 0 ? 'nothing is' : `${formatRate(reason.down)} are`} left toward the device end and ${formatRate(reason.up)} back.`
    case 'battery':
      return batterySentence(reason.course, reason.hours, finding)
    case 'volts-lost':
      return `${label} loses ${decimal(reason.total, 2)} V there and back at ${decimal(reason.amps, 2)} A, ${decimal(reason.watts, 1)} W of heat${reason.measured ? `, as measured on ${dayOf(reason.measured)}` : ''}; a cable may lose ${decimal(finding.need ?? 0, 2)} V on its supply.`
    case 'watts-seen':
      return `${formatWatts(finding.need ?? 0)} are asked. ${reason.by === 'run' ? `On this run ${formatWatts(finding.have ?? 0)} arrived` : `${label} let ${formatWatts(finding.have ?? 0)} through on this charger`} when it was measured on ${dayOf(reason.at)}${finding.grade === 'clear' ? '' : `; ${shortOfWatts(reason.charging, finding)}`}.`
    case 'watts-elsewhere':
      return `${label} let only ${formatWatts(reason.watts)} through on another charger on ${dayOf(reason.at)}. Measure it on this one: a limit may belong to one charger and one device.`
    case 'ran-hot':
      return `${label} ran hot on ${dayOf(reason.at)}${reason.strangeSupply ? ', on a supply that came from elsewhere' : ''}. Do not use it until somebody takes that reading back and says why.`
    case 'kind-ran-hot':
      return `${reason.count === 1 ? 'One cable' : `${reason.count} cables`} of this kind ran hot.`
    case 'copied':
      return writeCopied(reason, finding)
    case 'picture-seen':
      return writePictureSeen(reason, label)
    case 'doubted':
      return writeDoubt(reason, label)
    case 'bus-budget':
      return writeBudget(reason, finding)
    case 'lanes-left':
      return `The picture takes ${reason.lanes === 1 ? 'one lane' : `${reason.lanes} lanes`} of the type-C connector; beside it ${linkModeFacts[reason.beside].name} is left.`
    case 'converts-other-way':
      return `${label} converts DisplayPort into HDMI and not back; from an HDMI source it gives no picture.`
    case 'delay':
      return `At most ${decimal(reason.allowed, 2)} ms may be added; ${reason.hubs === 0 ? 'no hub lies' : reason.hubs === 1 ? '1 hub lies' : `${reason.hubs} hubs lie`} on the way. Measure it beside a direct lead, with the same settings.`
    case 'hubs':
      return `${reason.hubs} hubs, docks and active extensions lie in a row on this way; USB allows ${reason.most}.`
    case 'far-end-power':
      return `${label} ${reason.required ? 'needs' : 'may need'} a supply of its own at ${reason.place}, which ${reason.mains ? 'has mains' : 'has no mains'}.`
    case 'passes':
      return reason.copper
        ? 'The route joins places with different earths, and there is copper in this run: it can carry fault current.'
        : `The route ${surroundingNames[reason.what]}.`
    case 'optical':
      return 'Part of this run is optical.'
    case 'bend':
      return `${label} allows no bend tighter than ${decimal(reason.allowed, 0)} mm; the route has one of ${decimal(reason.bend, 0)} mm.`
    case 'plug-in-conduit':
      return `A moulded type-C plug does not pass ${conduitName(reason.way)} of ${decimal(reason.inner, 0)} mm.`
    case 'conduit-fill':
      return `${reason.cables} ${reason.cables === 1 ? 'cable fills' : 'cables fill'} ${decimal(reason.share * 100, 0)} % of ${conduitName(reason.way)}; ${decimal(reason.limit * 100, 0)} % is the usual most.`
    case 'history':
      return `Cables of this kind: ${reason.passed} of ${reason.tried} held ${linkModeFacts[reason.mode].name}${reason.controller ? ` on ${reason.controller}` : ''}.`
    case 'more-than-needed':
      return `${label} could carry more than these ports use (${reason.mode}); a dearer one adds nothing here, and a lesser one would do.`
    case 'no-path':
      return `There is no way of runs, docks and hubs from ${reason.from} to ${reason.to}.`
  }
}

const limitNames: Record<Limit, string> = {
  link: 'the link',
  share: 'what is left of the link',
  pcie: 'the lanes inside the enclosure',
  drive: 'the drive itself',
}

/** A conduit by the name of its pathway, where it is one. */
const conduitName = (way: string | null): string => (way === null ? 'a conduit' : `the conduit ${way}`)

const surroundingNames: Record<Surrounding, string> = {
  wall: 'passes a wall',
  ceiling: 'passes a ceiling',
  plenum: 'passes a plenum, where air is led',
  riser: 'passes a riser',
  conduit: 'passes a conduit; the plugs must pass it too',
  mains: 'lies beside mains',
  motors: 'lies beside motors or other gear that disturbs it',
  outdoors: 'passes outdoors',
  'other-earth': 'joins places with different earths; this run has no copper in it',
  'at-height': 'is laid at height',
  'play-area': 'ends in a play area',
  'open-floor': 'crosses an open floor',
}

function batterySentence(course: BatteryCourse, hours: number | null, finding: Finding): string {
  const figures = `${formatWatts(finding.have ?? 0)} arrive and ${formatWatts(finding.need ?? 0)} are drawn`
  if (course.course === 'holds') return `The battery holds: ${figures}.`
  if (course.course === 'charges') return `The battery charges, to about 92 %: ${figures}.`
  return `The battery drains though it is plugged in, and lasts about ${decimal(course.hours, 1)} h${hours === null ? '' : ` of the ${decimal(hours, 1)} h that are asked`}: ${figures}.`
}

/** Why a lead does not carry a mode. */
export function lackSentence(lack: LackFigures, label: string, unit: LengthUnit = 'm'): string {
  const mode = modeName(lack.mode)
  const metres = (value: number): string => formatLength(value, unit)
  switch (lack.why) {
    case 'grade':
      return `${label} (${lack.grade}) does not carry ${mode}.`
    case 'reach':
      return `By the book ${article(lack.passive ? 'passive' : lack.unfed ? 'active, unfed' : 'powered')} ${lack.grade} lead of this sort carries ${mode} to ${metres(lack.reach ?? 0)}; ${label} is ${metres(lack.length)}.`
    case 'chain':
      return `The leads up to ${label} make ${metres(lack.length)} in a row, more than ${mode} allows over passive leads (${metres(lack.reach ?? 0)} for this one alone).`
    case 'unfed':
      return `${label} needs a supply at its far end, and there is no mains there.`
    case 'failed': {
      const how = lack.failed?.dropped ? `dropped ${mode} here` : `was tried here at ${mode} and did not come up`
      const when = lack.failed ? ` on ${dayOf(lack.failed.at)}` : ''
      return `${label} ${how}${when}.${lack.failed?.stale ? ' The computer has changed since, so it is worth trying again.' : ''}`
    }
    case 'doubted':
      return `Nothing yet shows that ${label} holds ${mode} here.`
  }
}

const dayOf = (instant: string): string => instant.slice(0, 10)

/** What too few watts come to. */
const shortOfWatts = (charging: boolean, { grade }: Finding): string =>
  !charging ? 'the device may not start' : grade === 'tight' ? 'it charges slowly' : 'it does not charge under load'

function writeCopied({ way, at, by }: Extract<Reason, { code: 'copied' }>, finding: Finding): string {
  const rate = formatBytesPerSecond(finding.have ?? 0)
  const asked = `${formatBytesPerSecond(finding.need ?? 0)} are asked`
  const did = way === 'write' ? 'wrote' : 'read'
  if (by === 'run') return `This run ${did} ${rate} when it was measured on ${dayOf(at)}; ${asked}.`
  if (by === 'nothing')
    return `${finding.part.label} ${did} ${rate} on ${dayOf(at)}: no faster than USB 2.0, though the disk does more. Copy again with another cable to see which is to blame; ${asked}.`
  const lead = `${finding.part.label} ${did} ${rate} at most on ${dayOf(at)}, and it was the limit`
  if (by === 'lead') return `${lead}; ${asked}.`
  return finding.grade === 'tight'
    ? `${lead}. Between other ports it did better, and nothing explains why: copy files over this run to settle it. ${asked}.`
    : `${lead}, between other ports; ${asked}.`
}

function writePictureSeen(reason: Extract<Reason, { code: 'picture-seen' }>, label: string): string {
  if (reason.mode && reason.at)
    return `The picture ${formatPictureMode(reason.mode)} did not hold over ${label} on ${dayOf(reason.at)}.${reason.stale ? ' The computer has changed since, so it is worth trying again.' : ''}`
  return `A picture like this over ${label} ${triedElsewhere(reason)}. Try it in this one.`
}

/** "held in 1 of 3 other sockets". */
const triedElsewhere = ({ held, failed }: { held: number; failed: number }): string =>
  held + failed === 1
    ? `${held === 1 ? 'held' : 'failed'} in the one other socket it was tried in`
    : `held in ${held} of the ${held + failed} other sockets it was tried in`

function writeDoubt({ why, held, failed, mode }: Extract<Reason, { code: 'doubted' }>, label: string): string {
  const name = mode === null ? 'what is asked' : linkModeFacts[mode].name
  switch (why) {
    case 'elsewhere':
      return held + failed === 0
        ? `${label} was tried in other sockets only. Try it in this one.`
        : `${label}: ${name} ${triedElsewhere({ held, failed })}. Try it in this one.`
    case 'short look':
      return `${label} came up as ${name}, and nobody watched it for 60 s. A marginal cable drops after that.`
    case 'changed':
      return `${label} held ${name} before the computer changed. Prove it again.`
    case 'drops':
      return `${label} comes up faster here and drops. What asks for less is not safe either until it was seen to hold at ${name}.`
  }
}

function writeBudget(reason: Extract<Reason, { code: 'bus-budget' }>, { need, have, part }: Finding): string {
  const takers = [
    reason.ownSupply ? 'for the device' : 'for the hub itself',
    ...(reason.leads > 0 ? [reason.leads === 1 ? 'the active lead' : `${reason.leads} active leads`] : []),
    ...(reason.count > 0 ? [`${reason.count} behind it`] : []),
  ]
  const who = reason.ownSupply ? `${part.label} shares the bus with its lead` : `${part.label} has no supply of its own`
  return `${who}: ${formatWatts(need ?? 0)} ${takers.join(' and ')}, of ${formatWatts(have ?? 0)} that arrive.`
}

function writeRate(reason: Extract<Reason, { code: 'rate' }>, finding: Finding, unit: LengthUnit): string {
  const have = finding.have ?? 0
  const need = finding.need ?? 0
  const figure = (rate: number): string =>
    reason.kind === 'storage' ? `${formatBytesPerSecond(rate)} (${formatRate(rate)})` : formatRate(rate)
  const compressed =
    reason.compressedBits === null ? '' : `, compressed to ${decimal(reason.compressedBits, 2)} bits a pixel,`
  const what = reason.picture
    ? `The picture ${formatPictureMode(reason.picture)}${compressed}`
    : `The ${needNames[reason.kind]}`
  const shared = reason.before > 0 ? ` after ${formatRate(reason.before)} for what goes before it` : ''
  const link = `${reason.carrier} leaves ${figure(have)}${shared}`
  if (have >= need) return `${what} needs ${figure(need)}; ${link}.`
  const why = reason.lack ? ` ${lackSentence(reason.lack, finding.part.label, unit)}` : ''
  return `${what} needs ${figure(need)}, and ${link}.${why}`
}

function writeNoCarrier({ kind, cause }: Extract<Reason, { code: 'no-carrier' }>, label: string): string {
  const what = needNames[kind]
  if (cause === 'charge-only') return `${label} is a charge-only lead; the ${what} finds nothing to travel on.`
  if (cause === 'unknown-lead')
    return `Nothing is known about what ${label} carries, so nothing promises the ${what} a way.`
  if (cause === 'nothing-common') return `The two ports have nothing in common that could carry the ${what}.`
  return `No link comes up that could carry the ${what}.`
}

function writePower(reason: Extract<Reason, { code: 'power' }>, finding: Finding): string {
  const have = formatWatts(finding.have ?? 0)
  const arrive = `${have} ${finding.have ? 'arrive' : 'arrives'}`
  const need = formatWatts(finding.need ?? 0)
  const level = `${decimal(reason.volts, 1)} V x ${decimal(reason.amps, 2)} A`
  const enough = (finding.have ?? 0) >= (finding.need ?? 0)
  if (enough) return `${need} are asked and ${have} can arrive (${level}).`
  const effect = !reason.charging
    ? 'the device may not start'
    : finding.grade === 'tight'
      ? 'it charges slowly'
      : 'it does not charge under load'
  if (reason.limit === 'device') {
    return `${need} are asked and ${arrive}: ${finding.part.label} does not accept the higher levels of this supply; ${effect}.`
  }
  if (reason.limit === 'supply')
    return `${need} are asked and ${finding.part.label} gives ${have} at most (${level}); ${effect}.`
  const mark = reason.unmarked
    ? `${finding.part.label} has no 5 A mark, and an unmarked lead carries 3 A at most`
    : `${finding.part.label} is marked for ${decimal(reason.amps, 1)} A`
  return `${need} are asked and ${arrive} (${level}): ${mark}; ${effect}.`
}

/** Which two pieces of evidence on a lead cannot both be right, and which is believed. */
export const conflictSentence = ({ about, believed, overruled }: Conflict, label: string): string =>
  `Evidence on ${label} disagrees about its ${conflictNames[about]}: ${basisNames[overruled.basis]} says ${conflictValue(about, overruled.value)}, ${basisNames[believed.basis]} says ${conflictValue(about, believed.value)}; the latter is believed.`

const conflictNames = { grade: 'rate', amps: 'current', volts: 'voltage' } as const
const conflictValue = (about: keyof typeof conflictNames, value: string | number): string =>
  about === 'grade' ? gradeFacts[value as CableGrade].name : `${value} ${about === 'amps' ? 'A' : 'V'}`
