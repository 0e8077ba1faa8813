import { browserSupportsWebAuthn } from '@simplewebauthn/browser'
import { useEffect, useState } from 'react'

/** What the server answers: that something was not taken, or what was asked for. */
type Answer<T> = { problem: string } | ({ problem?: null } & T)

const AWAY = 'Hallway does not answer, so nothing was done. Try again in a moment.'
/** Browsers say no more than this, whether somebody said no, had none, or took too long. */
const NOTHING_CHOSEN = 'No passkey was chosen, or it took too long. Try again.'
const KNOWN_ALREADY = 'This device has a passkey of yours already.'

async function send<T>(path: string, fields: Record<string, string>): Promise<Answer<T>> {
  const answer = await fetch(path, { method: 'POST', body: new URLSearchParams(fields) }).catch(() => null)
  const told = answer && (await answer.json().catch(() => null))
  return told ?? { problem: AWAY }
}

/**
 * Carries a question of the server to the browser's passkeys, and the answer back. `can` tells whether this browser has any at all, which is known once
 * scripts run.
 */
export function usePasskey<Question, Done>(path: string, answer: (question: Question) => Promise<unknown>) {
  const [can, setCan] = useState(false)
  const [busy, setBusy] = useState(false)
  const [problem, setProblem] = useState<string | null>(null)
  useEffect(() => setCan(browserSupportsWebAuthn()), [])
  const go = async (fields: Record<string, string>): Promise<Done | null> => {
    setBusy(true)
    setProblem(null)
    const failed = (why: string) => {
      setProblem(why)
      setBusy(false)
      return null
    }
    const question = await send<Question>(path, {})
    if (question.problem) return failed(question.problem)
    try {
      const given = await answer(question as Question)
      const done = await send<Done>(path, { ...fields, answer: JSON.stringify(given) })
      if (done.problem) return failed(done.problem)
      setBusy(false)
      return done as Done
    } catch (error) {
      return failed(error instanceof Error && error.name === 'InvalidStateError' ? KNOWN_ALREADY : NOTHING_CHOSEN)
    }
  }
  return { can, busy, problem, go }
}
