import { assessAnew } from '../../core/checks/assess'
import { reassess } from '../../core/checks/reassess'
import { proposeLeads } from '../../core/match/lead-proposal'
import { put } from '../../core/plan/put'
import { findWaysOut } from '../../core/remedy/search'
import { finished } from '../../core/work/in-slices'
import { largeSite } from './bench-change'
import { median, repeated, timed } from './timing'

/** Runs that are asked about one by one. */
const ASKED = 15

/** What looking ahead costs on a site of 2,000 runs and 5,000 cables, in milliseconds. */
export function benchAhead() {
  const site = assessAnew(largeSite())
  const waiting = site.assessment.runs.filter(({ grade }) => grade !== 'clear').map(({ id }) => id)
  const blocked = site.assessment.runs.filter(({ grade }) => grade === 'blocked').map(({ id }) => id)
  const oneRun = median(blocked.slice(0, ASKED).map((id) => timed(() => void finished(findWaysOut(site, id, 1)))))
  let tried = 0
  const every = timed(() => {
    for (const id of blocked) tried += finished(findWaysOut(site, id, 1, 'one')).tried
  })
  const leads = timed(() => void finished(proposeLeads(site, waiting, 1)))
  const { plan } = site.index
  const [run] = plan.runs
  const longer = run && put(plan, 'runs', { ...run, route: { ...run.route, length: run.route.length + 1 } })
  const whatIf = repeated(9, () => void (longer && reassess(site, longer)))
  const whole = repeated(3, () => void assessAnew(plan))
  return { oneRun, asked: ASKED, every, blocked: blocked.length, leads, whatIf, gain: (tried * whole) / every }
}
