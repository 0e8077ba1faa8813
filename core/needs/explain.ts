import { bitsPerPixel, cvtTiming, streamRate } from '../picture/timing'
import { decimal, type Parsed, parsed } from '../quantity/parsed'
import { type BitsPerSecond, formatBytesPerSecond, formatRate } from '../quantity/rate'
import { formatWatts, type Watts } from '../quantity/watts'
import { citeSource, commonPractice, fromMemory, published, type Source } from '../standards/source'
import { HDR_BITS, type NeedKind } from '../vocabulary/need'
import { eachWay, type NeedSize, parseNeedSize, workedOut } from './need-text'

/** What a need comes to, in the three figures people think in, and how it was worked out. */
export type Explained = {
  size: NeedSize
  rate: BitsPerSecond | null
  /** What is read back, where that is another rate than is written. */
  back: BitsPerSecond | null
  watts: Watts | null
  /** The arithmetic, a line each, with who says so. */
  steps: readonly { words: string; source: string }[]
}

const decimalUnits = commonPractice('decimal units: 1 GB = 10^9 B, 1 MB/s = 8 Mb/s')
const cvt = published('VESA CVT 1.2, reduced blanking v2')
const highRange = fromMemory('ITU-R BT.2100')
const layout = commonPractice('raw frames are size x frames a second x bits a pixel')
const onPlug = commonPractice('data sheets of sensors and plain devices name the rate on the plug')
const battery = commonPractice('a headset that gets what it draws holds; more charges it, to about 92 %')
const powerRules = commonPractice('what the device asks is on its plate or its charger')

/** Reads the size of a need, or of so many alike, and explains it: every figure in Gb/s, MB/s or W, with the formula and its source. */
export function explainNeed(kind: NeedKind, text: string, count = 1): Parsed<Explained> {
  const size = parseNeedSize(kind, text)
  if (!size.ok) return size
  const one = explained(size.value, text)
  return parsed(count === 1 ? one : times(one, count))
}

function times({ size, rate, back, watts, steps }: Explained, count: number): Explained {
  const sum = (one: string, all: string) => ({
    words: `${count} x ${one} = ${all}`,
    source: citeSource(decimalUnits),
  })
  return {
    size,
    rate: rate === null ? null : rate * count,
    back: back === null ? null : back * count,
    watts: watts === null ? null : watts * count,
    steps: [
      ...steps,
      ...(rate === null ? [] : [sum(formatRate(rate), formatRate(rate * count))]),
      ...(watts === null ? [] : [sum(formatWatts(watts), formatWatts(watts * count))]),
    ],
  }
}

function explained(size: NeedSize, text: string): Explained {
  const watts = ('watts' in size ? size.watts : undefined) ?? null
  const steps: Explained['steps'][number][] = []
  const tell = (words: string, source: Source): void => void steps.push({ words, source: citeSource(source) })
  if (size.kind === 'picture') {
    const timing = cvtTiming(size.mode)
    const rate = streamRate(size.mode)
    tell(
      `${timing.hTotal} x ${timing.vTotal} pixels with blanking x ${decimal(timing.refreshHz, 3)} Hz = ${decimal(timing.pixelClockHz / 1e6, 3)} MHz`,
      cvt,
    )
    tell(
      `${decimal(timing.pixelClockHz / 1e6, 3)} MHz x ${decimal(bitsPerPixel(size.mode), 2)} bits a pixel = ${formatRate(rate)}`,
      cvt,
    )
    if (size.mode.hdr) tell(`high dynamic range: ${HDR_BITS} bits per colour or more`, highRange)
    return { size, rate, back: null, watts, steps }
  }
  if (size.kind === 'power') {
    tell(`${size.watts} W have to arrive`, powerRules)
    return { size, rate: null, back: null, watts, steps }
  }
  const [sizeText = ''] = text.split('+')
  const each = size.kind === 'storage' ? eachWay(sizeText) : null
  const back = (size.kind === 'storage' ? size.back : undefined) ?? null
  const tellRate = (said: string, rate: BitsPerSecond): void => {
    const worked = workedOut(size.kind, said)
    if (worked?.ok) tell(worked.value.steps, size.kind === 'camera' ? layout : decimalUnits)
    else if (size.kind === 'sensor' || size.kind === 'data') tell(`${formatRate(rate)} on the plug`, onPlug)
    else tell(`${formatRate(rate)} / 8 = ${formatBytesPerSecond(rate)}`, decimalUnits)
  }
  tellRate(each?.write ?? sizeText, size.rate)
  if (each) tellRate(each.read, back ?? size.rate)
  if (watts !== null) tell(`${watts} W beside the data`, size.kind === 'headset' ? battery : powerRules)
  return { size, rate: size.rate, back, watts, steps }
}
