import { PlainSelect } from '../../ui/field'
import { useSite } from '../../ui/site-context'

/** The dock or hub that one more display would hang on. */
export function DockSelect({ value = '' }: { value?: string }) {
  const { plan } = useSite()
  return (
    <PlainSelect id="field-at" name="at" defaultValue={value}>
      <option value="">Choose a dock</option>
      {plan.devices
        .filter(({ kind }) => kind === 'dock' || kind === 'hub')
        .map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
    </PlainSelect>
  )
}
