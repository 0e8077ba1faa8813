import type { Crossed } from '../../core/link/admission'
import { admit } from '../../core/link/uplink'
import { alternatives, fitThrough } from '../../core/picture/fit'
import { type LinkSpec, linkFacts, parseLinkSpec } from '../../core/picture/link-spec'
import { formatPictureMode, parsePictureMode } from '../../core/picture/mode-text'
import { sharePictures } from '../../core/picture/time-slots'
import { CVT_STANDARDS, ctaTiming, cvtTiming, streamRate, type Timing } from '../../core/picture/timing'
import { formatRate, MEGABYTE_PER_SECOND } from '../../core/quantity/rate'
import { type LinkMode, linkModeFacts } from '../../core/standards/link-modes'
import { predictStorage } from '../../core/storage/storage'
import { TUNNELS, type Tunnel } from '../../core/tunnel/tunnel'
import type { Need, PictureMode } from '../../core/vocabulary/need'
import { defaultPolicy } from '../../core/vocabulary/policy'
import { Failure } from '../failure'
import { type Answer, listOf, modeOf, must, needText, numberOf, oneOf, textOf, type Words } from './calc-words'

const megahertz = (hertz: number): string => `${Number((hertz / 1e6).toFixed(3))} MHz`

function timingBy(words: Words, mode: PictureMode | null): Timing {
  const standard = textOf(words, 'standard') ?? 'cvt-rb2'
  const vic = /^vic:(\d+)$/.exec(standard)
  if (vic) return must(ctaTiming(Number(vic[1])))
  if (mode === null) throw new Failure('One picture mode, please, such as 3840x2160@60; only vic:N needs none.')
  return cvtTiming(mode, oneOf(words, 'standard', CVT_STANDARDS, 'cvt-rb2'))
}

export function timingCalc(words: Words): Answer {
  const mode = words.positionals.length === 0 ? null : modeOf(words)
  const { pixelClockHz, hTotal, vTotal, refreshHz } = timingBy(words, mode)
  return {
    json: { pixelClockHz, hTotal, vTotal, refreshHz: Number(refreshHz.toFixed(5)) },
    text: [`${megahertz(pixelClockHz)}, ${hTotal} x ${vTotal} in all, ${refreshHz.toFixed(3)} Hz`],
  }
}

export function streamCalc(words: Words): Answer {
  const mode = modeOf(words)
  const bitsPerSecond = streamRate(mode, timingBy(words, mode))
  return { json: { bitsPerSecond }, text: [`${formatPictureMode(mode)} streams ${formatRate(bitsPerSecond)}`] }
}

export function fitCalc(words: Words): Answer {
  const mode = modeOf(words)
  const ends = { compression: words.values.dsc === true }
  const specs = listOf(words, 'link').map((text) => must(parseLinkSpec(text)))
  if (specs.some((spec, at) => spec.family === 'hdmi' && specs[at + 1]?.family === 'displayport'))
    throw new Failure('Adapters turn DisplayPort into HDMI; HDMI into DisplayPort takes a converter made for it.')
  // through an adapter a picture passes two links, and the one that leaves it less decides
  const { spec, fit } = fitThrough(mode, specs, ends) ?? noLink()
  const { fits, need, have, compressedBits } = fit
  const instead = alternatives(mode, spec, ends)
  const how = compressedBits === null ? '' : ` with compression to ${compressedBits} bits a pixel`
  return {
    json: {
      fits,
      link: linkFacts(spec).name,
      need,
      have,
      margin: have - need,
      compressedBits,
      instead: instead.map((one) => ({
        mode: formatPictureMode(one.mode),
        concession: one.concession,
        need: one.fit.need,
      })),
    },
    text: [
      `${formatPictureMode(mode)} ${fits ? `fits${how}` : 'does not fit'}: it needs ${formatRate(need)}, ${linkFacts(spec).name} carries ${formatRate(have)}`,
      ...instead.map(
        (one) => `  instead, ${one.concession}: ${formatPictureMode(one.mode)} (${formatRate(one.fit.need)})`,
      ),
    ],
  }
}

function noLink(): never {
  throw new Failure('--link is missing, such as --link dp:hbr3x4; give a second one for what lies behind an adapter.')
}

function displayPort(text: string): Extract<LinkSpec, { family: 'displayport' }> {
  const spec = must(parseLinkSpec(text))
  if (spec.family !== 'displayport') throw new Failure('Several displays share a DisplayPort link; HDMI carries one.')
  return spec
}

export function mstCalc(words: Words): Answer {
  const spec = displayPort(needText(words, 'link'))
  if (words.positionals.length === 0) throw new Failure('One picture mode or more, please, such as 2560x1440@60.')
  const plan = sharePictures(
    spec,
    words.positionals.map((text) => ({ mode: must(parsePictureMode(text)), compression: words.values.dsc === true })),
  )
  return {
    json: {
      slots: plan.slots,
      used: plan.used,
      pictures: plan.shares.map(({ mode, pbn, slots, fits, compressedBits }) => ({
        mode: formatPictureMode(mode),
        pbn,
        slots,
        fits,
        compressedBits,
      })),
    },
    text: [
      ...plan.shares.map(
        ({ mode, pbn, slots, fits, compressedBits }) =>
          `${fits ? 'fits   ' : 'refused'} ${formatPictureMode(mode)}: PBN ${pbn}, ${slots} time slots${compressedBits === null ? '' : `, compressed to ${compressedBits} bits a pixel`}`,
      ),
      `${plan.used} of ${plan.slots} time slots used`,
    ],
  }
}

export function tunnelCalc(words: Words): Answer {
  const tunnel = oneOf(words, 'link', TUNNELS, '40')
  const reservation = oneOf(words, 'reserve', ['link', 'stream'], defaultPolicy.reservation)
  const crossings = listOf(words, 'picture').map((text, at): Crossed => {
    const [modeText = '', linkText = 'hbr3x4'] =
      text.split(':').length > 1
        ? [text.slice(0, text.lastIndexOf(':')), text.slice(text.lastIndexOf(':') + 1)]
        : [text]
    const { link, lanes } = displayPort(linkText)
    const mode = must(parsePictureMode(modeText))
    const need: Need = { id: `picture-${at}`, kind: 'picture', from: 'host', to: 'dock', mode }
    return { need, way: 'down', ends: { link, lanes } }
  })
  const mode = tunnelModes[tunnel]
  const { payload, name, source } = linkModeFacts[mode]
  const { admissions, left } = admit(crossings, {
    mode,
    tunnel,
    pair: true,
    picture: { payload, name, source, via: 'tunnel', spec: null, stages: [], compression: false },
    onDataPins: true,
    reservation,
  })
  const pictures = admissions.flatMap(({ need, asked, held, admitted, spec }) =>
    need.kind === 'picture'
      ? {
          mode: formatPictureMode(need.mode),
          wanted: asked.down,
          step: spec?.family === 'displayport' ? `${spec.link}x${spec.lanes}` : null,
          at: spec && linkFacts(spec).name,
          reserved: held.down,
          fits: admitted,
        }
      : [],
  )
  const storage = textOf(words, 'storage') === undefined ? null : storageBeside(words, tunnel, left)
  return {
    json: { pictures: pictures.map(({ at: _, ...picture }) => picture), left, ...(storage ? { storage } : {}) },
    text: [
      ...pictures.map(({ mode, wanted, at, reserved, fits }) => {
        const step = at === null ? 'refused' : `at ${at}, reserving ${formatRate(reserved)}`
        return `${fits ? 'fits ' : 'FALLS'} ${mode} (${formatRate(wanted)}) ${step}`
      }),
      `left toward the dock ${formatRate(left.down)}, back ${formatRate(left.up)}`,
      ...(storage ? [`storage: write ${storage.write.join(' to ')} MB/s, read ${storage.read.join(' to ')} MB/s`] : []),
    ],
  }
}

/** The mode in which each tunnel comes up. */
const tunnelModes = {
  '20': 'usb4-20',
  '40': 'usb4-40',
  '80': 'usb4-80',
  '120/40': 'usb4-80',
} as const satisfies Record<Tunnel, LinkMode>

function storageBeside(words: Words, tunnel: Tunnel, left: { down: number; up: number }) {
  const drive = numberOf(words, 'storage', 1, 100_000) * MEGABYTE_PER_SECOND
  const { write, read } = predictStorage({
    mode: tunnelModes[tunnel],
    share: { write: left.down, read: left.up },
    drive: { write: drive, read: drive },
    pcie: { generation: tunnel.length > 2 || tunnel === '80' ? 4 : 3, lanes: 4 },
  })
  const megabytes = (rate: number): number => Math.round(rate / MEGABYTE_PER_SECOND)
  return {
    write: [megabytes(write.low), megabytes(write.high)],
    read: [megabytes(read.low), megabytes(read.high)],
    limitedBy: { write: write.limitedBy, read: read.limitedBy },
  }
}
