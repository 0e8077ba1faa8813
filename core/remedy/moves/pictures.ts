import { lesserModes } from '../../picture/fit'
import { patch } from '../../plan/put'
import { type Need, needLabel } from '../../vocabulary/need'
import type { Move, Scene } from '../move'

/** What a picture could give up, and whether another order of the pictures on a shared link would do. */
export function* pictureMoves({ index, verdict, crossings }: Scene): Iterable<Move> {
  const pictures = crossings.flatMap(({ need }) => (need.kind === 'picture' ? [need] : []))
  const failing = pictures.filter(({ id }) =>
    verdict.flows.some((flow) => flow.needId === id && flow.grade !== 'clear'),
  )
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
