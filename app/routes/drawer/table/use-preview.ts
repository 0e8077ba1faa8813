import { useCallback, useEffect, useRef, useState } from 'react'
import { LARGEST_TABLE_BYTES } from '../../../../core/drawer/decode-text'
import type { Plan } from '../../../../core/plan/plan'
import { type Chosen, importContext, NOTHING_CHOSEN, type Preview } from '../../../csv/preview'
import { useUnit } from '../../../ui/units'
import type { PreviewAnswer, PreviewQuestion } from '../../../workers/preview.worker'

type State =
  | { step: 'none' }
  | { step: 'reading'; name: string }
  | { step: 'refused'; problem: string }
  | { step: 'read'; preview: Preview; chosen: Chosen }

/** Reads the chosen file in a worker; of several answers only that to the last question counts. */
export function usePreview(plan: Plan) {
  const unit = useUnit()
  const [state, setState] = useState<State>({ step: 'none' })
  const worker = useRef<Worker | null>(null)
  const asked = useRef(0)
  const bytes = useRef<Uint8Array | null>(null)
  const last = useRef(NOTHING_CHOSEN)
  useEffect(() => () => worker.current?.terminate(), [])

  const ask = useCallback(
    (chosen: Chosen) => {
      if (!bytes.current) return
      worker.current ??= startWorker((answer) => {
        if (answer.number !== asked.current) return
        setState(
          answer.read.ok
            ? { step: 'read', preview: answer.read.value, chosen: last.current }
            : { step: 'refused', problem: `${answer.read.problem} Nothing was imported.` },
        )
      })
      asked.current += 1
      last.current = chosen
      const question: PreviewQuestion = {
        number: asked.current,
        bytes: bytes.current,
        chosen,
        context: importContext(plan, unit),
      }
      worker.current.postMessage(question)
    },
    [plan, unit],
  )
  const open = useCallback(
    async (file: File | null) => {
      bytes.current = null
      asked.current += 1
      const mine = asked.current
      if (!file) return setState({ step: 'none' })
      if (file.size > LARGEST_TABLE_BYTES) {
        const megabytes = Math.round(file.size / 1e6)
        return setState({
          step: 'refused',
          problem: `The file has ${megabytes} MB; a table of cables has at most ${LARGEST_TABLE_BYTES / 1e6} MB. Nothing was imported.`,
        })
      }
      setState({ step: 'reading', name: file.name })
      const read = new Uint8Array(await file.arrayBuffer())
      if (mine !== asked.current) return
      bytes.current = read
      ask(NOTHING_CHOSEN)
    },
    [ask],
  )
  const paste = useCallback(
    (text: string) => {
      bytes.current = text.trim() === '' ? null : new TextEncoder().encode(text)
      asked.current += 1
      if (bytes.current) ask(NOTHING_CHOSEN)
      else setState({ step: 'none' })
    },
    [ask],
  )
  return { state, open, paste, choose: ask }
}

function startWorker(answered: (answer: PreviewAnswer) => void): Worker {
  const worker = new Worker(new URL('../../../workers/preview.worker.ts', import.meta.url), { type: 'module' })
  worker.addEventListener('message', ({ data }: MessageEvent<PreviewAnswer>) => answered(data))
  return worker
}
