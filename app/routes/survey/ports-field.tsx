import { useDeferredValue, useMemo } from 'react'
import { formatWatts } from '../../../core/quantity/watts'
import { connectorNames } from '../../../core/standards/connectors'
import { linkModeFacts } from '../../../core/standards/link-modes'
import { displayPortLane, hdmiLink } from '../../../core/standards/picture-links'
import { type LineFault, parsePortLines, portExample, type SaidPort } from '../../../core/survey/port-line'
import text from '../../theme/text.module.css'
import { LabelledField, PlainTextArea, plainField, tiedTo } from '../../ui/field'
import { RuledTable } from '../../ui/ruled-table'
import look from './survey.module.css'

/** So many ports are shown as understood. */
const MOST_SHOWN = 64

/** Ports, a line each, with what was understood of them as it is typed. */
export function PortsField({
  value,
  put,
  wrong,
}: {
  value: string
  put: (text: string) => void
  wrong: readonly LineFault[]
}) {
  const late = useDeferredValue(value)
  const { ports, faults } = useMemo(() => parsePortLines(late), [late])
  const field = plainField('ports')
  const told = faults.length > 0 ? faults : wrong
  return (
    <div className={look.ports}>
      <LabelledField
        field={field}
        label="Ports, a line each"
        hint={`like “${portExample}”, “left: type-C 10g dp1.4 takes 96W”, “hdmi 2.0 in”, “type-A 5g @board”`}
      >
        <PlainTextArea
          {...tiedTo({ field, hint: true })}
          name="ports"
          value={value}
          onChange={({ currentTarget }) => put(currentTarget.value)}
          rows={Math.min(16, Math.max(4, value.split('\n').length + 1))}
          spellCheck={false}
          mono
        />
      </LabelledField>
      {told.length > 0 && (
        <ul role="alert" className={look.wrong}>
          {told.slice(0, 5).map(({ line, problem }) => (
            <li key={line}>
              Line {line}: {problem}
            </li>
          ))}
        </ul>
      )}
      {ports.length > 0 && (
        <RuledTable
          label="Ports as understood"
          cards
          caption={`Understood: ${ports.length} ${ports.length === 1 ? 'port' : 'ports'}`}
          columns={['Port', 'Connector', 'Data', 'Picture', 'Power', 'Where']}
        >
          {ports.slice(0, MOST_SHOWN).map((port) => (
            <PortRow key={port.name} port={port} />
          ))}
        </RuledTable>
      )}
    </div>
  )
}

function PortRow({ port }: { port: SaidPort }) {
  const { connector, gender, role, usb, usb4, thunderbolt, displayport, hdmi, gives, takes, sits, controller } = port
  const data = [
    thunderbolt ? `Thunderbolt ${thunderbolt}` : '',
    usb4 ? `USB4 ${usb4} Gb/s` : '',
    usb ? linkModeFacts[usb].name : '',
    role === 'either' ? '' : role,
  ]
  const picture = displayport
    ? `${displayport.direction}, DisplayPort ${displayPortLane[displayport.link].name} x${displayport.lanes}${displayport.compression ? ', compression' : ''}`
    : hdmi
      ? `${hdmi.direction}, ${hdmiLink[hdmi.level].name}`
      : ''
  return (
    <tr>
      <td>
        <b>{port.name}</b>
      </td>
      <td>
        {connectorNames[connector]} {gender === 'plug' ? 'plug' : ''}
      </td>
      <td>{data.filter(Boolean).join(', ')}</td>
      <td>{picture}</td>
      <td className={text.mono}>
        {[gives ? `gives ${formatWatts(gives)}` : '', takes ? `takes ${formatWatts(takes)}` : '']
          .filter(Boolean)
          .join(', ')}
      </td>
      <td>{[sits ?? '', controller ?? ''].filter(Boolean).join(', ')}</td>
    </tr>
  )
}
