import { Text } from '@chakra-ui/react'
import { Link as RouterLink } from 'react-router'
import type { Place } from '../../../core/plan/plan'
import { formatLength } from '../../../core/quantity/length'
import { USUAL_HEIGHT } from '../../../core/route/follow'
import { offsetText } from '../../../core/survey/points-text'
import type { Floor, Spot } from '../../../core/vocabulary/floor'
import text from '../../theme/text.module.css'
import { MainButton, QuietButton } from '../../ui/controls'
import { LabelledField, PlainSelect, plainField, TextField } from '../../ui/field'
import { takesLength } from '../../ui/keep-typed-unit'
import { useSite } from '../../ui/site-context'
import { useUnit } from '../../ui/units'
import look from './floor.module.css'
import { numberText, PanelForm, type Sends } from './panel-form'

/** How a place stands on the floor. */
export function PlacePanel({ place, send, busy }: Sends & { place: Place }) {
  const { index } = useSite()
  const unit = useUnit()
  const devices = index.plan.devices.filter((device) => device.place === place.id)
  return (
    <details open>
      <summary>{place.name}</summary>
      <Text fontSize="sm">
        {devices.length === 0 ? 'Nothing stands here yet.' : devices.map(({ name }) => name).join(', ')}
      </Text>
      <PanelForm send={send}>
        <input type="hidden" name="place" value={place.id} />
        <div className={look.pair}>
          <SpotFields spot={place.at ?? null} />
          <StandingFields place={place} unit={unit} />
        </div>
        <div className={look.tools}>
          <MainButton name="intent" value="stand" loading={busy}>
            Save the place
          </MainButton>
          <QuietButton name="intent" value="lift" formNoValidate>
            Take it off the floor
          </QuietButton>
        </div>
      </PanelForm>
    </details>
  )
}

function SpotFields({ spot }: { spot: Spot | null }) {
  const unit = useUnit()
  return (
    <>
      <TextField
        field={plainField('x', spot ? offsetText(spot.x, unit) : '')}
        label={`Right of the corner, ${unit}`}
        {...takesLength}
        required
      />
      <TextField
        field={plainField('y', spot ? offsetText(spot.y, unit) : '')}
        label={`Down from it, ${unit}`}
        {...takesLength}
        required
      />
    </>
  )
}

function StandingFields({ place, unit }: { place: Place | null; unit: 'm' | 'ft' }) {
  const length = (metres: number | undefined) => (metres === undefined ? '' : offsetText(metres, unit))
  return (
    <>
      <TextField
        field={plainField('height', length(place?.height))}
        label={`Height of its ports, ${unit}`}
        {...takesLength}
        placeholder={formatLength(USUAL_HEIGHT, unit)}
      />
      <TextField field={plainField('quiet', numberText(place?.quiet))} label="Chair: dB wanted" inputMode="decimal" />
      <TextField
        field={plainField('width', length(place?.area?.width))}
        label={`Play area, width, ${unit}`}
        {...takesLength}
      />
      <TextField
        field={plainField('depth', length(place?.area?.depth))}
        label={`Play area, depth, ${unit}`}
        {...takesLength}
      />
    </>
  )
}

/** Places that stand on no floor yet, and where one of them is to stand. */
export function StandPanel({
  floor,
  open,
  spot,
  send,
  busy,
}: Sends & { floor: Floor; open: boolean; spot: Spot | null }) {
  const { plan } = useSite()
  const unit = useUnit()
  const loose = plan.places.filter(({ at }) => !at)
  if (plan.places.length === 0)
    return (
      <Text fontSize="sm" color="quiet">
        There are no places yet:{' '}
        <RouterLink to={`/sites/${plan.site.id}/survey`} className={text.link}>
          add them in the survey
        </RouterLink>
        .
      </Text>
    )
  return (
    <details open={open || (loose.length > 0 && loose.length === plan.places.length)}>
      <summary>Put a place on {floor.name}</summary>
      <PanelForm send={send}>
        <div className={look.pair}>
          <div className={look.wide}>
            <LabelledField field={plainField('place')} label={`Place (${loose.length} on no floor yet)`}>
              <PlainSelect id="field-place" name="place" required>
                {[...loose, ...plan.places.filter(({ at }) => at)].map(({ id, name, at }) => (
                  <option key={id} value={id}>
                    {name}
                    {at ? ', moves here' : ''}
                  </option>
                ))}
              </PlainSelect>
            </LabelledField>
          </div>
          <SpotFields spot={spot} />
          <StandingFields place={null} unit={unit} />
        </div>
        <MainButton name="intent" value="stand" loading={busy}>
          Put it here
        </MainButton>
      </PanelForm>
    </details>
  )
}
