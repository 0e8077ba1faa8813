import type { WantingRun } from '../../../core/order/choices'
import { QuietButton } from '../../ui/controls'
import { useSite } from '../../ui/site-context'
import look from './order.module.css'
import type { Wish } from './wish-address'
import type { Wished } from './wishes-form'

/** What was said on this page beside the form: choices that are kept, kinds that are left out, avoided kinds that are bought all the same. */
export function Kept({
  asked: { wishes, allowed },
  wanting,
  add,
  remove,
}: {
  asked: Wished
  wanting: readonly WantingRun[]
  add: (name: Wish, id: string) => void
  remove: (name: Wish, id: string) => void
}) {
  const { index } = useSite()
  if (wishes.fixed.length + wishes.withoutKinds.length + allowed.length === 0) return null
  const known = new Set(wanting.flatMap(({ choices }) => choices.map(({ id }) => id)))
  const tagOf = (id: string): string => index.runs.get(id.split('/')[0] ?? '')?.tag ?? id
  const nameOf = (id: string): string => index.kinds.get(id)?.name ?? id
  return (
    <p className={look.small}>
      {wishes.fixed.map((id) => (
        <QuietButton key={id} type="button" small onClick={() => remove('keep', id)}>
          Stop keeping {tagOf(id)}
          {wanting.length > 0 && !known.has(id) && ', which is not possible any more'}
        </QuietButton>
      ))}
      {wishes.withoutKinds.map((id) => {
        const avoid = index.kinds.get(id)?.avoid
        return avoid ? (
          <QuietButton key={id} type="button" small onClick={() => add('allow', id)}>
            Buy {nameOf(id)} all the same (avoided since {avoid.on}: {avoid.why})
          </QuietButton>
        ) : (
          <QuietButton key={id} type="button" small onClick={() => remove('without', id)}>
            Allow {nameOf(id)} again
          </QuietButton>
        )
      })}
      {allowed.map((id) => (
        <QuietButton key={id} type="button" small onClick={() => remove('allow', id)}>
          Avoid {nameOf(id)} again
        </QuietButton>
      ))}
    </p>
  )
}
