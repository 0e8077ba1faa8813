import { z } from 'zod'
import { formatPictureMode } from '../picture/mode-text'
import type { Socket } from '../plan/site-index'
import { decimal } from '../quantity/parsed'
import { published } from '../standards/source'
import type { Screen } from '../vocabulary/device'
import { type Need, type PictureMode, pictureModeSchema } from '../vocabulary/need'
import { screens } from './aspects'
import { check, reason } from './check'
import { portPart, type Situation } from './situation'

/** Rates that displays call one: 59.94 and 60. */
const NEAR_HZ = 0.6

/** The modes of a display nearest to one that it does not take are told so many. */
const TOLD = 3

/** Whether a display takes a mode, by what it says itself. */
export const takesMode = ({ modes }: Screen, { width, height, refresh }: PictureMode): boolean =>
  modes.some((mode) => mode.width === width && mode.height === height && Math.abs(mode.refresh - refresh) <= NEAR_HZ)

/** The end of a run at which a picture is shown; none where it goes on from there. */
export const shownBy = ({ from, to }: Situation['laid'], need: Need): Socket | undefined =>
  [to, from].find(({ device }) => device.id === need.to)

const listedFigure = z.object({ width: z.number(), height: z.number(), refresh: z.number() })

/** A display that was read takes the modes it lists and no others. */
export const shownModesCheck = check({
  name: 'shown modes',
  reasons: {
    'not-listed': reason(
      { mode: pictureModeSchema, read: z.string(), instead: z.array(listedFigure).readonly() },
      ({ mode, read, instead }, { label }) =>
        `${label} does not list ${formatPictureMode(mode)} among the modes it takes, as it was read on ${read}; near it are ${instead.map(({ width, height, refresh }) => `${width}x${height}@${decimal(refresh, 2)}`).join(', ')}.`,
    ),
  },
  remedies: ['ask-less'],
  reads: [screens],
  source: published('VESA E-EDID, as the display was read'),
  *find({ laid, crossings }) {
    for (const { need } of crossings) {
      if (need.kind !== 'picture') continue
      const end = shownBy(laid, need)
      const screen = end?.device.screen
      if (!end || !screen || screen.modes.length === 0 || takesMode(screen, need.mode)) continue
      const pixels = need.mode.width * need.mode.height
      const nearest = screen.modes
        .toSorted(
          (one, other) => Math.abs(one.width * one.height - pixels) - Math.abs(other.width * other.height - pixels),
        )
        .slice(0, TOLD)
      yield {
        grade: 'blocked',
        part: portPart(end),
        needId: need.id,
        reason: { code: 'not-listed', mode: need.mode, read: screen.read, instead: nearest },
        remedies: [{ code: 'ask-less' }],
      }
    }
  },
})
