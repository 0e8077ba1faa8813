import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { within } from '../../app/address'
import { mappingFrom } from '../../app/csv/preview'
import { kindFormSchema } from '../../app/routes/drawer/catalogue/kind-form'
import { readValue } from '../../core/bench/read-value'
import { parseEnd } from '../../core/drawer/end-text'
import { readLog } from '../../core/faults/log-lines'
import { readSaid } from '../../core/faults/said'
import { filesFromText, readClassFolder } from '../../core/identity/class-folder'
import { readFromDevice } from '../../core/identity/device-reading'
import { parseJob } from '../../core/match/job-text'
import { parseNeedSize } from '../../core/needs/need-text'
import { parsePictureMode } from '../../core/picture/mode-text'
import { slugOf } from '../../core/plan/free-id'
import { readPlanText } from '../../core/plan/read'
import { parseRepeats } from '../../core/prove/before-after'
import { PASTED_KINDS, readPasted } from '../../core/prove/pasted'
import { parseDuration } from '../../core/quantity/duration'
import { parseLength } from '../../core/quantity/length'
import { parseRate } from '../../core/quantity/rate'
import { parseWatts } from '../../core/quantity/watts'
import { parseInstrumentLine } from '../../core/series/instrument-lines'
import { parseMark, parsePowerMark } from '../../core/standards/mark-text'
import { cases } from '../support/laws'

/** Everything that takes a text somebody typed or sent. */
const readers: Record<string, (text: string) => unknown> = {
  length: parseLength,
  rate: parseRate,
  watts: parseWatts,
  picture: parsePictureMode,
  need: (text) => parseNeedSize('camera', text),
  job: parseJob,
  end: parseEnd,
  mark: parseMark,
  'power mark': parsePowerMark,
  kind: (text) => kindFormSchema('m').safeParse({ name: 'kind', stock: text }),
  'class folder as text': (text) => readClassFolder(filesFromText(text)),
  'class folder path': (text) => readClassFolder([{ path: text, text: '0x0' }]),
  plan: readPlanText,
  slug: (text) => slugOf(text, 'site'),
  duration: parseDuration,
  repeats: parseRepeats,
  'line of an instrument': parseInstrumentLine,
  'log of a computer': readLog,
  'log or listing': readSaid,
  ...Object.fromEntries(
    PASTED_KINDS.map((kind) => [
      `pasted ${kind}`,
      (text: string) =>
        readPasted(
          { kind, spoken: ['usb2'], mode: { width: 3840, height: 2160, refresh: 60, bits: 8, chroma: '444' } },
          text,
        ),
    ]),
  ),
  battery: (text) => readValue({ kind: 'battery' }, text),
  'volts lost': (text) => readValue({ kind: 'volts lost', amps: 3 }, text),
  frames: (text) => readValue({ kind: 'frames' }, text),
  'added delay': (text) => readValue({ kind: 'added delay' }, text),
  sight: (text) => readValue({ kind: 'sight' }, text),
  probe: (text) => readFromDevice(new TextEncoder().encode(`"hallway-probe" ${text}`)),
  address: within,
  column: (text) => {
    const form = new FormData()
    form.set(`column ${text}`, text)
    return mappingFrom(form)
  },
}

/** Pieces that patterns may take in more than one way, repeated: what makes a reader go back over its text is made of these. */
const piece = fc.constantFrom(
  ' ',
  '\t',
  '1',
  '0.',
  "1'",
  '4 m',
  'x',
  '@',
  '+',
  ' w',
  '/',
  'port0-cable/',
  '-',
  '\n',
  '{"a":',
  '[',
  'é',
  '"',
)

const SHORT = 20_000
/** Twice the text takes twice as long; four times as long is what going back over it takes. Between them lies noise. */
const NOT_LINEAR = 3.2
/** Below this a clock says nothing. */
const TELLING_MS = 12

function best(work: () => void): number {
  let least = Number.POSITIVE_INFINITY
  for (let go = 0; go < 4; go += 1) {
    const started = performance.now()
    work()
    least = Math.min(least, performance.now() - started)
  }
  return least
}

describe('a reader takes no longer than its text', () => {
  it.each(Object.entries(readers))('%s', (_name, read) => {
    fc.assert(
      fc.property(fc.array(piece, { minLength: 1, maxLength: 3 }), piece, (pieces, end) => {
        const unit = pieces.join('')
        const text = (length: number): string => unit.repeat(Math.ceil(length / unit.length)) + end
        const [once, twice] = [text(SHORT), text(2 * SHORT)]
        const ratio = (): number => {
          const long = best(() => void read(twice))
          return long < TELLING_MS ? 1 : long / best(() => void read(once))
        }
        // a machine that is busy elsewhere is slow once; a reader that goes back over its text is slow each time
        const ratios = [ratio()]
        while ((ratios.at(-1) ?? 0) >= NOT_LINEAR && ratios.length < 4) ratios.push(ratio())
        expect(Math.min(...ratios)).toBeLessThan(NOT_LINEAR)
      }),
      { numRuns: cases(60) },
    )
  })
})
