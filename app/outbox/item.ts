/** A form that was sent: where to, from which page, and all that was in it. Its id is that of the change it makes, so that it is saved once however often it is sent. */
export type Item = {
  id: string
  url: string
  /** The page it was sent from. */
  page: string
  at: number
  /** The account of whoever typed it; nothing where there are none. It is sent for nobody else, whoever is signed in by then. */
  as: string | null
  fields: readonly (readonly [name: string, value: FormDataEntryValue])[]
  packed: boolean
}

/** Says whose a form is that was kept. */
export const AS_HEADER = 'X-Hallway-As'

/** The field of every form that names its change. */
const CHANGE = 'change'

/** What the router sends of a form; null where it is none. A form without an id is given one. */
export function itemOf(
  url: string,
  body: unknown,
  { page, at, as, newId }: Pick<Item, 'page' | 'at' | 'as'> & { newId: () => string },
): Item | null {
  if (!(body instanceof FormData || body instanceof URLSearchParams)) return null
  const fields = [...body].map(([name, value]): [string, FormDataEntryValue] => [name, value])
  const known = body.get(CHANGE)
  const id = typeof known === 'string' && known !== '' ? known : newId()
  return {
    id,
    url,
    page,
    at,
    as,
    fields: [...fields.filter(([name]) => name !== CHANGE), [CHANGE, id]],
    packed: body instanceof FormData,
  }
}

/** The form once more, as it was. */
export function bodyOf({ fields, packed }: Item): FormData | URLSearchParams {
  if (!packed) return new URLSearchParams(fields.map(([name, value]): [string, string] => [name, String(value)]))
  const form = new FormData()
  for (const [name, value] of fields) form.append(name, value)
  return form
}

/** How much it is, in bytes, as far as that matters for how long it may take. */
export const bytesOf = ({ fields }: Item): number =>
  fields.reduce((sum, [name, value]) => sum + name.length + (typeof value === 'string' ? value.length : value.size), 0)

const OF_THE_PAGE = new Set([CHANGE, 'base', 'had', 'back', 'over', 'tried'])

/** What somebody typed or chose, without what the page put in; a file by its name. */
export const typedIn = ({ fields }: Item): [name: string, value: string][] =>
  fields.flatMap(([name, value]): [string, string][] => {
    const text = typeof value === 'string' ? value : value.name
    return OF_THE_PAGE.has(name) || text === '' ? [] : [[name, text]]
  })
