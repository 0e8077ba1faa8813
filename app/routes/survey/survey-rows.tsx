import { useState } from 'react'
import { Link as RouterLink } from 'react-router'
import type { Place } from '../../../core/plan/plan'
import { portLine } from '../../../core/survey/port-line'
import type { Device } from '../../../core/vocabulary/device'
import text from '../../theme/text.module.css'
import { MadeFrom } from '../../ui/change-fields'
import { QuietButton } from '../../ui/controls'
import { plainField, TextField } from '../../ui/field'
import { Form } from '../../ui/form'
import { lengthText } from '../../ui/form-text'
import { takesLength } from '../../ui/keep-typed-unit'
import type { RowProps } from '../../ui/long-table'
import { MainsField } from '../../ui/mains-field'
import { useSite } from '../../ui/site-context'
import { useUnit } from '../../ui/units'
import look from './survey.module.css'

/** A place as the head of what stands there, to be edited and copied in its line. */
export function PlaceLine({ place, count, props }: { place: Place | null; count: number; props: RowProps }) {
  const { plan } = useSite()
  const unit = useUnit()
  const [editing, setEditing] = useState(false)
  return (
    <tr {...props} className={look.placeLine}>
      <th colSpan={4} scope="rowgroup">
        {place && editing ? (
          <Form method="post" className={look.place} onSubmit={() => setEditing(false)}>
            <MadeFrom />
            <input type="hidden" name="place" value={place.id} />
            <TextField
              field={{ ...plainField('placeName', place.name), id: `name-${place.id}` }}
              label="Name of the place"
              required
              maxLength={120}
            />
            <MainsField mains={place.mains} />
            <TextField
              field={{
                ...plainField('outlet', place.outlet === undefined ? '' : lengthText(place.outlet, unit)),
                id: `outlet-${place.id}`,
              }}
              label="Outlet, from its ports"
              {...takesLength}
            />
            <QuietButton name="intent" value="place">
              Save the place
            </QuietButton>
            {count === 0 && (
              <QuietButton name="intent" value="no place" grave>
                Delete the place
              </QuietButton>
            )}
          </Form>
        ) : (
          <>
            {place?.name ?? 'No place yet'}{' '}
            <span className={text.quiet}>
              {count} {count === 1 ? 'device' : 'devices'}
              {place && place.mains !== true ? `, mains ${place.mains ? 'not known' : 'not within reach'}` : ''}
            </span>{' '}
            {place && (
              <QuietButton type="button" small onClick={() => setEditing(true)} aria-label={`Edit ${place.name}`}>
                Edit
              </QuietButton>
            )}{' '}
            {place && count > 0 && (
              <QuietButton asChild small>
                <RouterLink to={`/sites/${plan.site.id}/needs?copy=${place.id}#copy-place`}>
                  Copy<span className={text.hidden}> {place.name}</span>
                </RouterLink>
              </QuietButton>
            )}
          </>
        )}
      </th>
    </tr>
  )
}

/** So many ports are written out in a row. */
const PORTS_TOLD = 4

/** A device in its line. */
export function DeviceLine({ device, props }: { device: Device; props: RowProps }) {
  const { plan, index } = useSite()
  const runs = index.runsAt.get(device.id)?.length ?? 0
  return (
    <tr {...props}>
      <td className={text.wide}>
        <RouterLink to={`/sites/${plan.site.id}/survey/${device.id}`} className={`${text.link} ${text.strong}`}>
          {device.name}
        </RouterLink>
      </td>
      <td>{device.kind}</td>
      <td className={`${text.mono} ${text.tiny}`}>
        {device.ports.slice(0, PORTS_TOLD).map((port) => (
          <span key={port.id} className={text.block}>
            {portLine(port)}
          </span>
        ))}
        {device.ports.length > PORTS_TOLD && `and ${device.ports.length - PORTS_TOLD} more`}
        {device.ports.length === 0 && 'none yet'}
      </td>
      <td>{runs === 0 ? '' : runs}</td>
    </tr>
  )
}
