import { plainField, TextField } from '../../ui/field'

/** A password that somebody chooses, typed twice. */
export const NewPassword = ({ name, label, shortest }: { name: string; label: string; shortest: number }) => (
  <>
    <TextField
      field={plainField(name)}
      label={label}
      hint={`At least ${shortest} letters`}
      type="password"
      required
      minLength={shortest}
      maxLength={200}
      autoComplete="new-password"
    />
    <TextField
      field={plainField('again')}
      label="Once more"
      type="password"
      required
      maxLength={200}
      autoComplete="new-password"
    />
  </>
)
