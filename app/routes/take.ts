import { redirect } from 'react-router'
import { z } from 'zod'
import type { Edit } from '../../core/change/change'
import { PROPOSALS, takeProposal } from '../../core/change/changes/proposal'
import { within } from '../address'
import { readForm } from '../read-form.server'
import { sentEditSchema } from '../sent-edit.server'
import { change } from '../stored.server'
import type { Refusal } from '../ui/refusals'
import type { Route } from './+types/take'

/** The longest proposal: a lead for each run of a large site. */
const LONGEST_PROPOSAL = 4_000_000

/** A proposal as the page that made it sends it. What its values may be is for whoever applies them. */
const proposalSchema = z.object({
  name: z.enum(PROPOSALS),
  about: z.array(z.string().max(400)).max(12_000),
  edits: z.array(sentEditSchema).min(1).max(12_000),
})

/** Takes a proposal that Hallway worked out, all of it or none, and goes back to where it was shown. */
export async function action({ request, params }: Route.ActionArgs) {
  const form = await readForm(request, { longest: LONGEST_PROPOSAL })
  const back = new URL(within(form.get('back')), 'http://hallway')
  const goBack = (name: 'took' | 'refused', value: string) => {
    for (const told of ['took', 'refused']) back.searchParams.delete(told)
    back.searchParams.set(name, value)
    return redirect(`${back.pathname}${back.search}`)
  }
  const refuse = (why: Refusal) => goBack('refused', why)
  const read = proposalSchema.safeParse(parsed(form.get('proposal')))
  if (!read.success) return refuse('none')
  const { name, about, edits } = read.data
  const saved = await change(request, form, params.site, () => takeProposal(name, about, edits as Edit[]))
  if (saved?.outcome === 'saved') return goBack('took', saved.id ?? '')
  return refuse(
    saved === null || ['unknown', 'busy', 'full'].includes(saved.outcome)
      ? 'away'
      : saved.outcome === 'conflict'
        ? 'late'
        : 'unfit',
  )
}

function parsed(text: FormDataEntryValue | null): unknown {
  try {
    return JSON.parse(String(text))
  } catch {
    return null
  }
}
