import { data } from 'react-router'

/** The largest form there is has some hundred fields: a session of two hundred cables through twelve tests. */
const MOST_FIELDS = 1500
/** `needs[3].size`: no name is longer, no list of a form has more entries, and none nests deeper. */
const LONGEST_NAME = 80
const MOST_ENTRIES = 600
const DEEPEST = 4
/** Longer than any note; a box that takes a whole file's text says so. */
const LONGEST_VALUE = 20_000

/** The form that was sent, if it can be one of ours: a form's readers make lists as long as its names ask for. Throws 400 in words. */
export async function readForm(request: Request, longest = LONGEST_VALUE): Promise<FormData> {
  const form = await request.formData().catch(() => {
    throw refusal('What was sent is not a whole form')
  })
  let fields = 0
  for (const [name, value] of form) {
    fields += 1
    if (fields > MOST_FIELDS) throw refusal(`A form has at most ${MOST_FIELDS} fields; this one has more`)
    const fault = faultOf(name, value, longest)
    if (fault) throw refusal(fault)
  }
  return form
}

function faultOf(name: string, value: FormDataEntryValue, longest: number): string | null {
  if (name.length > LONGEST_NAME) return 'A field of the form has a name longer than any that Hallway makes'
  if (typeof value === 'string' && value.length > longest) return 'A field of the form is longer than it can be'
  const steps = name.split(/[.[]/)
  if (steps.length > 2 * DEEPEST) return 'A field of the form nests deeper than any that Hallway makes'
  const entries = steps.flatMap((step) => (step.endsWith(']') ? [step.slice(0, -1)] : []))
  return entries.some((entry) => entry !== '' && !(Number(entry) <= MOST_ENTRIES))
    ? `A list of the form has more than ${MOST_ENTRIES} entries`
    : null
}

const refusal = (what: string) => data(`${what}. Nothing was saved.`, { status: 400 })
