import { useMemo } from 'react'
import { Link as RouterLink } from 'react-router'
import { addressOf, socketName } from '../../../core/plan/site-index'
import { portMatrix, wattsTable } from '../../../core/prove/record'
import { shareText } from '../../../core/prove/record-sheets'
import { type SocketCell, socketRecordOf, socketRows } from '../../../core/prove/socket-record'
import { durationText } from '../../../core/quantity/duration'
import { formatWatts } from '../../../core/quantity/watts'
import { linkModeFacts } from '../../../core/standards/link-modes'
import text from '../../theme/text.module.css'
import { RuledTable } from '../../ui/ruled-table'
import { useSite } from '../../ui/site-context'
import look from './prove.module.css'

const MOST_ROWS = 100
const MOST_PORTS = 12

/** What kinds did by where the socket sits, what hung at the other end, and in which chain. */
export function SocketTable({ others }: { others: readonly SocketCell[] }) {
  const { plan, index } = useSite()
  const rows = useMemo(() => socketRows([...socketRecordOf(index), ...others]), [index, others])
  if (rows.length === 0) return null
  return (
    <section className={look.section} aria-labelledby="sockets">
      <h2 id="sockets">By socket and device</h2>
      <p className={text.quiet}>
        Board, front and add-in sockets do not do equally well. Fewer than three tries are counted in the next broader
        row.{' '}
        <a href={`/sites/${plan.site.id}/record/sockets.csv`} className={text.link} download>
          Download as CSV
        </a>
      </p>
      <RuledTable label="By socket and device" columns={['Kind', 'Mode', 'Socket', 'At', 'In a chain', 'Held']} wide>
        {rows.slice(0, MOST_ROWS).map((row) => (
          <tr key={JSON.stringify([row.kind, row.mode, row.sits, row.far, row.chain])}>
            <td>{row.kind}</td>
            <td>{linkModeFacts[row.mode].name}</td>
            <td>{row.sits ?? 'all'}</td>
            <td>{row.far ?? 'all'}</td>
            <td>{row.chain}</td>
            <td className={text.mono}>{shareText(row)}</td>
          </tr>
        ))}
      </RuledTable>
    </section>
  )
}

/** Which cable did what in which socket. */
export function Matrix() {
  const { plan, index } = useSite()
  const { ports, rows } = useMemo(() => portMatrix(index), [index])
  const shown = ports.slice(0, MOST_PORTS)
  if (rows.length === 0) return null
  const portName = (address: string): string => socketName(index.devices, addressOf(address))
  return (
    <section className={look.section} aria-labelledby="matrix">
      <h2 id="matrix">Cable and port</h2>
      <RuledTable label="Cable and port" columns={['Cable', ...shown.map(portName)]} maxH="480px">
        {rows.slice(0, MOST_ROWS).map(({ cable, cells }) => (
          <tr key={cable}>
            <td className={text.mono}>
              <RouterLink to={`/sites/${plan.site.id}/cables/${cable}`} className={text.link}>
                {index.cables.get(cable)?.tag ?? cable}
              </RouterLink>
            </td>
            {shown.map((port) => {
              const cell = cells.get(port)
              return (
                <td key={port} className={text.tiny}>
                  {cell &&
                    `${cell.mode ? linkModeFacts[cell.mode].name : cell.dropped ? 'dropped' : 'nothing'}${cell.seconds ? `, ${durationText(cell.seconds)}` : ''}`}
                </td>
              )
            })}
          </tr>
        ))}
      </RuledTable>
    </section>
  )
}

/** Which charger gave what over which lead to which device. */
export function WattsSeen() {
  const { plan, index } = useSite()
  const rows = useMemo(() => wattsTable(index), [index])
  if (rows.length === 0) return null
  const nameOf = (id: string): string => index.devices.get(id)?.name ?? id
  return (
    <section className={look.section} aria-labelledby="watts">
      <h2 id="watts">Charger, lead and device</h2>
      <p className={text.quiet}>
        A ceiling may belong to all three together: another charger may give more over the same lead.
      </p>
      <RuledTable label="Watts" columns={['Charger', 'Lead', 'Device', 'Arrived']} maxH="480px">
        {rows.slice(0, MOST_ROWS).map(({ charger, cable, device, least, most, times }) => (
          <tr key={`${charger} ${cable} ${device}`}>
            <td>{nameOf(charger)}</td>
            <td className={text.mono}>
              <RouterLink to={`/sites/${plan.site.id}/cables/${cable}`} className={text.link}>
                {index.cables.get(cable)?.tag ?? cable}
              </RouterLink>
            </td>
            <td>{nameOf(device)}</td>
            <td className={text.mono}>
              {times > 1 && least !== most ? `${formatWatts(least)} to ${formatWatts(most)}` : formatWatts(most)}
            </td>
          </tr>
        ))}
      </RuledTable>
    </section>
  )
}
