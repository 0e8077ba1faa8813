import { useEffect, useState } from 'react'
import type { RankAnswer, RankQuestion } from '../../workers/rank.worker'

/** The drawer ranked: ids of the best, best first, and how many there are at all. */
export type Ranking = { best: readonly string[]; count: number }
export type RankState =
  | { step: 'ranking'; last: Ranking | null }
  | { step: 'ranked'; last: Ranking }
  | { step: 'failed' }

let worker: Worker | null = null
let number = 0
const waiting = new Map<number, (answer: RankAnswer) => void>()

/** One worker for as long as the page is open: it holds a copy of the site. */
function ask(question: Omit<RankQuestion, 'number'>, answered: (answer: RankAnswer) => void): () => void {
  worker ??= startWorker()
  number += 1
  const mine = number
  waiting.set(mine, answered)
  worker.postMessage({ ...question, number: mine } satisfies RankQuestion)
  return () => void waiting.delete(mine)
}

function startWorker(): Worker {
  const started = new Worker(new URL('../../workers/rank.worker.ts', import.meta.url), { type: 'module' })
  const tell = (answer: RankAnswer) => {
    waiting.get(answer.number)?.(answer)
    waiting.delete(answer.number)
  }
  started.addEventListener('message', ({ data }: MessageEvent<RankAnswer>) => tell(data))
  started.addEventListener('error', () => {
    worker = null
    for (const each of waiting.keys()) tell({ number: each, best: null, count: 0 })
  })
  return started
}

/** While somebody types, a question is put once the typing rests for so long. */
const REST_MS = 120

/** The drawer ranked for a run in a worker; null asks nothing. What was ranked last stays until the next is known. */
export function useRanking(question: Omit<RankQuestion, 'number'> | null): RankState {
  const [state, setState] = useState<RankState>({ step: 'ranking', last: null })
  useEffect(() => {
    if (!question) return
    setState((before) => ({ step: 'ranking', last: before.step === 'failed' ? null : before.last }))
    let forget = () => {}
    const timer = setTimeout(
      () => {
        forget = ask(question, ({ best, count }) =>
          setState(best ? { step: 'ranked', last: { best, count } } : { step: 'failed' }),
        )
      },
      typeof question.run === 'string' ? 0 : REST_MS,
    )
    return () => {
      clearTimeout(timer)
      forget()
    }
  }, [question])
  return state
}
