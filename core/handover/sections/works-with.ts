import { cablesSuppliedWith } from '../../plan/site-index'
import { adviceOf, adviceSentences } from '../../prove/advice'
import type { Section } from '../section'

/** What works with what: of each device the leads that held at it and those that did not, and the lead it came with. */
export const worksWith: Section = {
  name: 'works-with',
  title: 'What works with what',
  says: 'For each device: the leads that held, those that did not, and the one it came with.',
  *blocks({ site, length }) {
    const { index } = site
    const { devices, avoid } = adviceOf(index)
    const supplied = index.plan.devices.flatMap(({ id, name }) => {
      const leads = cablesSuppliedWith(index.plan.cables).get(id) ?? []
      return leads.length > 0 ? [[name, leads.map(({ tag }) => tag).join(', ')]] : []
    })
    if (devices.length + supplied.length + avoid.length === 0)
      yield { sort: 'words', text: 'No lead was tried at any device, and none came with one.' }
    for (const advice of devices) {
      yield { sort: 'heading', id: `works-${advice.device}`, text: advice.device }
      yield { sort: 'list', items: adviceSentences(advice, index.plan.policy.currency, length) }
    }
    if (supplied.length > 0) {
      yield { sort: 'heading', id: 'works-supplied', text: 'Came in the box' }
      yield { sort: 'table', heads: ['Device', 'Leads that came with it'], shares: [1, 1], rows: supplied }
    }
    if (avoid.length > 0) {
      yield { sort: 'heading', id: 'works-avoid', text: 'Do not buy' }
      yield { sort: 'list', items: avoid.map(({ kind, why, on }) => `${kind}: ${why}${on ? ` (${on})` : ''}.`) }
    }
  },
}
