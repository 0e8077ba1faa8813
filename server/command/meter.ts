import { createInterface } from 'node:readline'
import type { Readable } from 'node:stream'
import { setTimeout as wait } from 'node:timers/promises'
import { SIMULATED_LEADS, type SimulatedLead, sampleAt } from '../../core/bench/simulated-lead'
import { gather, isDrop, nothingGathered, parseInstrumentLine, toWrite } from '../../core/prove/instrument-lines'
import { foldTag } from '../../core/vocabulary/fields'
import { Failure } from '../failure'

export type MeterOptions = { to?: string; name?: string; simulate?: string; seconds?: string; pace?: string }

/** A link that flaps tells of it many times a second; that it dropped is told once in so long. */
const DROP_AGAIN_MS = 1000

/**
 * A person's own script as an instrument: JSON lines from standard input become drops of the soak that runs, and at their end one reading for each thing that was
 * measured. `--simulate` prints such lines instead, of a lead that behaves or does not.
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
  const site = siteAddress(options.to)
  const page = `${site}/prove/${encodeURIComponent(await runId(site, run))}`
  const gathered = nothingGathered()
  const name = options.name ?? 'script'
  let lastDrop = 0
  for await (const text of createInterface({ input, crlfDelay: Number.POSITIVE_INFINITY })) {
    if (text.trim() === '') continue
    const line = parseInstrumentLine(text)
    if (line === null) {
      gathered.rubbish += 1
      if (gathered.rubbish === 1) say(`A line was passed over: it is no reading ("${text.slice(0, 60)}").`)
      continue
    }
    gather(gathered, line)
    if (!isDrop(line) || Date.now() - lastDrop < DROP_AGAIN_MS) continue
    lastDrop = Date.now()
    say((await send(page, { intent: 'drop' })) ?? 'A drop was noted.')
  }
  let wrong = 0
  for (const { test, value, note } of toWrite(gathered)) {
    const problem = await send(page, {
      intent: 'result',
      test,
      value,
      note,
      instrument: name,
      ...(gathered.simulated ? { simulated: 'on' } : {}),
    })
    if (problem) wrong += 1
    say(problem ? `${test}: ${problem}` : `${test}: ${note}. Written down.`)
  }
  if (gathered.rubbish > 1) say(`${gathered.rubbish} lines were no readings.`)
  return wrong > 0 ? 1 : 0
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

/** The id of a run by its tag. */
async function runId(site: string, tag: string): Promise<string> {
  const answer = await fetch(`${site}/plan.json`).catch(() => null)
  if (!answer?.ok) throw new Failure(`${site} does not answer: is Hallway running there?`)
  const plan = (await answer.json()) as { runs?: { id: string; tag: string }[] }
  const run = plan.runs?.find((each) => foldTag(each.tag) === foldTag(tag) || each.id === tag)
  if (!run) throw new Failure(`The site has no run ${tag.slice(0, 40)}.`)
  return run.id
}

/** Sends a form; answers what was wrong, or null. */
async function send(page: string, form: Record<string, string>): Promise<string | null> {
  const answer = await fetch(page, {
    method: 'POST',
    body: new URLSearchParams({ ...form, change: crypto.randomUUID() }),
    headers: { Origin: new URL(page).origin },
    redirect: 'manual',
  }).catch(() => null)
  if (!answer) return 'Hallway does not answer, so this was not written down.'
  if (answer.status === 302) return null
  return reasonIn(await answer.text()) ?? `it was refused (${answer.status})`
}

const REASON = { from: 'This does not fit the site: ', to: 'Nothing was saved.' }
const LONGEST_REASON = 600

/** Why a form was refused, as the page that answers it says. */
function reasonIn(page: string): string | null {
  const from = page.indexOf(REASON.from)
  const to = page.indexOf(REASON.to, from)
  return from >= 0 && to > from ? page.slice(from, Math.min(to + REASON.to.length, from + LONGEST_REASON)) : null
}

/** What a sound lead would show, in figures made up for the trial. */
const SOUND = { mode: 'usb4-40', write: 2800, read: 3000, watts: 94, voltsLost: 0.31, picture: true } as const

/** Lines as an instrument would print them, of a lead that behaves or does not; the same seed prints the same. */
async function simulate({ simulate: how, seconds, pace, name = 'lead' }: MeterOptions, say: (text: string) => void) {
  const lead = SIMULATED_LEADS.find((each): each is SimulatedLead => each === how)
  if (!lead) throw new Failure(`A simulated lead is one of these: ${SIMULATED_LEADS.join(', ')}.`)
  const [length, speed] = [Number(seconds ?? 120), Number(pace ?? 1)]
  if (!(length >= 1 && length <= 864_000 && speed > 0 && speed <= 1e6))
    throw new Failure('It runs from 1 to 864000 seconds, at a pace above 0.')
  let up = true
  for (let at = 0; at <= length; at += 1) {
    const sample = sampleAt(at, name, lead, SOUND)
    const dropped = up && sample.mode === null
    up = sample.mode !== null
    say(
      JSON.stringify({
        write: sample.write,
        read: sample.read,
        watts: sample.watts,
        celsius: sample.celsius,
        ...(dropped ? { drop: true } : {}),
        simulated: true,
      }),
    )
    await wait(1000 / speed)
  }
  return 0
}
