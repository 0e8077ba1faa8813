import type { EChartsCoreOption } from 'echarts/core'
import { useEffect, useRef } from 'react'
import look from './chart.module.css'

type Props = {
  /** What it shows, for whoever hears it; the figures stand in a table beside it. */
  label: string
  option: () => EChartsCoreOption
  height: number
  /** The chart is made anew when this is another. */
  of: unknown
  /** Told the name of what somebody presses; the table beside it does the same by keys. */
  picked?: (name: string) => void
}

/** A chart, drawn once scripts have loaded what draws it. It follows the light. */
export function Chart({ label, option, height, of, picked = () => {} }: Props) {
  const frame = useRef<HTMLDivElement>(null)
  // biome-ignore lint/correctness/useExhaustiveDependencies: what it is drawn from says when it is drawn anew
  useEffect(() => {
    const box = frame.current
    if (!box) return
    let gone = () => {}
    let closed = false
    import('./charts').then(({ draw }) => {
      if (!closed) gone = draw(box, option, picked)
    })
    return () => {
      closed = true
      gone()
    }
  }, [of])
  return <div ref={frame} role="img" aria-label={label} className={look.chart} style={{ height }} />
}
