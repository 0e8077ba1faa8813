import type { Caution } from '../../checks/finding'
import { cautionSentences } from '../../checks/wording'
import type { Section } from '../section'

/** Cautions that belong to licensed people: Hallway lists them and settles none. */
const LICENSED: ReadonlySet<Caution> = new Set(['local-code', 'earths', 'height'])

/** Cautions where they apply, and what belongs to licensed people. */
export const cautions: Section = {
  name: 'cautions',
  title: 'Cautions',
  says: 'What can hurt people or equipment, where it applies, and what belongs to licensed people.',
  *blocks({ site }) {
    const { index, assessment } = site
    const at = new Map<Caution, string[]>()
    for (const { id, findings } of assessment.runs)
      for (const caution of new Set(findings.flatMap((finding) => finding.caution ?? []))) {
        const tags = at.get(caution) ?? []
        tags.push(index.runs.get(id)?.tag ?? id)
        at.set(caution, tags)
      }
    if (at.size === 0) yield { sort: 'words', text: 'No caution applies to a run as it lies.' }
    for (const licensed of [false, true]) {
      const own = [...at].filter(([caution]) => LICENSED.has(caution) === licensed)
      if (own.length === 0) continue
      if (licensed) yield { sort: 'heading', id: 'licensed', text: 'Belongs to licensed people' }
      for (const [caution, tags] of own)
        yield { sort: 'caution', text: `${cautionSentences[caution]} (${tags.join(', ')})` }
    }
  },
}
