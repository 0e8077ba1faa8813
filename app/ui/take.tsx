import type { ReactNode } from 'react'
import { useFetcher, useLocation, useSearchParams } from 'react-router'
import type { Edit } from '../../core/change/change'
import type { ProposalName } from '../../core/change/changes/proposal'
import type { TakeAnswer } from '../routes/take'
import { MadeFrom } from './change-fields'
import { MainButton, Notice, QuietButton } from './controls'
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
  const fetcher = useFetcher<TakeAnswer>()
  const Button = main ? MainButton : QuietButton
  return (
    <fetcher.Form method="post" action={`/sites/${plan.site.id}/take`}>
      <MadeFrom />
      <input type="hidden" name="proposal" value={JSON.stringify({ name, about, edits })} />
      <input type="hidden" name="back" value={`${pathname}${search}`} />
      <Button small={!main} aria-label={label} loading={fetcher.state !== 'idle'}>
        {children}
      </Button>
      {fetcher.data && (
        <Notice tone="blocked" slim>
          {fetcher.data.problem}
        </Notice>
      )}
    </fetcher.Form>
  )
}

/** Says that a proposal was taken, with a way back. */
export function Took() {
  const [params] = useSearchParams()
  const { pathname } = useLocation()
  const took = params.get('took')
  if (!took) return null
  const rest = new URLSearchParams(params)
  rest.delete('took')
  return (
    <Notice tone="clear" slim>
      <Undo change={took} back={rest.size > 0 ? `${pathname}?${rest}` : pathname}>
        It is done, as it was proposed.
      </Undo>
    </Notice>
  )
}
