import loadHighs from 'highs'
import { type Decision, decide, type OrderQuestion } from '../order/decide'

/** Where each plan stands, told as it gets better. */
export type Decided = { plan: OrderQuestion['plan']; decision: Decision | null }

/** Decides the plans that are asked for, one after the other. It hears nothing meanwhile: whoever has enough of it ends it, and keeps what was told. */
addEventListener('message', async ({ data: questions }: MessageEvent<readonly OrderQuestion[]>) => {
  const highs = await loadHighs()
  for (const question of questions) {
    const tell = (decision: Decision | null) => postMessage({ plan: question.plan, decision } satisfies Decided)
    try {
      tell(decide(highs, question, tell))
    } catch {
      tell(null)
    }
  }
})
