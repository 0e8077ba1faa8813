import { useState } from 'react'
import { deviceFacts, deviceTicks, ticksOf } from '../../../core/survey/device-facts'
import { DEVICE_KINDS, type Device, type DeviceKind } from '../../../core/vocabulary/device'
import { LabelledField, PlainSelect, PlainTextArea, plainField, TextField } from '../../ui/field'
import { useSite } from '../../ui/site-context'
import { useUnit } from '../../ui/units'
import look from './survey.module.css'

/** What a device is called, what it is, where it stands, and what is asked of its kind. */
export function DeviceFields({ device }: { device: Omit<Device, 'id'> }) {
  const { plan } = useSite()
  const unit = useUnit()
  const [kind, setKind] = useState<DeviceKind>(device.kind)
  const context = { unit, ports: device.ports }
  const asked = ({ kinds }: { kinds: readonly DeviceKind[] }): boolean => kinds.includes(kind)
  const ticks = ticksOf(device)
  return (
    <div className={look.fields}>
      <TextField field={plainField('name', device.name)} label="Name" required maxLength={120} />
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
      <LabelledField field={plainField('place')} label="Where it stands">
        <PlainSelect id="field-place" name="place" defaultValue={device.place ?? ''}>
          <option value="">no place yet</option>
          {plan.places.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </PlainSelect>
      </LabelledField>
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
