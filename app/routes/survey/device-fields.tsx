import { batteryExample, installedExample, noiseExample } from '../../../core/survey/device-text'
import { DEVICE_KINDS } from '../../../core/vocabulary/device'
import { LabelledField, PlainSelect, PlainTextArea, plainField, TextField } from '../../ui/field'
import { useSite } from '../../ui/site-context'
import look from './survey.module.css'

export type DeviceTexts = {
  name: string
  kind: string
  place: string
  busPowered: boolean
  note: string
  noise?: string
  battery?: string
  installed?: string
}

/** What a device is called, what it is and where it stands. */
export function DeviceFields({ texts }: { texts: DeviceTexts }) {
  const { plan } = useSite()
  return (
    <div className={look.fields}>
      <TextField field={plainField('name', texts.name)} label="Name" required maxLength={120} />
      <LabelledField field={plainField('kind')} label="What it is">
        <PlainSelect id="field-kind" name="kind" defaultValue={texts.kind}>
          {DEVICE_KINDS.map((kind) => (
            <option key={kind}>{kind}</option>
          ))}
        </PlainSelect>
      </LabelledField>
      <LabelledField field={plainField('place')} label="Where it stands">
        <PlainSelect id="field-place" name="place" defaultValue={texts.place}>
          <option value="">no place yet</option>
          {plan.places.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </PlainSelect>
      </LabelledField>
      <TextField field={plainField('note', texts.note)} label="Note" maxLength={2000} />
      <TextField field={plainField('noise', texts.noise)} label="How loud it is" placeholder={noiseExample} />
      <TextField
        field={plainField('battery', texts.battery)}
        label="Battery of a headset"
        placeholder={batteryExample}
      />
      <LabelledField field={plainField('installed')} label="What is installed, a line each">
        <PlainTextArea
          id="field-installed"
          name="installed"
          defaultValue={texts.installed}
          placeholder={installedExample}
          rows={2}
          spellCheck={false}
        />
      </LabelledField>
      <label className={look.tick}>
        <input type="checkbox" name="busPowered" defaultChecked={texts.busPowered} /> A hub without a supply of its own
      </label>
    </div>
  )
}
