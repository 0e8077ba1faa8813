import { closestCenter, DndContext, type DragEndEvent } from '@dnd-kit/core'
import { SortableContext, useSortable } from '@dnd-kit/sortable'
import { type KeyboardEvent, useDeferredValue, useMemo } from 'react'
import { formatWatts } from '../../../core/quantity/watts'
import { connectorNames } from '../../../core/standards/connectors'
import { linkModeFacts } from '../../../core/standards/link-modes'
import { displayPortLane, hdmiLink } from '../../../core/standards/picture-links'
import { type LineFault, lineMoved, parsePortLines, portExample, type SaidPort } from '../../../core/survey/port-line'
import text from '../../theme/text.module.css'
import { LabelledField, PlainTextArea, plainField, tiedTo } from '../../ui/field'
import { RuledTable } from '../../ui/ruled-table'
import { useSortSensors } from '../../ui/use-sort-sensors'
import { PortByFields } from './port-by-fields'
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
  const { ports, lines, faults } = useMemo(() => parsePortLines(late), [late])
  const field = plainField('ports')
  const sensors = useSortSensors()
  const dropped = ({ active, over }: DragEndEvent) => {
    const lineOf = (id: unknown) => lines[ports.findIndex(({ name }) => name === id)]
    const [from, to] = [lineOf(active.id), lineOf(over?.id)]
    if (from !== undefined && to !== undefined && from !== to) put(lineMoved(value, from, to))
  }
  const told = faults.length > 0 ? faults : wrong
  return (
    <div className={look.ports}>
      <LabelledField
        field={field}
        label="Ports, a line each"
        hint={`like “${portExample}”, “left: type-C 10g dp1.4 takes 96W”, “hdmi 2.0 in”, “type-A 5g @board”; alt with an arrow moves a line`}
      >
        <PlainTextArea
          {...tiedTo({ field, hint: true })}
          onKeyDown={(event) => moveByKeys(event, put)}
          name="ports"
          value={value}
          onChange={({ currentTarget }) => put(currentTarget.value)}
          rows={Math.min(16, Math.max(4, value.split('\n').length + 1))}
          spellCheck={false}
          mono
        />
      </LabelledField>
      <PortByFields add={(line) => put(value.trim() === '' ? line : `${value.trimEnd()}\n${line}`)} />
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
        <DndContext id="ports" sensors={sensors} collisionDetection={closestCenter} onDragEnd={dropped}>
          <SortableContext items={ports.slice(0, MOST_SHOWN).map(({ name }) => name)}>
            <RuledTable
              label="Ports as understood"
              cards
              caption={`Understood: ${ports.length} ${ports.length === 1 ? 'port' : 'ports'}`}
              columns={['Move', 'Port', 'Connector', 'Data', 'Picture', 'Power', 'Where']}
            >
              {ports.slice(0, MOST_SHOWN).map((port, at) => (
                <PortRow
                  key={port.name}
                  port={port}
                  line={lines[at] ?? 0}
                  count={lines.length}
                  neighbours={neighboursOf(port, ports)}
                />
              ))}
            </RuledTable>
          </SortableContext>
        </DndContext>
      )}
    </div>
  )
}

/** Alt with an arrow moves the line that is being typed, as a row is dragged. */
function moveByKeys(event: KeyboardEvent<HTMLTextAreaElement>, put: (text: string) => void) {
  const step = event.altKey ? { ArrowUp: -1, ArrowDown: 1 }[event.key] : undefined
  if (step === undefined) return
  event.preventDefault()
  const { value, selectionStart } = event.currentTarget
  const from = value.slice(0, selectionStart).split('\n').length - 1
  const moved = lineMoved(value, from, from + step)
  if (moved === value) return
  const area = event.currentTarget
  put(moved)
  const start = moved
    .split('\n')
    .slice(0, from + step)
    .join('\n').length
  requestAnimationFrame(() => area.setSelectionRange(start + 1, start + 1))
}

/** The ports that hang on the same controller: what one of them moves, the others have less. */
const neighboursOf = ({ name, controller }: SaidPort, ports: readonly SaidPort[]): string[] =>
  controller === undefined
    ? []
    : ports.filter((other) => other.controller === controller && other.name !== name).map((other) => other.name)

function PortRow({
  port,
  line,
  count,
  neighbours,
}: {
  port: SaidPort
  line: number
  count: number
  neighbours: readonly string[]
}) {
  const { attributes, listeners, setNodeRef, transform } = useSortable({ id: port.name })
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
    <tr ref={setNodeRef} style={transform ? { transform: `translateY(${transform.y}px)` } : undefined}>
      <td>
        {count > 1 && (
          <button
            type="button"
            className={look.handle}
            aria-label={`Move ${port.name}, line ${line + 1}`}
            {...attributes}
            {...listeners}
          >
            ::
          </button>
        )}
      </td>
      <td>
        <b>{port.name}</b>
      </td>
      <td>
        {port.ownPlug ?? connectorNames[connector]} {gender === 'plug' ? 'plug' : ''}
      </td>
      <td>{data.filter(Boolean).join(', ')}</td>
      <td>{picture}</td>
      <td className={text.mono}>
        {[
          port.lacksResistors ? 'lacks the type-C resistors' : '',
          gives ? `gives ${formatWatts(gives)}` : '',
          (port.levels ?? []).map(({ volts, amps }) => `${volts} V ${amps} A`).join(' / '),
          takes ? `takes ${formatWatts(takes)}` : '',
        ]
          .filter(Boolean)
          .join(', ')}
      </td>
      <td>
        {[sits ?? '', controller ?? '', neighbours.length > 0 ? `shares it with ${neighbours.join(', ')}` : '']
          .filter(Boolean)
          .join(', ')}
      </td>
    </tr>
  )
}
