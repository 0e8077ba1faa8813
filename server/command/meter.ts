import { createInterface } from 'node:readline'
import type { Readable } from 'node:stream'
import { setTimeout as wait } from 'node:timers/promises'
import { SIMULATED_INSTRUMENTS, simulatedLine } from '../../core/bench/simulated-instruments'
import { SIMULATED_LEADS } from '../../core/bench/simulated-lead'
import { isFrame, parseInstrumentLine } from '../../core/series/instrument-lines'
import { Failure } from '../failure'
import { InstrumentSender } from './instrument-sender'

export type MeterOptions = {
  to?: string
  name?: string
  simulate?: string
  as?: string
  seconds?: string
  pace?: string
}

/**
 * A person's own script as an instrument: JSON lines, or server-sent events, from standard input are kept as readings of a run while they come, a drop is noted in
 * the soak that runs, and at their end one figure for each thing that was measured. `--simulate` prints such lines instead, of a lead that behaves or does not.
 */
export async function meterCommand(
  run: string | undefined,
  options: MeterOptions,
  say: (text: string) => void,
  input: Readable = process.stdin,
): Promise<number> {
  if (options.simulate !== undefined) return simulate(options, say)
  if (run === undefined || options.to === undefined)
    throw new Failure('Say which run, and where: ./hallway meter R-07 --to http://127.0.0.1:4310/sites/my-site')
  const lines = createInterface({ input, crlfDelay: Number.POSITIVE_INFINITY })
  const sender = new InstrumentSender(
    `${siteAddress(options.to)}/instrument`,
    run,
    options.name ?? 'script',
    say,
    () => {
      lines.close()
      input.destroy()
    },
  )
  let rubbish = 0
  for await (const text of lines) {
    if (isFrame(text)) continue
    const reading = parseInstrumentLine(text)
    if (reading === null) {
      rubbish += 1
      if (rubbish === 1) say(`A line was passed over: it is no reading ("${text.slice(0, 60)}").`)
      continue
    }
    // its own instant, however late it is sent
    sender.take({ ...reading, at: reading.at ?? new Date().toISOString() })
    if (sender.stopped) break
  }
  if (rubbish > 1) say(`${rubbish} lines were no readings.`)
  return (await sender.end()) ? 0 : 1
}

/** The address of a site, as it stands in the browser. */
function siteAddress(to: string): string {
  try {
    const { origin, pathname, protocol } = new URL(to)
    const found = /^\/sites\/[^/]+/.exec(pathname)
    if (found && /^https?:$/.test(protocol)) return `${origin}${found[0]}`
  } catch {
    // told below
  }
  throw new Failure(
    `"${to.slice(0, 60)}" is not the address of a site. Copy it from the browser: http://127.0.0.1:4310/sites/my-site`,
  )
}

/** Lines as an instrument would print them, of a lead that behaves or does not; the same seed prints the same. */
async function simulate(
  { simulate: how, as = 'bench', seconds, pace, name = 'lead' }: MeterOptions,
  say: (text: string) => void,
) {
  const lead = SIMULATED_LEADS.find((each) => each === how)
  if (!lead) throw new Failure(`A simulated lead is one of these: ${SIMULATED_LEADS.join(', ')}.`)
  const instrument = SIMULATED_INSTRUMENTS.find((each) => each === as)
  if (!instrument) throw new Failure(`A simulated instrument is one of these: ${SIMULATED_INSTRUMENTS.join(', ')}.`)
  const [length, speed] = [Number(seconds ?? 120), Number(pace ?? 1)]
  if (!(length >= 1 && length <= 864_000 && speed > 0 && speed <= 1e6))
    throw new Failure('It runs from 1 to 864000 seconds, at a pace above 0.')
  for (let at = 0; at <= length; at += 1) {
    say(JSON.stringify(simulatedLine(instrument, at, name, lead)))
    await wait(1000 / speed)
  }
  return 0
}
