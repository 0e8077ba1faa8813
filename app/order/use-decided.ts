import { useEffect, useState } from 'react'
import type { OrderPlanName } from '../../core/order/wishes'
import type { Decided } from '../workers/order.worker'
import type { Decision, OrderQuestion } from './decide'

/** Where each plan stands; null: it could not be worked out. */
export type Decisions = ReadonlyMap<OrderPlanName, Decision | null>

export type Deciding = { decisions: Decisions; working: boolean; stop: () => void }

const NONE: Decisions = new Map()

/**
 * Has some questions decided beside the page, again whenever they are others. A solver hears nothing while it works: to stop, its worker is ended, and what
 * it found so far stays.
 */
export function useDecided(questions: readonly OrderQuestion[] | null): Deciding {
  const [decisions, setDecisions] = useState(NONE)
  const [worker, setWorker] = useState<Worker | null>(null)
  useEffect(() => {
    setDecisions(NONE)
    if (!questions || questions.length === 0) return
    const started = new Worker(new URL('../workers/order.worker.ts', import.meta.url), { type: 'module' })
    setWorker(started)
    let open = questions.length
    const end = () => {
      started.terminate()
      setWorker((now) => (now === started ? null : now))
    }
    started.addEventListener('message', ({ data: { plan, decision } }: MessageEvent<Decided>) => {
      setDecisions((now) => new Map(now).set(plan, decision))
      if (decision === null || decision.state !== 'better') open -= 1
      if (open === 0) end()
    })
    started.addEventListener('error', () => {
      setDecisions((now) => new Map([...questions.map(({ plan }) => [plan, null] as const), ...now]))
      end()
    })
    started.postMessage(questions)
    return end
  }, [questions])
  const stop = () => {
    worker?.terminate()
    setWorker(null)
  }
  return { decisions, working: worker !== null, stop }
}
