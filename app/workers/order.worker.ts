import loadHighs from 'highs'
import type { Coverage } from '../../core/order/coverage'
import { type CoverageQuestion, cover, type Decision, decide, type OrderQuestion } from '../../core/order/decide'
import { highsSolver } from '../../server/orders/highs-solver'

/** What is solved, each under a key of its own. */
export type Deciding = { key: string; ask: 'order'; question: OrderQuestion }
export type Covering = { key: string; ask: 'coverage'; question: CoverageQuestion }
export type Solving = Deciding | Covering
export type SolvedOf<Q extends Solving> = Q extends Deciding ? Decision : Coverage

/** Where a question stands, told as its answer gets better; null where it could not be worked out. */
export type Told = { key: string; answer: Decision | Coverage | null; last: boolean }

/** Solves what is asked, one after the other. It hears nothing meanwhile: whoever has enough of it ends it, and keeps what was told. */
addEventListener('message', async ({ data: questions }: MessageEvent<readonly Solving[]>) => {
  const solve = highsSolver(await loadHighs())
  for (const asked of questions) {
    const tell = (answer: Told['answer'], last: boolean) => postMessage({ key: asked.key, answer, last } satisfies Told)
    try {
      if (asked.ask === 'coverage') tell(cover(solve, asked.question), true)
      else
        tell(
          decide(solve, asked.question, (sofar) => tell(sofar, false)),
          true,
        )
    } catch {
      tell(null, true)
    }
  }
})
