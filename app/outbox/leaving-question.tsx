import { useEffect, useRef } from 'react'
import { useBlocker } from 'react-router'
import { MainButton, QuietButton } from '../ui/controls'
import { giveUpDrafts, hasUnsaved, isSending } from './drafts'
import look from './leaving-question.module.css'

/** Asks before a page is left for another one of Hallway while something typed on it is not saved; the browser asks where the tab is closed. */
export function LeavingQuestion() {
  const blocker = useBlocker(
    ({ currentLocation, nextLocation }) =>
      currentLocation.pathname !== nextLocation.pathname && !isSending() && hasUnsaved(),
  )
  const asked = blocker.state === 'blocked'
  const dialog = useRef<HTMLDialogElement>(null)
  useEffect(() => {
    if (asked) dialog.current?.showModal()
    else dialog.current?.close()
  }, [asked])
  return (
    <dialog ref={dialog} className={look.question} aria-labelledby="leaving" onClose={() => blocker.reset?.()}>
      <p id="leaving">
        <b>What you typed here is not saved.</b> Stay, and it is all still there.
      </p>
      <div className={look.answers}>
        <MainButton type="button" onClick={() => blocker.reset?.()}>
          Stay here
        </MainButton>
        <QuietButton
          type="button"
          onClick={() => {
            giveUpDrafts()
            blocker.proceed?.()
          }}
        >
          Leave without saving
        </QuietButton>
      </div>
    </dialog>
  )
}
