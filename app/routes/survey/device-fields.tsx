import { useState } from 'react'
import { deviceFacts, deviceTicks, ticksOf } from '../../../core/survey/device-facts'
import { DEVICE_KINDS, type Device, type DeviceKind } from '../../../core/vocabulary/device'
import { LabelledField, PlainSelect, PlainTextArea, plainField, TextField } from '../../ui/field'
import { NameField } from '../../ui/name-field'
import { useSite } from '../../ui/site-context'
import { useUnit } from '../../ui/units'
import { PlaceSelect } from './place-select'
import look from './survey.module.css'

/** What a device is called, what it is, where it stands, and what is asked of its kind. */
export function DeviceFields({
  device,
  choosePlace,
}: {
  device: Omit<Device, 'id'> & { id?: string }
  /** Told where somebody puts it, so that the next one begins there. */
  choosePlace?: (id: string) => void
}) {
  const { plan } = useSite()
  const unit = useUnit()
  const [kind, setKind] = useState<DeviceKind>(device.kind)
  const context = { unit, ports: device.ports }
  const asked = ({ kinds }: { kinds: readonly DeviceKind[] }): boolean => kinds.includes(kind)
  const ticks = ticksOf(device)
  return (
    <div className={look.fields}>
      <NameField
        field={plainField('name', device.name)}
        label="Name"
        taken={plan.devices.flatMap(({ id, name }) => (id === device.id ? [] : name))}
      />
      <LabelledField field={plainField('kind')} label="What it is">
        <PlainSelect
          id="field-kind"
          name="kind"
          defaultValue={device.kind}
          onChange={({ currentTarget }) => setKind(currentTarget.value as DeviceKind)}
        >
          {DEVICE_KINDS.map((each) => (
            <option key={each}>{each}</option>
          ))}
        </PlainSelect>
      </LabelledField>
      <PlaceSelect label="Where it stands" name="place" initial={device.place ?? ''} chosen={choosePlace} />
      <TextField field={plainField('note', device.note)} label="Note" maxLength={2000} />
      {deviceFacts.filter(asked).map((fact) =>
        fact.lines ? (
          <LabelledField key={fact.field} field={plainField(fact.field)} label={fact.label}>
            <PlainTextArea
              id={`field-${fact.field}`}
              name={fact.field}
              defaultValue={fact.say(device, context)}
              placeholder={fact.example}
              rows={fact.lines}
              spellCheck={false}
            />
          </LabelledField>
        ) : (
          <TextField
            key={fact.field}
            field={plainField(fact.field, fact.say(device, context))}
            label={fact.label}
            placeholder={fact.example}
          />
        ),
      )}
      {deviceTicks.filter(asked).map(({ name, label }) => (
        <label key={name} className={look.tick}>
          <input type="hidden" name={`asks-${name}`} value="on" />
          <input type="checkbox" name={name} defaultChecked={ticks[name]} /> {label}
        </label>
      ))}
    </div>
  )
}
