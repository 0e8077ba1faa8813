import { useEffect, useState } from 'react'
import type { SolvedOf, Solving, Told } from '../workers/order.worker'

/** Where each question stands, by its key; null: it could not be worked out. */
export type Answers<A> = ReadonlyMap<string, A | null>

export type Solved<A> = { answers: Answers<A>; working: boolean; stop: () => void }

/**
 * Has some questions solved beside the page, again whenever they are others. A solver hears nothing while it works: to stop, its worker is ended, and what
 * it found so far stays.
 */
export function useSolved<Q extends Solving>(questions: readonly Q[] | null): Solved<SolvedOf<Q>> {
  const [answers, setAnswers] = useState<Answers<SolvedOf<Q>>>(new Map())
  const [worker, setWorker] = useState<Worker | null>(null)
  useEffect(() => {
    setAnswers(new Map())
    if (!questions || questions.length === 0) return
    const started = new Worker(new URL('../workers/order.worker.ts', import.meta.url), { type: 'module' })
    setWorker(started)
    let open = questions.length
    const end = () => {
      started.terminate()
      setWorker((now) => (now === started ? null : now))
    }
    started.addEventListener('message', ({ data: { key, answer, last } }: MessageEvent<Told>) => {
      setAnswers((now) => new Map(now).set(key, answer as SolvedOf<Q> | null))
      if (last) open -= 1
      if (open === 0) end()
    })
    started.addEventListener('error', () => {
      setAnswers((now) => new Map([...questions.map(({ key }) => [key, null] as const), ...now]))
      end()
    })
    started.postMessage(questions)
    return end
  }, [questions])
  const stop = () => {
    worker?.terminate()
    setWorker(null)
  }
  return { answers, working: worker !== null, stop }
}
