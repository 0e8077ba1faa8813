import { Box, type BoxProps } from '@chakra-ui/react'
import type { ComponentProps, ReactNode } from 'react'
import text from '../theme/text.module.css'
import look from './field.module.css'

/** What conform knows of a field, as far as a control needs it. */
export type Known = {
  id: string
  name: string
  errorId: string
  descriptionId: string
  errors?: string[]
  initialValue?: unknown
}

/** A field of a form so small that nothing keeps its state: its name is all there is to it. */
export const plainField = (name: string, initialValue?: string): Known => ({
  id: `field-${name}`,
  name,
  errorId: `field-${name}-error`,
  descriptionId: `field-${name}-hint`,
  initialValue,
})

type Shared = { field: Known; label: ReactNode; hint?: ReactNode; required?: boolean }

/** A control with its label, hint and error; the error is beside it and read with it. */
export function LabelledField({ field, label, hint, children }: Shared & { children: ReactNode }) {
  return (
    <div className={look.field}>
      <label htmlFor={field.id} className={look.label}>
        {label}
      </label>
      {children}
      {hint && (
        <span id={field.descriptionId} className={look.hint}>
          {hint}
        </span>
      )}
      {field.errors && (
        <span id={field.errorId} className={look.error} aria-live="polite">
          {field.errors.join(' ')}
        </span>
      )}
    </div>
  )
}

/** What ties a control to its label, hint and error. */
export const tiedTo = ({ field, hint, required }: Omit<Shared, 'label'>) => ({
  id: field.id,
  name: field.name,
  'aria-required': required,
  'aria-invalid': field.errors ? true : undefined,
  // a page that comes back with an error begins at the first of them, without scripts as well
  autoFocus: field.errors ? true : undefined,
  'aria-describedby':
    [hint && field.descriptionId, field.errors && field.errorId].filter(Boolean).join(' ') || undefined,
})

type Look = { mono?: boolean; big?: boolean }

const classOf = ({ mono, big }: Look): string =>
  [look.control, mono && text.mono, big && look.big].filter(Boolean).join(' ')

/** A line of text without anything around it; `big` can be hit with a lead in the other hand. */
export const PlainInput = ({ mono, big, ...rest }: Look & ComponentProps<'input'>) => (
  <input {...rest} className={classOf({ mono, big })} />
)

/** Several lines of it. */
export const PlainTextArea = ({ mono, ...rest }: Look & ComponentProps<'textarea'>) => (
  <textarea {...rest} className={classOf({ mono })} />
)

/** A line of text with its label, hint and error. */
export function TextField({ field, label, hint, required, ...rest }: Shared & Look & ComponentProps<'input'>) {
  return (
    <LabelledField field={field} label={label} hint={hint}>
      <PlainInput
        defaultValue={String(field.initialValue ?? '')}
        autoComplete="off"
        {...tiedTo({ field, hint, required })}
        {...rest}
      />
    </LabelledField>
  )
}

/** Several lines of text. */
export function TextAreaField({ field, label, hint, required, rows }: Shared & { rows: number }) {
  return (
    <LabelledField field={field} label={label} hint={hint}>
      <PlainTextArea
        defaultValue={String(field.initialValue ?? '')}
        rows={rows}
        {...tiedTo({ field, hint, required })}
      />
    </LabelledField>
  )
}

/** A choice from a list, as the browser's own control: it works with a keyboard, on a phone and before scripts load. */
export const PlainSelect = (props: ComponentProps<'select'>) => (
  <select {...props} className={`${look.control} ${look.select}`} />
)

/** The same within a line of words. */
export const InlineSelect = (props: Omit<ComponentProps<'select'>, 'className'>) => (
  <select {...props} className={look.inline} />
)

/** The same with its label, hint and error. */
export function SelectField({ field, label, hint, required, children }: Shared & { children: ReactNode }) {
  return (
    <LabelledField field={field} label={label} hint={hint}>
      <PlainSelect defaultValue={String(field.initialValue ?? '')} {...tiedTo({ field, hint, required })}>
        {children}
      </PlainSelect>
    </LabelledField>
  )
}

/** A box to tick, with its label beside it. */
export function CheckField({ field, label }: Pick<Shared, 'field' | 'label'>) {
  return (
    <label className={look.tick}>
      <input type="checkbox" id={field.id} name={field.name} defaultChecked={field.initialValue === 'on'} />
      <span>{label}</span>
    </label>
  )
}

/** A file to choose; `onChoose` lets the page look at it before it is sent. */
export function FileField({
  label,
  name,
  accept,
  describedBy,
  onChoose,
}: {
  label: ReactNode
  name: string
  accept: string
  describedBy?: string | undefined
  onChoose?: (file: File | null) => void
}) {
  return (
    <Box as="label" display="block" fontSize="sm">
      <Box as="span" display="block" fontWeight="600" mb="1">
        {label}
      </Box>
      <input
        type="file"
        name={name}
        accept={accept}
        aria-describedby={describedBy}
        onChange={(event) => onChoose?.(event.target.files?.[0] ?? null)}
      />
    </Box>
  )
}

/** A label over a plain control, where a form has nothing to validate as it is typed. */
export function Labelled({ label, children, ...rest }: { label: ReactNode; children: ReactNode } & BoxProps) {
  return (
    <Box as="label" fontSize="sm" {...rest}>
      <Box as="span" fontWeight="600" display="block">
        {label}
      </Box>
      {children}
    </Box>
  )
}
