import type { ReactNode } from 'react'
import { useLocation, useNavigation, useSearchParams } from 'react-router'
import type { Edit } from '../../core/change/change'
import type { ProposalName } from '../../core/change/changes/proposal'
import { MadeFrom } from './change-fields'
import { MainButton, Notice, QuietButton } from './controls'
import { Form } from './form'
import { REFUSALS, type Refusal } from './refusals'
import { useSite } from './site-context'
import { Undo } from './undo'

type Props = {
  name: ProposalName
  about: readonly string[]
  edits: readonly Edit[]
  /** What it is for whoever hears the button without what stands beside it. */
  label?: string
  main?: boolean
  children: ReactNode
}

/** A button that takes a proposal: one change, which can be undone. */
export function Take({ name, about, edits, label, main, children }: Props) {
  const { plan } = useSite()
  const { pathname, search } = useLocation()
  const navigation = useNavigation()
  const proposal = JSON.stringify({ name, about, edits })
  const Button = main ? MainButton : QuietButton
  return (
    <Form method="post" action={`/sites/${plan.site.id}/take`} preventScrollReset>
      <MadeFrom />
      <input type="hidden" name="proposal" value={proposal} />
      <input type="hidden" name="back" value={`${pathname}${search}`} />
      <Button small={!main} aria-label={label} loading={navigation.formData?.get('proposal') === proposal}>
        {children}
      </Button>
    </Form>
  )
}

const whyRefused: Record<Refusal, string> = {
  none: 'That is not a proposal. Nothing was saved.',
  late: 'Somebody changed the same meanwhile, so nothing was saved. Look at it as it is now, then do it again.',
  unfit: 'It no longer fits the site as it is now, so nothing was saved. What is proposed now is below.',
  away: 'The database does not answer, so it is not certain that this was saved. Do it again in a moment; it is done once.',
}

/** Says that a proposal was taken, with a way back, or why it was not. */
export function Took() {
  const [params] = useSearchParams()
  const { pathname } = useLocation()
  const took = params.get('took')
  const refused = REFUSALS.find((each) => each === params.get('refused'))
  if (refused) return <Notice tone="blocked">{whyRefused[refused]}</Notice>
  if (!took) return null
  const rest = new URLSearchParams(params)
  rest.delete('took')
  return (
    <Notice tone="clear" slim>
      <Undo change={took} back={rest.size > 0 ? `${pathname}?${rest}` : pathname}>
        It is done, as it was shown.
      </Undo>
    </Notice>
  )
}
