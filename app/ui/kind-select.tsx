import { PlainSelect } from './field'
import { useSite } from './site-context'

/** Chooses one of the kinds of the catalogue. */
export function KindSelect({ id }: { id: string }) {
  const { plan } = useSite()
  return (
    <PlainSelect id={id} name="kind" required>
      {plan.kinds.map(({ id: kind, name }) => (
        <option key={kind} value={kind}>
          {name}
        </option>
      ))}
    </PlainSelect>
  )
}
