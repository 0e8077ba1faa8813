import { useEffect, useState } from 'react'
import type { Instant } from '../../core/vocabulary/fields'

const inUtc = (at: Instant): string => `${at.slice(0, 10)} ${at.slice(11, 16)} UTC`

/** A moment in the reader's own time zone; in UTC, and saying so, until scripts know which that is. */
export function Moment({ at, dayOnly }: { at: Instant; dayOnly?: true }) {
  const [text, setText] = useState(() => (dayOnly ? at.slice(0, 10) : inUtc(at)))
  useEffect(() => {
    const moment = new Date(at)
    const day = `${moment.getFullYear()}-${two(moment.getMonth() + 1)}-${two(moment.getDate())}`
    setText(dayOnly ? day : `${day} ${two(moment.getHours())}:${two(moment.getMinutes())}`)
  }, [at, dayOnly])
  return (
    <time dateTime={at} title={`${at.slice(0, 10)} ${at.slice(11, 19)} UTC`}>
      {text}
    </time>
  )
}

const two = (figure: number): string => String(figure).padStart(2, '0')
