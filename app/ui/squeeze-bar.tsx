import type { Squeeze } from '../../core/checks/finding'
import { formatFigure } from '../../core/checks/wording'
import text from '../theme/text.module.css'
import look from './squeeze-bar.module.css'

/** A need against the door it has to pass: the door is the frame, the need fills it, and what does not fit stands out. */
export function SqueezeBar({ squeeze }: { squeeze: Squeeze }) {
  const { have, need, unit } = squeeze
  const whole = Math.max(have, need)
  const share = (figure: number): string => `${(100 * figure) / whole}%`
  const over = have - need
  const margin =
    over === 0 ? 'nothing to spare' : `${formatFigure(Math.abs(over), unit)} ${over < 0 ? 'short' : 'to spare'}`
  const figures = `${formatFigure(need, unit)} of ${have === 0 ? 'nothing' : formatFigure(have, unit)}`
  return (
    <span className={look.squeeze}>
      <span className={look.bar} aria-hidden="true">
        <span className={look.door} style={{ width: share(have) }} />
        <span className={look.need} style={{ width: share(Math.min(need, have)) }} />
        {over < 0 && <span className={look.short} style={{ left: share(have), width: share(-over) }} />}
      </span>
      <span className={look.figures} title={figures}>
        {margin}
        <span className={text.hidden}>, {figures}</span>
      </span>
    </span>
  )
}
