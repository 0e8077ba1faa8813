import type { Run } from '../vocabulary/run'
import type { Plan } from './plan'

/** The runs that end at a device. */
export const runsOn = ({ runs }: Plan, device: string): Run[] =>
  runs.filter(({ from, to }) => from.device === device || to.device === device)
