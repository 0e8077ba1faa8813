import { Text } from '@chakra-ui/react'
import { formatLength } from '../../../core/quantity/length'
import { decimal } from '../../../core/quantity/parsed'
import { offsetText } from '../../../core/survey/points-text'
import type { Floor, Spot } from '../../../core/vocabulary/floor'
import { QuietButton } from '../../ui/controls'
import { FileField, plainField, TextField } from '../../ui/field'
import { takesLength } from '../../ui/keep-typed-unit'
import { useUnit } from '../../ui/units'
import look from './floor.module.css'
import { PanelForm, type Sends } from './panel-form'

/** The floor itself: its name and level, the drawing under it, and its scale. */
export function FloorPanel({
  floor,
  scaling,
  marked,
  send,
  busy,
}: Sends & { floor: Floor; scaling: boolean; marked: readonly Spot[] }) {
  const unit = useUnit()
  const { drawing } = floor
  const pixel = (metres: number | undefined) =>
    metres === undefined || !drawing ? '' : decimal(metres / drawing.metresPerPixel, 2)
  const [one, other] = marked
  return (
    <details open={scaling}>
      <summary>The floor and its drawing</summary>
      <PanelForm send={send}>
        <div className={look.pair}>
          <TextField field={plainField('name', floor.name)} label="Name" required maxLength={120} />
          <TextField
            field={plainField('level', offsetText(floor.level, unit))}
            label={`Height of the floor, ${unit}`}
            {...takesLength}
          />
        </div>
        <div className={look.tools}>
          <QuietButton name="intent" value="floor" loading={busy}>
            Save the floor
          </QuietButton>
          <QuietButton name="intent" value="no floor" formNoValidate grave>
            Delete the floor
          </QuietButton>
        </div>
      </PanelForm>
      <PanelForm send={send}>
        <FileField
          label={drawing ? 'Replace the drawing' : 'A drawing (PNG, JPEG, WebP, SVG)'}
          name="drawing"
          accept="image/png,image/jpeg,image/webp,image/svg+xml"
        />
        <div className={look.tools}>
          <QuietButton name="intent" value="drawing" loading={busy}>
            Add the drawing
          </QuietButton>
          {drawing && (
            <QuietButton name="intent" value="no drawing" formNoValidate>
              Remove
            </QuietButton>
          )}
        </div>
      </PanelForm>
      {drawing && (
        <PanelForm send={send}>
          <Text fontSize="sm" mb="1">
            {scaling
              ? `${['Mark one end of something you know the length of', 'Now its other end', 'Both ends are marked'][marked.length] ?? ''}.`
              : 'To scale it, choose “Scale the drawing” and mark both ends of something you know the length of.'}{' '}
            The whole drawing is now {formatLength(drawing.width * drawing.metresPerPixel, unit)} wide.
          </Text>
          <input type="hidden" name="px1" value={pixel(one?.x)} />
          <input type="hidden" name="py1" value={pixel(one?.y)} />
          <input type="hidden" name="px2" value={pixel(other?.x)} />
          <input type="hidden" name="py2" value={pixel(other?.y)} />
          <div className={look.pair}>
            <TextField field={plainField('distance')} label={`It is so long, ${unit}`} {...takesLength} required />
            <QuietButton name="intent" value="scale" loading={busy} disabled={marked.length < 2}>
              Scale by it
            </QuietButton>
          </div>
        </PanelForm>
      )}
    </details>
  )
}
