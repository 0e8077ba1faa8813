import { createContext, type ReactNode, useContext, useEffect, useMemo, useRef, useState } from 'react'
import { useHotkeys } from 'react-hotkeys-hook'
import { useLocation, useNavigation, useSubmit } from 'react-router'
import type { NewsLine } from '../site-copy'
import { QuietButton } from './controls'
import { isOwn, newChangeId } from './own-changes'
import { useSite } from './site-context'
import look from './undoing.module.css'

/** What this page saved last, with undo and redo over it; null where there is nothing to go back or forth to, or something is being saved. */
type Undoing = { last: NewsLine | null; undo: (() => void) | null; redo: (() => void) | null; busy: boolean }

const UndoingContext = createContext<Undoing>({ last: null, undo: null, redo: null, busy: false })

/** The change that the page itself shows a way back of, and how it says so. */
const ShownContext = createContext<{ shown: string | null; show: (change: string | null) => void }>({
  shown: null,
  show: () => {},
})

/** So long the last save is told with its way back; the keys go on working. */
const TOLD_MS = 60_000

/** So long what was sent may take to come back of the log after its answer: what has not by then was refused. */
const COMES_BACK_MS = 3_000

type Way = 'undo' | 'redo'

type Stack = { past: readonly NewsLine[]; future: readonly NewsLine[] }
const EMPTY: Stack = { past: [], future: [] }

/**
 * Undo and redo over everything that was saved from here, whichever page saved it: what comes back of the site's log with an id that was made here. What was
 * not saved is never among it, and what somebody else saved neither.
 */
export function UndoingProvider({ children }: { children: ReactNode }) {
  const { plan, news } = useSite()
  const submit = useSubmit()
  const { pathname, search } = useLocation()
  const busy = useNavigation().state !== 'idle'
  const [stack, setStack] = useState(EMPTY)
  const known = useRef(new Set<string>())
  /** What was sent to go back or forth, by the id of the change that does. */
  const sent = useRef(new Map<string, Way>())
  /** What was sent last and is not yet in the stack: one more now would go over the same change again. */
  const [awaited, setAwaited] = useState<string | null>(null)
  /** Keys that were pressed meanwhile: none is lost. */
  const [held, setHeld] = useState<readonly Way[]>([])
  useEffect(() => {
    const arrived = news.filter(({ id }) => isOwn(id) && !known.current.has(id))
    if (arrived.length === 0) return
    for (const { id } of arrived) known.current.add(id)
    setStack((before) => arrived.reduce((now, line) => withLine(now, line, sent.current.get(line.id)), before))
    setAwaited((before) => (arrived.some(({ id }) => id === before) ? null : before))
  }, [news])
  useEffect(() => {
    if (awaited === null || busy) return
    const timer = setTimeout(() => setAwaited(null), COMES_BACK_MS)
    return () => clearTimeout(timer)
  }, [awaited, busy])
  const waiting = busy || awaited !== null
  const undoing = useMemo((): Undoing => {
    const take = (line: NewsLine | undefined, what: Way) =>
      line === undefined || waiting
        ? null
        : () => {
            const change = newChangeId()
            sent.current.set(change, what)
            setAwaited(change)
            submit(
              { undo: line.id, change, back: without(line.id, pathname, search) },
              { method: 'post', action: `/sites/${plan.site.id}/history`, preventScrollReset: true, replace: true },
            )
          }
    const [last, next] = [stack.past.at(-1), stack.future.at(-1)]
    return { last: last ?? null, undo: take(last, 'undo'), redo: take(next, 'redo'), busy: waiting }
  }, [stack, waiting, submit, plan.site.id, pathname, search])
  useEffect(() => {
    const [first, ...rest] = held
    if (first === undefined || waiting) return
    setHeld(rest)
    undoing[first]?.()
  }, [held, waiting, undoing])
  const hold = (way: Way) => setHeld((before) => [...before, way])
  useHotkeys('mod+z', () => hold('undo'), { preventDefault: true })
  useHotkeys('mod+shift+z, mod+y', () => hold('redo'), { preventDefault: true })
  const [shown, show] = useState<string | null>(null)
  const showing = useMemo(() => ({ shown, show }), [shown])
  return (
    <UndoingContext.Provider value={undoing}>
      <ShownContext.Provider value={showing}>{children}</ShownContext.Provider>
    </UndoingContext.Provider>
  )
}

/** Says that the page shows the way back of a change itself, for as long as the caller is shown. */
export function useShownHere(change: string): void {
  const { show } = useContext(ShownContext)
  useEffect(() => {
    show(change)
    return () => show(null)
  }, [change, show])
}

function withLine({ past, future }: Stack, line: NewsLine, how: Way | undefined): Stack {
  if (how === 'undo') return { past: past.slice(0, -1), future: [...future, line] }
  if (how === 'redo') return { past: [...past, line], future: future.slice(0, -1) }
  return { past: [...past, line], future: [] }
}

/** The address of a page without what it tells of a change that is no more. */
function without(change: string, pathname: string, search: string): string {
  const kept = [...new URLSearchParams(search)].filter(([, value]) => value !== change)
  return kept.length > 0 ? `${pathname}?${new URLSearchParams(kept)}` : pathname
}

export const useUndoing = (): Undoing => useContext(UndoingContext)

/** For a minute after a save: what was saved, and its way back, where the page does not show one itself. */
export function LastSaved() {
  const { last, undo } = useUndoing()
  const { shown } = useContext(ShownContext)
  const { pathname } = useLocation()
  const [over, setOver] = useState<string | null>(null)
  useEffect(() => {
    if (!last) return
    const timer = setTimeout(() => setOver(last.id), TOLD_MS)
    return () => clearTimeout(timer)
  }, [last])
  const shownThere = last?.id === shown || /\/(history|floors\/[^/]+)$/.test(pathname)
  if (!last || over === last.id || shownThere) return null
  return (
    <p className={look.saved} role="status">
      <span>You {last.words}.</span>
      <QuietButton type="button" small disabled={!undo} onClick={() => undo?.()} aria-keyshortcuts="Control+Z">
        Undo
      </QuietButton>
      <button type="button" className={look.close} aria-label="Hide this" onClick={() => setOver(last.id)}>
        ×
      </button>
    </p>
  )
}
