import { type ReactNode, useEffect, useState } from 'react'
import { QuietButton } from '../../ui/controls'
import { PlainInput } from '../../ui/field'

type Made = { made: string; path?: string; word?: string; children: ReactNode }

/** Something secret that was just made: it is shown this once, to be passed on. */
export function ShownOnce({ made, path, word, children }: Made) {
  const [home, setHome] = useState('')
  const [copied, setCopied] = useState(false)
  useEffect(() => setHome(window.location.origin), [])
  const value = word ?? `${home}${path}`
  const copy = () => void navigator.clipboard?.writeText(value).then(() => setCopied(true))
  return (
    <div role="status">
      <p>
        <b>{made}</b>. Pass it on now: it is not shown again. {children}
      </p>
      <p style={{ display: 'flex', gap: 8, margin: '8px 0 20px' }}>
        <PlainInput mono readOnly value={value} aria-label={made} onFocus={(event) => event.target.select()} />
        <QuietButton type="button" onClick={copy}>
          {copied ? 'Copied' : 'Copy'}
        </QuietButton>
      </p>
    </div>
  )
}
