import { useId } from 'react'
import { LabelledField, PlainSelect, plainField } from '../../ui/field'
import { useSite } from '../../ui/site-context'

type Props = { label: string; name: string; initial: string; chosen?: ((id: string) => void) | undefined }

/** A place of the site, or none yet. Whoever has no say in it until the form is sent is told what was `chosen`. */
export function PlaceSelect({ label, name, initial, chosen }: Props) {
  const { plan } = useSite()
  const id = useId()
  return (
    <LabelledField field={{ ...plainField(name), id }} label={label}>
      <PlainSelect
        key={initial}
        id={id}
        name={name}
        defaultValue={initial}
        onChange={({ currentTarget }) => chosen?.(currentTarget.value)}
      >
        <option value="">no place yet</option>
        {plan.places.map((each) => (
          <option key={each.id} value={each.id}>
            {each.name}
          </option>
        ))}
      </PlainSelect>
    </LabelledField>
  )
}
