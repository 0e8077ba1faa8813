import { useEffect, useRef, useState } from 'react'
import { useHotkeys } from 'react-hotkeys-hook'
import { useNavigation, useSubmit } from 'react-router'
import { newChangeId } from './own-changes'
import { useSite } from './site-context'

/**
 * Changes made on one page one after the other, each sent at once, with undo and redo over them. `back` is the page; `failed` is the id of a change that was not
 * saved, `did` of the one that was saved last: one that came to nothing, as it stood so already, is neither.
 */
export function useUndoing(back: string, { failed, did }: { failed: string | undefined; did: string | null }) {
  const { plan, place } = useSite()
  const submit = useSubmit()
  const busy = useNavigation().state !== 'idle'
  const [past, setPast] = useState<readonly string[]>([])
  const [future, setFuture] = useState<readonly string[]>([])
  useEffect(() => {
    if (failed) setPast((ids) => ids.filter((id) => id !== failed))
  }, [failed])

  const sent = useRef<string | null>(null)
  useEffect(() => {
    if (busy || sent.current === null) return
    const id = sent.current
    sent.current = null
    if (did !== id) setPast((ids) => ids.filter((each) => each !== id))
  }, [busy, did])

  const options = { method: 'post', preventScrollReset: true, replace: true } as const
  const send = (form: FormData): void => {
    const id = newChangeId()
    form.set('change', id)
    form.set('base', String(place))
    setPast((ids) => [...ids, id])
    setFuture([])
    sent.current = id
    submit(form, { ...options, encType: 'multipart/form-data' })
  }
  const takeBack = (id: string): string => {
    const own = newChangeId()
    submit({ undo: id, change: own, back }, { ...options, action: `/sites/${plan.site.id}/history` })
    return own
  }
  const last = past.at(-1)
  const next = future.at(-1)
  const undo =
    last === undefined || busy
      ? null
      : () => {
          const own = takeBack(last)
          setPast(past.slice(0, -1))
          setFuture([...future, own])
        }
  const redo =
    next === undefined || busy
      ? null
      : () => {
          const own = takeBack(next)
          setFuture(future.slice(0, -1))
          setPast([...past, own])
        }
  useHotkeys('mod+z', () => undo?.(), { preventDefault: true }, [undo])
  useHotkeys('mod+shift+z, mod+y', () => redo?.(), { preventDefault: true }, [redo])
  return { send, undo, redo, busy }
}
