import { type MouseEvent, useEffect, useRef, useState } from 'react'
import text from '../../../theme/text.module.css'
import { MainButton, QuietButton } from '../../../ui/controls'
import { useSeconds } from '../../../ui/use-seconds'

type State = { step: 'none' } | { step: 'drawing' } | { step: 'ready'; file: string } | { step: 'failed'; why: string }

/** The sheets as a PDF: drawn on the server while the page tells how long it has been at it, and stopped when that is asked. Without scripts a plain link. */
export function TagPdf({ address, sheets }: { address: string; sheets: number }) {
  const [state, setState] = useState<State>({ step: 'none' })
  const leaving = useRef<AbortController | null>(null)
  const file = state.step === 'ready' ? state.file : null
  useEffect(() => () => leaving.current?.abort(), [])
  useEffect(() => () => void (file && URL.revokeObjectURL(file)), [file])
  const draw = async (event: MouseEvent) => {
    // a click that asks for another tab gets the plain file there
    if (event.metaKey || event.ctrlKey || event.shiftKey) return
    event.preventDefault()
    const leave = new AbortController()
    leaving.current = leave
    setState({ step: 'drawing' })
    try {
      const answer = await fetch(address, { signal: leave.signal })
      setState(
        answer.ok
          ? { step: 'ready', file: URL.createObjectURL(await answer.blob()) }
          : {
              step: 'failed',
              why:
                answer.status === 429
                  ? await answer.text()
                  : 'The sheets could not be drawn. Try again, with fewer cables at once.',
            },
      )
    } catch {
      setState(
        leave.signal.aborted ? { step: 'none' } : { step: 'failed', why: 'The server did not answer. Try again.' },
      )
    }
  }
  if (state.step === 'drawing') return <Drawing sheets={sheets} stop={() => leaving.current?.abort()} />
  return (
    <>
      <MainButton asChild>
        {state.step === 'ready' ? (
          <a href={state.file} target="_blank" rel="noreferrer">
            Open the PDF
          </a>
        ) : (
          <a href={address} target="_blank" rel="noreferrer" onClick={draw}>
            PDF to print
          </a>
        )}
      </MainButton>
      <span role="status" className={state.step === 'failed' ? text.warn : text.hidden}>
        {state.step === 'failed' ? state.why : state.step === 'ready' ? 'The sheets are drawn.' : ''}
      </span>
    </>
  )
}

function Drawing({ sheets, stop }: { sheets: number; stop: () => void }) {
  const seconds = useSeconds(0)
  return (
    <>
      <QuietButton type="button" onClick={stop}>
        Stop
      </QuietButton>
      <label className={text.small}>
        Drawing {sheets} {sheets === 1 ? 'sheet' : 'sheets'}, {Math.floor(seconds)} s{' '}
        <progress style={{ accentColor: 'var(--hw-colors-brass)' }} />
      </label>
    </>
  )
}
