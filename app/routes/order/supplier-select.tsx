import { LabelledField, PlainSelect, plainField } from '../../ui/field'
import { useSite } from '../../ui/site-context'

/** One of the suppliers; `id` tells the control from others of the page. */
export function SupplierSelect({ id, label }: { id: string; label: string }) {
  const { plan } = useSite()
  const field = { ...plainField('supplier'), id }
  return (
    <LabelledField field={field} label={label}>
      <PlainSelect id={id} name="supplier">
        {plan.suppliers.map((supplier) => (
          <option key={supplier.id} value={supplier.id}>
            {supplier.name}
          </option>
        ))}
      </PlainSelect>
    </LabelledField>
  )
}
