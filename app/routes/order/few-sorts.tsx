import { Heading } from '@chakra-ui/react'
import { useMemo, useState } from 'react'
import { articleParts } from '../../../core/order/articles'
import type { WantingRun } from '../../../core/order/choices'
import { givenUp } from '../../../core/order/coverage'
import type { Market } from '../../../core/order/model'
import type { Wishes } from '../../../core/order/wishes'
import { formatLength } from '../../../core/quantity/length'
import { useSolved } from '../../order/use-solved'
import { QuietButton } from '../../ui/controls'
import { RuledTable } from '../../ui/ruled-table'
import { useSite } from '../../ui/site-context'
import { useUnit } from '../../ui/units'
import type { Covering } from '../../workers/order.worker'
import look from './order.module.css'

const HOW_MANY = [1, 2, 3] as const

/** How many runs one, two or three articles would serve, and how much longer than needed each would be. */
export function FewSorts({
  wanting,
  market,
  wishes,
}: {
  wanting: readonly WantingRun[]
  market: Market
  wishes: Wishes
}) {
  const { index } = useSite()
  const unit = useUnit()
  const [open, setOpen] = useState(false)
  const questions = useMemo(() => {
    if (!open) return null
    const out = new Set(wishes.withoutKinds)
    const without = [...market.articles].flatMap(([key, { kind }]) => (out.has(kind.id) ? [key] : []))
    return HOW_MANY.map(
      (most): Covering => ({ key: String(most), ask: 'coverage', question: { wanting, without, most } }),
    )
  }, [open, wanting, market, wishes.withoutKinds])
  const { answers } = useSolved(questions)
  const words = (article: string, runs: readonly string[]): string => {
    const { kind, length } = articleParts(article)
    const routes = runs.flatMap((run) => index.runs.get(run)?.route.length ?? [])
    const more = runs.length === 0 ? 0 : givenUp(length, routes) / runs.length
    return `${index.kinds.get(kind)?.name ?? kind}, ${formatLength(length, unit)}: ${runs.length} runs, ${formatLength(more, unit)} longer than the route on average`
  }
  return (
    <section className={look.block} aria-labelledby="sorts-heading">
      <Heading as="h2" size="md" mb="1" id="sorts-heading">
        How few sorts would do
      </Heading>
      {!open && (
        <QuietButton type="button" small onClick={() => setOpen(true)}>
          Work out one, two and three articles
        </QuietButton>
      )}
      {open && (
        <RuledTable label="How many runs so many articles serve" columns={['Articles', 'Runs served', 'Which']} cards>
          {HOW_MANY.map((most) => {
            const answer = answers.get(String(most))
            return (
              <tr key={most}>
                <td>{most}</td>
                <td>
                  {answer === undefined
                    ? '…'
                    : answer === null
                      ? 'not worked out'
                      : `${answer.covered} of ${answer.of}`}
                </td>
                <td>
                  {answer?.articles.map(({ article, runs }) => (
                    <div key={article}>{words(article, runs)}</div>
                  ))}
                </td>
              </tr>
            )
          })}
        </RuledTable>
      )}
    </section>
  )
}
