import type { Assessed } from '../checks/assess'
import type { Verdict } from '../checks/finding'
import { openCables } from '../drawer/drawer-rows'
import { runsToHandOver } from '../handover/waiting'
import { runsToLay } from '../install/work-list'
import { linesWaiting } from '../order/follow'
import { runsToProve } from '../prove/proof'
import { isOpen } from '../vocabulary/search'

/** How a site stands: its runs by verdict, and what waits at each stage of the work. */
export type Standing = {
  runs: Record<Verdict, number>
  waiting: {
    drawer: number
    survey: number
    needs: number
    match: number
    order: number
    install: number
    prove: number
    faults: number
    handover: number
  }
}

/** What the sign at the left and the list of sites tell of a site. */
export function standingOf(site: Assessed): Standing {
  const { index, assessment } = site
  const runs = { clear: 0, tight: 0, blocked: 0 }
  for (const { grade } of assessment.runs) runs[grade] += 1
  return {
    runs,
    waiting: {
      drawer: openCables(index).length,
      survey: index.plan.devices.filter(({ ports, place }) => ports.length === 0 || place === undefined).length,
      needs: assessment.needs.filter(({ grade }) => grade !== 'clear').length,
      match: runs.tight + runs.blocked,
      order: linesWaiting(index),
      install: runsToLay(index).length,
      prove: runsToProve(site).length,
      faults: index.plan.searches.filter(isOpen).length,
      handover: runsToHandOver(site).length,
    },
  }
}
