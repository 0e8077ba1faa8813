import { readingText } from '../../bench/grade-reading'
import { dayOf } from '../../checks/wording'
import { abilitiesOf } from '../../link/abilities'
import type { Tried } from '../../observe/observation'
import { byId } from '../../plan/lookup'
import { leadCable, portKey } from '../../plan/site-index'
import type { TestStanding } from '../../prove/proof'
import { testName } from '../../prove/test-words'
import { shortCode } from '../../tags/short-code'
import type { Run } from '../../vocabulary/run'
import type { Block } from '../block'
import { runDrawing, runDrawingWords } from '../run-drawing'
import { socketWords, stateOf, usesWords } from '../run-words'
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
    text: `${socketWords(index, run.from)} to ${socketWords(index, run.to)}. Route ${of.length(run.route.length)}. For ${usesWords(of, run)}.${proof ? ` ${stateOf(proof)}.` : ''}`,
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

function* provedOf({ site, proofs }: BookOf, run: Run): Iterable<Block> {
  const { index } = site
  const tests = proofs.get(run.id)?.tests ?? []
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
        testName(index, test, portKey(test.socket) === portKey(run.from)),
        result ? readingText(result.reading as Tried) : '',
        cameTo(standing),
        result ? dayOf(result.at) : '',
        result?.under ?? '',
      ]
    }),
  }
}

function cameTo({ result, passed }: TestStanding): string {
  if (!result) return 'not tested'
  if (result.stale) return `stale: tested with ${result.stale.was}`
  if (passed) return 'passed'
  if (result.short) return 'too short'
  return result.easier ? 'passed with less going on' : 'did not pass'
}
