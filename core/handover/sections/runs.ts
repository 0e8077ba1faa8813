import { dayOf } from '../../checks/wording'
import { abilitiesOf } from '../../link/abilities'
import { byId } from '../../plan/lookup'
import { leadCable, type SiteIndex, socketName } from '../../plan/site-index'
import { cameSaid, lessWords, restsWords, stateSaid } from '../../prove/proof-words'
import { changeWords } from '../../prove/rests'
import type { TestStanding } from '../../prove/test-standing'
import { testName } from '../../prove/test-words'
import { shortCode } from '../../tags/short-code'
import type { Run } from '../../vocabulary/run'
import type { Block } from '../block'
import { runDrawing, runDrawingWords } from '../run-drawing'
import { usesWords } from '../run-words'
import type { BookOf, Section } from '../section'

/** Each run: its corridor in small, its leads, what was proved when and under what, and what it may be used for. */
export const runs: Section = {
  name: 'runs',
  title: 'Run by run',
  says: 'Each run drawn in small, with its leads and what was proved of it.',
  *blocks(of) {
    const verdicts = byId(of.site.assessment.runs)
    for (const run of of.site.index.plan.runs) {
      const verdict = verdicts.get(run.id)
      if (!verdict) continue
      yield { sort: 'heading', id: `run-${run.id}`, text: run.name ? `${run.tag}, ${run.name}` : run.tag }
      yield* told(of, run)
      yield { sort: 'drawing', drawing: runDrawing(verdict, of.room.width), alt: runDrawingWords(verdict) }
      yield* leadsOf(of, run)
      yield* provedOf(of, run)
    }
  },
}

function* told(of: BookOf, run: Run): Iterable<Block> {
  const { index } = of.site
  const proof = of.proofs.get(run.id)
  yield {
    sort: 'words',
    text: `${socketName(index.devices, run.from)} to ${socketName(index.devices, run.to)}. Route ${of.length(run.route.length)}. For ${usesWords(of, run)}.${proof ? ` ${stateSaid(index, run, proof)}.` : ''}`,
  }
}

function* leadsOf({ site, length }: BookOf, { leads }: Run): Iterable<Block> {
  const { index } = site
  if (leads.length === 0) return
  yield {
    sort: 'table',
    heads: ['Lead', 'Kind', 'Length', 'May be used for'],
    shares: [2, 4, 2, 3],
    rows: leads.map((lead) => {
      const cable = leadCable(index, lead)
      const kind = cable.kind === undefined ? undefined : index.kinds.get(cable.kind)
      return [
        'cable' in lead ? cable.tag : 'to be bought',
        kind?.name ?? 'kind not noted',
        length(cable.length),
        shortCode(abilitiesOf(index, cable)),
      ]
    }),
  }
}

function* provedOf({ site, proofs, length }: BookOf, run: Run): Iterable<Block> {
  const { index } = site
  const proof = proofs.get(run.id)
  const less = proof ? lessWords(index, run, proof) : ''
  if (less) yield { sort: 'words', text: `Accepted ${less}.` }
  const rests = proof?.accepted?.rests
  if (rests)
    yield {
      sort: 'words',
      text: `The acceptance rests on: ${restsWords(index, run, rests, length).join('; ')}.`,
      quiet: true,
    }
  const tests = proof?.tests ?? []
  const done = tests.filter(({ result }) => result)
  if (done.length === 0) {
    yield { sort: 'words', text: 'Nothing was tested on it as it lies.', quiet: true }
    return
  }
  yield {
    sort: 'table',
    heads: ['Test', 'Read', 'Came to', 'When', 'Under'],
    shares: [5, 3, 3, 2, 3],
    rows: tests.map((standing) => {
      const { test, result } = standing
      return [
        testName(index, test, run),
        result ? cameSaid(result) : '',
        cameTo(index, run, standing),
        result ? dayOf(result.at) : '',
        result?.under ?? '',
      ]
    }),
  }
}

function cameTo(index: SiteIndex, run: Run, { result, passed, failed, waived }: TestStanding): string {
  const without = waived ? 'accepted without it' : null
  if (!result) return without ?? 'not tested'
  if (result.stale) return `stale: ${result.stale.map((change) => changeWords(index, run, change)).join('; ')}`
  if (passed) return 'passed'
  const came = failed
    ? 'failed'
    : result.short
      ? 'too short'
      : result.easier
        ? 'passed with less going on'
        : 'not passed'
  return without ? `${came}; ${without}` : came
}
