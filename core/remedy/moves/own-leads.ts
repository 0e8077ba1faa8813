import { captiveLength, captiveOf } from '../../link/captive'
import { portModes } from '../../link/port-modes'
import { patch } from '../../plan/put'
import { leadCable, type Socket, socketAt } from '../../plan/site-index'
import type { Metres } from '../../quantity/length'
import { atLeast } from '../../quantity/limit'
import { bestMode } from '../../standards/link-modes'
import { bookReach, leadShape } from '../../standards/reach'
import type { Move, Scene } from '../move'

/** A device's own lead that a bracket holds is swapped for a longer one, where leads of its sort go that far (common practice). */
export function* swappedLeads({ index, run, verdict }: Scene): Iterable<Move> {
  const short = verdict.findings.find(({ check, grade }) => check === 'length' && grade !== 'clear' && grade !== 'note')
  if (!short?.need) return
  const spanned = run.leads.reduce((sum, lead) => sum + leadCable(index, lead).length, captiveLength(index, run))
  for (const address of [run.from, run.to]) {
    const socket = socketAt(index, address)
    const { device, port } = socket
    if (!port.captive?.swappable) continue
    const length = upTo(port.captive.length + Math.max(0, run.route.length * (1 + index.plan.policy.slack) - spanned))
    if (!reaches(socket, length)) continue
    yield {
      family: 'own lead swapped',
      words: { code: 'swap own lead', device: device.name, length },
      effort: 'bought',
      price: null,
      apply: (plan) =>
        patch(plan, 'devices', device.id, (now) => ({
          ...now,
          ports: now.ports.map((each) =>
            each.id === port.id && each.captive ? { ...each, captive: { ...each.captive, length } } : each,
          ),
        })),
    }
  }
}

/** The next tenth of a metre. */
const upTo = (length: Metres): Metres => Math.ceil(length * 10 - 1e-9) / 10

/** Whether a lead such as the device has, bought longer, still carries the best its port speaks. */
function reaches(socket: Socket, length: Metres): boolean {
  const mode = bestMode(portModes(socket.port))
  const own = captiveOf(socket)
  if (mode === null || !own) return false
  return atLeast(bookReach('passive', leadShape(own.cable.ends), 'unfed', mode), length)
}
