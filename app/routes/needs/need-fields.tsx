import type { FieldMetadata } from '@conform-to/react'
import { useCallback } from 'react'
import { needNames } from '../../../core/checks/wording'
import { needExamples } from '../../../core/needs/need-text'
import { presetsFor } from '../../../core/needs/presets'
import { devicesByPlace, type SiteIndex } from '../../../core/plan/site-index'
import { linkModeFacts } from '../../../core/standards/link-modes'
import type { Device } from '../../../core/vocabulary/device'
import { NEED_KINDS, type NeedKind } from '../../../core/vocabulary/need'
import { ChoiceField, type OptionGroup } from '../../ui/choice'
import { QuietButton } from '../../ui/controls'
import { type Known, SelectField, TextAreaField, TextField } from '../../ui/field'
import { PriorityField } from '../../ui/priority-field'
import { useSite } from '../../ui/site-context'
import type { NeedFormTexts } from './need-form'
import { NeedFigures } from './need-size'
import look from './needs.module.css'

/** Every device under its place. */
export function DeviceField({ field, label }: { field: Known; label: string }) {
  const { index } = useSite()
  const groups = useCallback(() => deviceGroups(index), [index])
  return (
    <ChoiceField
      field={field}
      label={label}
      required
      none="Choose a device"
      count={index.plan.devices.length}
      groups={groups}
      one={(value) => {
        const device = index.devices.get(value)
        return device ? { value, words: device.name } : null
      }}
    />
  )
}

function deviceGroups({ plan }: SiteIndex): OptionGroup[] {
  const at = devicesByPlace(plan.devices)
  const option = ({ id, name }: Device) => ({ value: id, words: name })
  const placed = plan.places.map(({ id, name }) => ({
    label: name,
    options: (at.get(id) ?? []).map(option),
  }))
  const loose = (at.get('') ?? []).map(option)
  return [...placed, { label: 'No place yet', options: loose }].filter(({ options }) => options.length > 0)
}

type Fields = { [Name in keyof NeedFormTexts]-?: FieldMetadata<NeedFormTexts[Name]> }

/** What must get through between which two devices, and how much of it; `put` fills in a preset. */
export function NeedFields({ fields, put }: { fields: Fields; put: (kind: NeedKind, size: string) => void }) {
  const { index } = useSite()
  const kind = (NEED_KINDS.find((each) => each === fields.kind.value) ?? 'picture') as NeedKind
  const ends = [fields.to.value, fields.from.value].flatMap((id) => index.devices.get(id ?? '') ?? [])
  const presets = ends.flatMap(presetsFor)
  return (
    <div className={look.form}>
      <DeviceField field={fields.from as Known} label="Flows from" />
      <DeviceField field={fields.to as Known} label="Flows to" />
      {presets.length > 0 && (
        <div className={look.whole}>
          <fieldset className={look.presets} aria-label="Often wanted between these two">
            {presets.map((preset) => (
              <QuietButton
                key={`${preset.kind} ${preset.name}`}
                type="button"
                small
                onClick={() => put(preset.kind, preset.size)}
              >
                {preset.name}
              </QuietButton>
            ))}
          </fieldset>
        </div>
      )}
      <SelectField field={fields.kind as Known} label="Kind">
        {NEED_KINDS.map((name) => (
          <option key={name} value={name}>
            {needNames[name]}
          </option>
        ))}
      </SelectField>
      <div>
        <TextField
          field={fields.size as Known}
          label="How much"
          hint={`like ${needExamples[kind]}`}
          mono
          required
          maxLength={120}
        />
        {!fields.size.errors && <NeedFigures kind={kind} size={fields.size.value ?? ''} />}
      </div>
      <TextField field={fields.name as Known} label="What it is called" hint="left out: its kind" maxLength={120} />
      <PriorityField field={fields.priority as Known} label="Served, among needs of its kind" />
      {kind === 'picture' && (
        <label className={look.whole}>
          <input
            type="checkbox"
            name={fields.uncompressed.name}
            defaultChecked={fields.uncompressed.initialValue === 'on'}
          />{' '}
          It must arrive without compression
        </label>
      )}
      {kind === 'headset' && (
        <>
          <TextField field={fields.hours as Known} label="Worn in one go, hours" inputMode="decimal" maxLength={5} />
          <TextField field={fields.refresh as Known} label="Used at, Hz" inputMode="decimal" maxLength={5} />
          <SelectField field={fields.link as Known} label="Link it asks for">
            <option value="">any that carries the rate</option>
            {(['gen1x1', 'gen2x1'] as const).map((mode) => (
              <option key={mode} value={mode}>
                {linkModeFacts[mode].name}
              </option>
            ))}
          </SelectField>
        </>
      )}
      {kind === 'sensor' && (
        <>
          <TextField field={fields.volts as Known} label="A voltage of its own, V" inputMode="decimal" maxLength={5} />
          <SelectField field={fields.feed as Known} label="The supply for that voltage">
            <option value="">not said</option>
            <option value="there">is there</option>
            <option value="missing">is missing</option>
          </SelectField>
        </>
      )}
      {kind === 'audio' && (
        <TextField field={fields.delay as Known} label="Delay it may add, ms" inputMode="decimal" maxLength={6} />
      )}
      <div className={look.whole}>
        <TextAreaField
          field={fields.variants as Known}
          label="What else may be asked in its place"
          hint={`A line each: a name, a colon, a size, like “the next one: ${needExamples[kind]}”`}
          rows={2}
        />
      </div>
      <div className={look.whole}>
        <TextAreaField field={fields.note as Known} label="Note" rows={2} />
      </div>
    </div>
  )
}
