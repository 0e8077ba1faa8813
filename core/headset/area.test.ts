import { expect } from 'vitest'
import { demo } from '../../tests/support/demo-plan'
import { ours } from '../../tests/support/figures'
import { indexPlan } from '../plan/site-index'
import { leadFor } from '../route/legs'
import { areaReach, HEAD_HEIGHT } from './area'

ours('a headset lead reaches as far as the slack and the loops of the site leave it', () => {
  for (const loop of [0, 0.25, 1]) {
    const policy = { ...demo.policy, loop }
    const index = indexPlan({ ...demo, policy })
    const reaches = demo.places.flatMap((place) => areaReach(index, place))
    expect(reaches.length).toBeGreaterThan(0)
    for (const { run, port, radius } of reaches) {
      const lead = run.leads.reduce(
        (sum, each) => sum + ('length' in each ? each.length : (index.cables.get(each.cable)?.length ?? 0)),
        0,
      )
      // the route it takes, down or up and then along, asks for the lead that lies there
      const route = radius + Math.abs(HEAD_HEIGHT - port.height)
      if (radius > 0) expect(leadFor(route, policy)).toBeCloseTo(lead, 9)
    }
  }
})
