import { randomUUID } from 'node:crypto'
import { setTimeout as wait } from 'node:timers/promises'
import { COPY_SHAPE } from '../../app/site-copy'
import { demo } from './demo-plan'
import { formOfRun, type SentRun } from './run-form'
import type { StallingLine } from './stalling-line'

// What people send while something behind Hallway stands still, and what they are answered.

const runs = demo.runs as unknown as SentRun[]
const SITE = '/sites/saltmarsh'
const PAGES = [
  '',
  '/drawer',
  '/survey',
  '/history',
  '/order',
  '/record',
  '/prove',
  '/handover',
  `/copy?shape=${COPY_SHAPE}`,
  '/plan.json',
  '/find?q=dock',
]

export type Sent = { change: string; run: SentRun; note: string }
export type Answered = {
  what: 'page' | 'save'
  status: number
  text: string
  seconds: number
  /** It came while the line stood still, or before. */
  inTime: boolean
  sent?: Sent
}

/** A note on a run that nobody else writes on, as its page sends it. */
export function newSave(number: number): Sent {
  const change = randomUUID()
  // what stands so already would be no change
  return { change, run: runs[number % runs.length] as SentRun, note: `stalls: ${change}` }
}

export async function save(
  address: string,
  { change, run, note }: Sent,
  base: string,
): Promise<{ status: number; text: string }> {
  const body = formOfRun(run, { base, note, change })
  const answer = await fetch(`${address}${SITE}/runs/${run.id}`, { method: 'POST', body, redirect: 'manual' })
  return { status: answer.status, text: await answer.text() }
}

/** Where the site stands, for what is sent from its pages. */
export async function placeOf(address: string): Promise<string> {
  const page = await (await fetch(`${address}${SITE}/drawer`)).text()
  return /data-copy-place="(\d+)"/.exec(page)?.[1] ?? '1'
}

/** A line stands still for so long at most; nobody waits for it until then. */
const LONGEST_STALL_MS = 30_000

/** Pages and saves are under way when the line to the database stands still. It goes on once all of them are answered, or after a long while. */
export async function throughStall(
  address: string,
  line: StallingLine,
  { pages, saves, afterMs, number }: { pages: number; saves: number; afterMs: number; number: number },
): Promise<Answered[]> {
  const base = await placeOf(address)
  let wentOn = false
  const goOn = () => {
    wentOn = true
    line.goOn()
  }
  const timed = async (
    what: Answered['what'],
    work: () => Promise<{ status: number; text: string }>,
    sent?: Sent,
  ): Promise<Answered> => {
    const began = performance.now()
    const { status, text } = await work()
    return {
      what,
      status,
      text,
      seconds: (performance.now() - began) / 1000,
      inTime: !wentOn,
      ...(sent ? { sent } : {}),
    }
  }
  const under = [
    ...Array.from({ length: pages }, (_, at) =>
      timed('page', async () => {
        const answer = await fetch(`${address}${SITE}${PAGES[(number + at) % PAGES.length]}`, { redirect: 'manual' })
        return { status: answer.status, text: await answer.text() }
      }),
    ),
    ...Array.from({ length: saves }, (_, at) => {
      const sent = newSave(number + at)
      return timed('save', () => save(address, sent, base), sent)
    }),
  ]
  await wait(afterMs)
  line.stall()
  const longest = setTimeout(goOn, LONGEST_STALL_MS)
  try {
    return await Promise.all(under)
  } finally {
    clearTimeout(longest)
    goOn()
  }
}

/** What is wrong with how people were answered; nothing where each got what they asked for, or was told in time that it did not come. */
export const wrongIn = (answers: readonly Answered[]): string[] =>
  answers.flatMap(({ what, status, text, inTime }) => {
    const inWords = status === 503 && /does not answer|not certain|does not end/i.test(text)
    return [
      ...(inTime ? [] : [`a ${what} was answered only once the line went on`]),
      ...([200, 302].includes(status) || inWords
        ? []
        : [`a ${what} was answered ${status}: ${text.replace(/<[^>]+>/g, ' ').slice(0, 300)}`]),
    ]
  })
