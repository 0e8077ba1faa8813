/** A form as a page shows it: where it goes, and the fields with what they hold. */
export type PageForm = {
  action: string
  packed: boolean
  fields: [name: string, value: string][]
  choices: Record<string, string[]>
  /** One of them is pressed; where it has a name it says what is done. */
  buttons: ([name: string, value: string] | null)[]
}

const attribute = (tag: string, name: string): string | null => {
  const found = new RegExp(`\\s${name}="([^"]*)"`, 'i').exec(tag)
  return found ? decoded(found[1] ?? '') : new RegExp(`\\s${name}(?=[\\s>/])`, 'i').test(tag) ? '' : null
}
const decoded = (text: string): string =>
  text
    .replaceAll('&quot;', '"')
    .replaceAll('&#x27;', "'")
    .replaceAll('&lt;', '<')
    .replaceAll('&gt;', '>')
    .replaceAll('&amp;', '&')

/** All forms of a page that save something. Pages are Hallway's own, so that what they look like is known. */
export function formsOf(html: string, address: string): PageForm[] {
  return [...html.matchAll(/<form\b([^>]*)>([\s\S]*?)<\/form>/gi)].flatMap(([, head = '', body = '']) => {
    if (attribute(head, 'method')?.toLowerCase() !== 'post') return []
    const fields: [string, string][] = []
    const choices: Record<string, string[]> = {}
    const buttons: PageForm['buttons'] = []
    for (const [tag] of body.matchAll(/<(?:input|button)\b[^>]*>/gi)) {
      const name = attribute(tag, 'name')
      const type = attribute(tag, 'type') ?? 'text'
      if (!name && tag.startsWith('<button') && type !== 'button' && !buttons.includes(null)) buttons.push(null)
      if (!name) continue
      if (type === 'file' || ((type === 'checkbox' || type === 'radio') && attribute(tag, 'checked') === null)) {
        choices[name] = [...(choices[name] ?? []), attribute(tag, 'value') ?? 'on']
        continue
      }
      // one button of several is pressed
      if (tag.startsWith('<button')) {
        buttons.push([name, attribute(tag, 'value') ?? ''])
        choices[name] = [...(choices[name] ?? []), attribute(tag, 'value') ?? '']
      } else fields.push([name, attribute(tag, 'value') ?? ''])
    }
    for (const [, head_ = '', text = ''] of body.matchAll(/<textarea\b([^>]*)>([\s\S]*?)<\/textarea>/gi)) {
      const name = attribute(head_, 'name')
      if (name) fields.push([name, decoded(text)])
    }
    for (const [, head_ = '', options = ''] of body.matchAll(/<select\b([^>]*)>([\s\S]*?)<\/select>/gi)) {
      const name = attribute(head_, 'name')
      if (!name) continue
      const values = [...options.matchAll(/<option\b([^>]*)>([^<]*)/gi)].map(([, each = '', shown = '']) => ({
        // without a value of its own a choice stands for what it says
        value: attribute(each, 'value') ?? decoded(shown),
        selected: attribute(each, 'selected') !== null,
      }))
      choices[name] = values.map(({ value }) => value)
      fields.push([name, values.find(({ selected }) => selected)?.value ?? values[0]?.value ?? ''])
    }
    const action = attribute(head, 'action') || address
    return [{ action, packed: attribute(head, 'enctype') === 'multipart/form-data', fields, choices, buttons }]
  })
}
