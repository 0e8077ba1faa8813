import { useState } from 'react'
import { needNames } from '../../../core/checks/wording'
import { countedSize, saidSize } from '../../../core/needs/need-text'
import { type Preset, presetsFor, severalFor, usualToward } from '../../../core/needs/presets'
import type { Device } from '../../../core/vocabulary/device'
import { NEED_KINDS, type Need, type NeedKind } from '../../../core/vocabulary/need'
import text from '../../theme/text.module.css'
import { PlainInput, PlainSelect } from '../../ui/field'
import { useSite } from '../../ui/site-context'
import { NeedFigures } from './need-size'
import look from './needs.module.css'

/** What is wanted of one device around a computer, as a line to tick: the usual need for it, to be changed. */
export function NeedLine({
  host,
  device,
  wrong,
  like,
}: {
  host: Device
  device: Device
  wrong: string | undefined
  /** A need to say again of devices of the kind it is of: then only these are ticked. */
  like?: Need | undefined
}) {
  const { plan, index } = useSite()
  const presets = [...presetsFor(device), ...severalFor(device)]
  const standing = plan.needs.filter(
    ({ from, to }) => (from === host.id && to === device.id) || (from === device.id && to === host.id),
  )
  const first = presets.find(({ kind }) => !standing.some((need) => need.kind === kind)) ?? presets[0]
  const far = like && (like.from === host.id ? like.to : like.from)
  const again = far !== undefined && index.devices.get(far)?.kind === device.kind ? like : undefined
  const [kind, setKind] = useState<NeedKind>(again?.kind ?? first?.kind ?? 'data')
  const [size, setSize] = useState(again ? saidSize(again) : (first?.size ?? ''))
  const [toward, setToward] = useState(again ? (again.to === far ? 'device' : 'host') : (first?.toward ?? 'device'))
  const [on, setOn] = useState(standing.length === 0 && (like === undefined || again !== undefined))
  const take = (preset: Preset) => {
    setKind(preset.kind)
    setSize(preset.size)
    setToward(preset.toward)
    setOn(true)
  }
  return (
    <li className={look.line}>
      <input
        type="checkbox"
        name="line"
        value={device.id}
        checked={on}
        onChange={({ currentTarget }) => setOn(currentTarget.checked)}
        aria-label={`${needNames[kind]} for ${device.name}`}
      />
      <span>
        <b>{device.name}</b>
        {standing.length > 0 && (
          <span className={`${text.block} ${text.tiny} ${text.quiet}`}>
            has {standing.length} {standing.length === 1 ? 'need' : 'needs'} already
          </span>
        )}
      </span>
      <PlainSelect
        aria-label={`Usual for ${device.name}`}
        value={presets.find((each) => each.kind === kind && each.size === size)?.name ?? ''}
        onChange={({ currentTarget }) => {
          const preset = presets.find(({ name }) => name === currentTarget.value)
          if (preset) take(preset)
        }}
      >
        <option value="">as typed</option>
        {presets.map(({ name }) => (
          <option key={name}>{name}</option>
        ))}
      </PlainSelect>
      <PlainSelect
        name={`kind-${device.id}`}
        aria-label={`Kind for ${device.name}`}
        value={kind}
        onChange={({ currentTarget }) => {
          const chosen = NEED_KINDS.find((each) => each === currentTarget.value) ?? 'data'
          setKind(chosen)
          setToward(usualToward(chosen, device))
        }}
      >
        {NEED_KINDS.map((name) => (
          <option key={name} value={name}>
            {needNames[name]}
          </option>
        ))}
      </PlainSelect>
      <PlainInput
        name={`size-${device.id}`}
        aria-label={`How much for ${device.name}`}
        value={size}
        onChange={({ currentTarget }) => setSize(currentTarget.value)}
        mono
        maxLength={120}
      />
      <input type="hidden" name={`toward-${device.id}`} value={toward} />
      <div className={look.wide}>
        <NeedFigures kind={kind} {...countedSize(size)} />
        {wrong && (
          <p role="alert" className={look.wrong}>
            {wrong}
          </p>
        )}
      </div>
    </li>
  )
}
