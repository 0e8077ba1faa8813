type Field = HTMLInputElement | HTMLTextAreaElement | HTMLSelectElement

/** Puts a text into a field as if somebody had typed it: past React's own setter, so that whoever keeps the value hears of it too. */
export function typeInto(field: Field, text: string): void {
  Object.getOwnPropertyDescriptor(Object.getPrototypeOf(field), 'value')?.set?.call(field, text)
  field.dispatchEvent(new Event('input', { bubbles: true }))
  if (field instanceof HTMLSelectElement) field.dispatchEvent(new Event('change', { bubbles: true }))
}
