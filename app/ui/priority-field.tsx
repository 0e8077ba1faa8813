import { type Known, SelectField } from './field'

/** Who is served first among needs of a kind. */
const PRIORITIES = [1, 2, 3, 4, 5, 6, 7, 8, 9]

/** A choice of who is served first; those that say nothing follow in the order of the list. */
export const PriorityField = ({ field, label }: { field: Known; label: string }) => (
  <SelectField field={field} label={label}>
    <option value="">in order</option>
    {PRIORITIES.map((priority) => (
      <option key={priority} value={priority}>
        {priority === 1 ? '1, first' : priority}
      </option>
    ))}
  </SelectField>
)
