import { Box, type BoxProps, Field, Flex, Input, NativeSelect, Textarea } from '@chakra-ui/react'
import type { ComponentProps, ReactNode } from 'react'

/** What conform knows of a field, as far as a control needs it. */
type Known = {
  id: string
  name: string
  errorId: string
  descriptionId: string
  errors?: string[]
  initialValue?: unknown
}

type Shared = { field: Known; label: ReactNode; hint?: ReactNode; required?: boolean }

function Frame({ field, label, hint, required, children }: Shared & { children: ReactNode }) {
  return (
    <Field.Root
      id={field.id}
      ids={{ errorText: field.errorId, helperText: field.descriptionId }}
      invalid={Boolean(field.errors)}
      required={required}
      gap="1"
    >
      <Field.Label fontWeight="600" fontSize="sm">
        {label}
      </Field.Label>
      {children}
      {hint && (
        <Field.HelperText color="quiet" fontSize="sm" mt="0">
          {hint}
        </Field.HelperText>
      )}
      <Field.ErrorText color="blocked" fontWeight="600">
        {field.errors?.join(' ')}
      </Field.ErrorText>
    </Field.Root>
  )
}

/** How every control looks, in a form that validates as it is typed and out of one. */
export const controlLook = { bg: 'card', borderColor: 'edge', borderRadius: '2px' } as const
const look = { ...controlLook, size: 'sm', fontSize: 'md' } as const

/** A line of text with its label, hint and error; the error is beside it and read with it. */
export function TextField({ field, label, hint, required, ...rest }: Shared & ComponentProps<typeof Input>) {
  return (
    <Frame field={field} label={label} hint={hint} required={required}>
      <Input
        {...look}
        name={field.name}
        defaultValue={String(field.initialValue ?? '')}
        autoComplete="off"
        {...rest}
        required={undefined}
        aria-required={required}
      />
    </Frame>
  )
}

/** Several lines of text. */
export function TextAreaField({ field, label, hint, required, rows }: Shared & { rows: number }) {
  return (
    <Frame field={field} label={label} hint={hint} required={required}>
      <Textarea {...look} name={field.name} defaultValue={String(field.initialValue ?? '')} rows={rows} />
    </Frame>
  )
}

/** A choice from a list, as the browser's own control: it works with a keyboard, on a phone and before scripts load. */
export function PlainSelect({ children, ...rest }: ComponentProps<typeof NativeSelect.Field>) {
  return (
    <NativeSelect.Root size="sm">
      <NativeSelect.Field {...controlLook} {...rest}>
        {children}
      </NativeSelect.Field>
      <NativeSelect.Indicator />
    </NativeSelect.Root>
  )
}

/** The same with its label, hint and error. */
export function SelectField({ field, label, hint, required, children }: Shared & { children: ReactNode }) {
  return (
    <Frame field={field} label={label} hint={hint} required={required}>
      <PlainSelect
        fontSize="md"
        name={field.name}
        defaultValue={String(field.initialValue ?? '')}
        aria-required={required}
      >
        {children}
      </PlainSelect>
    </Frame>
  )
}

/** A box to tick, with its label beside it. */
export function CheckField({ field, label }: Pick<Shared, 'field' | 'label'>) {
  return (
    <Flex as="label" gap="2" align="center" fontSize="sm" cursor="pointer">
      <input type="checkbox" id={field.id} name={field.name} defaultChecked={field.initialValue === 'on'} />
      <span>{label}</span>
    </Flex>
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
