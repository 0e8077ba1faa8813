import { type ComponentProps, cloneElement, type ReactElement, type ReactNode } from 'react'
import type { Grade } from '../../core/checks/finding'
import look from './controls.module.css'

type ButtonProps = Omit<ComponentProps<'button'>, 'className'> & {
  /** It waits for an answer. */
  loading?: boolean
  /** Among lines of a list. */
  small?: boolean
  /** Large enough to hit with a lead in the other hand. */
  large?: boolean
  /** It takes something away. */
  grave?: boolean
  /** A link that looks like a button. */
  asChild?: boolean
}

function PlainButton({
  kind,
  loading,
  small,
  large,
  grave,
  asChild,
  children,
  ...rest
}: ButtonProps & { kind: string }) {
  const className = [look.button, kind, small && look.small, large && look.large, grave && look.grave]
    .filter(Boolean)
    .join(' ')
  if (asChild) return cloneElement(children as ReactElement<{ className?: string }>, { className })
  return (
    <button type="submit" disabled={loading} aria-busy={loading || undefined} {...rest} className={className}>
      {loading && <span className={look.busy} />}
      {children}
    </button>
  )
}

/** The one action of a form. */
export const MainButton = (props: ButtonProps) => <PlainButton kind={look.main ?? ''} {...props} />

/** Any other action. */
export const QuietButton = (props: ButtonProps) => <PlainButton kind="" {...props} />

/** A strip of words across the page: what happened, and what can be done about it. */
export function Notice({
  tone,
  slim,
  id,
  children,
}: {
  tone: Grade
  slim?: boolean
  id?: string
  children: ReactNode
}) {
  return (
    <div
      id={id}
      role={tone === 'blocked' ? 'alert' : 'status'}
      data-grade={tone}
      className={slim ? `${look.notice} ${look.slim}` : look.notice}
    >
      {children}
    </div>
  )
}
