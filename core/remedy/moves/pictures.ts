import { lesserModes } from '../../picture/fit'
import { patch } from '../../plan/put'
import { socketAt } from '../../plan/site-index'
import { type Need, needLabel } from '../../vocabulary/need'
import type { Move, Scene } from '../move'

/** What a picture could give up, and whether another order of the pictures on a shared link would do. */
export function* pictureMoves({ index, run, verdict, crossings }: Scene): Iterable<Move> {
  const { reservation } = index.plan.policy
  const pictures = crossings.flatMap(({ need }) => (need.kind === 'picture' ? [need] : []))
  const failing = pictures.filter(({ id }) =>
    verdict.flows.some((flow) => flow.needId === id && flow.grade !== 'clear'),
  )
  const host = socketAt(index, run.from)
  if (failing.length > 0 && pictures.length > 1 && host.port.reserves !== 'stream' && reservation !== 'stream')
    yield {
      family: 'host by stream',
      words: { code: 'host by stream', device: host.device.name },
      effort: 'device',
      price: null,
      apply: (plan) =>
        patch(plan, 'devices', host.device.id, (device) => ({
          ...device,
          ports: device.ports.map((port) =>
            port.id === host.port.id ? { ...port, reserves: 'stream' as const } : port,
          ),
        })),
    }
  for (const need of failing) {
    if (need.uncompressed) {
      yield {
        family: 'compression',
        words: { code: 'allow compression', need: needLabel(need, index.devices) },
        effort: 'setting',
        price: 0,
        apply: (plan) => patch(plan, 'needs', need.id, withCompression),
      }
    }
    if (pictures.length > 1) {
      const order = [need, ...pictures.filter(({ id }) => id !== need.id)]
      yield {
        family: 'order',
        words: { code: 'served first', need: needLabel(need, index.devices) },
        effort: 'setting',
        price: 0,
        apply: (plan) =>
          order.reduce(
            (made, { id }, at) => patch(made, 'needs', id, (now) => ({ ...now, priority: Math.min(9, at + 1) })),
            plan,
          ),
      }
    }
    for (const { concession, mode } of lesserModes(need.mode)) {
      yield {
        family: `${concession} ${need.id}`,
        words: { code: 'lesser picture', need: needLabel(need, index.devices), concession, mode },
        effort: 'less',
        price: 0,
        apply: (plan) => patch(plan, 'needs', need.id, (now) => (now.kind === 'picture' ? { ...now, mode } : now)),
      }
    }
  }
}

function withCompression(need: Need): Need {
  if (need.kind !== 'picture') return need
  const { uncompressed: _, ...allowed } = need
  return allowed
}
