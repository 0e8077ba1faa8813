import { useEffect, useMemo, useState } from 'react'
import type { AnswerOf, Ask, Forget, Question, QuestionOf, Telling } from '../workers/site.worker'
import { useSite } from './site-context'

/** Where a question stands; what was answered last stays until the next is known. */
export type AnswerSoFar<Answer> =
  | { step: 'asking'; last: Answer | null; done: number }
  | { step: 'answered'; last: Answer; done: number }
  | { step: 'failed'; last: null; done: number }

type Listener = { told(done: number): void; answered(answer: AnswerOf<Ask> | null): void }

let worker: Worker | null = null
let number = 0
const waiting = new Map<number, Listener>()

/** Puts a question to the one worker there is for as long as the page is open. The answer is a way to stop waiting. */
function ask(question: Omit<Question, 'number'>, listener: Listener): () => void {
  worker ??= startWorker()
  number += 1
  const mine = number
  waiting.set(mine, listener)
  worker.postMessage({ ...question, number: mine } satisfies Question)
  return () => {
    if (waiting.delete(mine)) worker?.postMessage({ number: mine, forget: true } satisfies Forget)
  }
}

function startWorker(): Worker {
  const started = new Worker(new URL('../workers/site.worker.ts', import.meta.url), { type: 'module' })
  started.addEventListener('message', ({ data }: MessageEvent<Telling>) => {
    const listener = waiting.get(data.number)
    if ('done' in data) return listener?.told(data.done)
    waiting.delete(data.number)
    listener?.answered(data.answer)
  })
  started.addEventListener('error', () => {
    worker = null
    for (const listener of waiting.values()) listener.answered(null)
    waiting.clear()
  })
  return started
}

/**
 * Asks the worker about the site as the page shows it, again whenever either is another; null asks nothing. `rest` is how long a question rests first,
 * for one that somebody types.
 */
export function useAsked<A extends Ask>(asked: A, question: QuestionOf<A> | null, rest = 0): AnswerSoFar<AnswerOf<A>> {
  const { plan, identity, place } = useSite()
  const [state, setState] = useState<AnswerSoFar<AnswerOf<A>>>({ step: 'asking', last: null, done: 0 })
  const whole = useMemo(
    () => question && { site: plan.site.id, shown: { identity, place }, ask: asked, question },
    [plan.site.id, identity, place, asked, question],
  )
  useEffect(() => {
    if (!whole) return
    setState(({ last }) => ({ step: 'asking', last, done: 0 }))
    let forget = () => {}
    const timer = setTimeout(() => {
      forget = ask(whole as Omit<Question, 'number'>, {
        told: (done) => setState(({ last }) => ({ step: 'asking', last, done })),
        answered: (answer) =>
          setState(
            answer === null
              ? { step: 'failed', last: null, done: 0 }
              : { step: 'answered', last: answer as AnswerOf<A>, done: 0 },
          ),
      })
    }, rest)
    return () => {
      clearTimeout(timer)
      forget()
    }
  }, [whole, rest])
  return state
}
