import { useEffect, useState } from 'react'
import { newChangeId } from './own-changes'
import { useSite } from './site-context'

/** Gives the change that a form makes its id, so that what is sent twice is saved once. After a change there is a new one. */
export function ChangeId() {
  const { place } = useSite()
  const [id, setId] = useState('')
  // biome-ignore lint/correctness/useExhaustiveDependencies: each place in the log begins a new change
  useEffect(() => setId(newChangeId()), [place])
  return <input type="hidden" name="change" value={id} />
}

/** The place in the log that a form is made from, and the id of its change. */
export function MadeFrom({ base }: { base?: number }) {
  const { place } = useSite()
  return (
    <>
      <input type="hidden" name="base" value={base ?? place} />
      <ChangeId />
    </>
  )
}
