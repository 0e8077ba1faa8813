import type { Grade } from '../../core/checks/finding'
import { gradeWords } from '../../core/checks/wording'
import look from './grade.module.css'

/** An open doorway, a half-open door, a shut one; a note is a plate on the wall. */
export function DoorGlyph({ grade, size = 18 }: { grade: Grade; size?: number }) {
  return (
    <svg viewBox="0 0 20 20" width={size} height={size} className={look.glyph} data-grade={grade} aria-hidden="true">
      {glyphs[grade]}
    </svg>
  )
}

const frame = <path d="M3 18V2.5h14V18" />
const glyphs: Record<Grade, React.ReactNode> = {
  note: <path d="M4 5.5h12v9H4zM7 8.5h6M7 11.5h4" />,
  clear: (
    <>
      {frame}
      <path d="M1 18h18" strokeDasharray="2 2" />
    </>
  ),
  tight: (
    <>
      {frame}
      <path d="M3 2.5l7 3.5v13L3 18z" fill="currentColor" fillOpacity="0.35" />
    </>
  ),
  blocked: (
    <>
      {frame}
      <path d="M3 2.5h14V18H3z" fill="currentColor" fillOpacity="0.85" />
      <circle cx="13.5" cy="11" r="1.2" fill="white" stroke="none" />
    </>
  ),
}

const glyphSizes = { xs: 16, sm: 16, lg: 22 } as const

/** A grade told three ways: word, colour and door. */
export function GradeMark({ grade, size = 'sm' }: { grade: Grade; size?: keyof typeof glyphSizes }) {
  return (
    <span className={look.mark} data-grade={grade} data-size={size}>
      <DoorGlyph grade={grade} size={glyphSizes[size]} />
      {gradeWords[grade]}
    </span>
  )
}
