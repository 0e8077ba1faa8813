import { data, redirect } from 'react-router'
import { z } from 'zod'
import { changeSite } from '../../core/change/changes/site'
import { nameField, noteField } from '../../core/vocabulary/fields'
import { baseOf, change, whyNotSaved } from '../stored.server'

const siteForm = z.object({
  name: nameField,
  note: noteField.optional(),
  practice: z.literal('on').optional(),
  putAway: z.literal('on').optional(),
})

/** Saves what a site is called and what it is for. */
export async function saveSiteForm(request: Request, form: FormData, siteId: string) {
  const read = siteForm.safeParse(Object.fromEntries(form))
  if (!read.success)
    return data({ problem: 'Give the site a name of 1 to 120 letters. Nothing was saved.' }, { status: 422 })
  const { name, note, practice, putAway } = read.data
  const base = baseOf(form)
  const saved = await change(request, form, siteId, ({ plan }) =>
    changeSite(plan, base, {
      name,
      note: note?.trim() ? note : undefined,
      practice: practice === 'on',
      putAway: putAway === 'on',
    }),
  )
  if (saved?.outcome === 'saved') return redirect(`/sites/${siteId}/policy?done=site`)
  const { problem, status } = whyNotSaved(saved)
  return data({ problem }, { status })
}
