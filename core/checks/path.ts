import { z } from 'zod'
import type { SiteIndex } from '../plan/site-index'
import type { Need } from '../vocabulary/need'
import { checkOf, reason } from './check'
import { craft } from './finding'

/** A need for which there is no path of runs. Its ends are named in what it says. */
export type Cut = { index: SiteIndex; need: Need }

/** There is a path of runs between the two devices of a need. */
export const pathCheck = checkOf<Cut>()({
  name: 'path',
  reasons: {
    'no-path': reason(
      { from: z.string(), to: z.string() },
      ({ from, to }) => `No path of runs, docks and hubs leads from ${from} to ${to}.`,
    ),
  },
  remedies: ['lay-run'],
  reads: [],
  source: craft,
  *find({ index, need }) {
    const nameOf = (id: string): string => index.devices.get(id)?.name ?? id
    yield {
      grade: 'blocked',
      part: { kind: 'need', id: need.id, label: need.name ?? need.kind },
      needId: need.id,
      reason: { code: 'no-path', from: nameOf(need.from), to: nameOf(need.to) },
      remedies: [{ code: 'lay-run' }],
    }
  },
})
