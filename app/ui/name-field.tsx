import { type ComponentProps, useState } from 'react'
import { TextField } from './field'

/** A name, marked while it is typed where something else has it already. It may be so; two of one name are only hard to tell apart. */
export function NameField({
  taken,
  field,
  ...rest
}: Pick<ComponentProps<typeof TextField>, 'field' | 'label'> & { taken: readonly string[] }) {
  const [typed, setTyped] = useState(String(field.initialValue ?? ''))
  const name = typed.trim().toLowerCase()
  const there = name !== '' && taken.some((each) => each.toLowerCase() === name)
  return (
    <TextField
      {...rest}
      field={field}
      required
      maxLength={120}
      hint={there ? `“${typed.trim()}” is taken. Choose another name.` : undefined}
      onChange={({ currentTarget }) => setTyped(currentTarget.value)}
    />
  )
}
