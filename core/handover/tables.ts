import { readingText } from '../bench/grade-reading'
import { drawerRows } from '../drawer/drawer-rows'
import type { Tried } from '../observe/observation'
import { portKey } from '../plan/site-index'
import { stateWords, testName } from '../prove/test-words'
import { shortCode } from '../tags/short-code'
import { endsFrom, leadTags, socketWords, stateOf, usesOf } from './run-words'
import type { BookOf } from './section'

/** A table of the pack: the name of its file, and its rows under their heads. */
export type PackTable = { name: string; rows(of: BookOf): string[][] }

const runs: PackTable = {
  name: 'runs',
  rows: (of) => {
    const { index } = of.site
    return [
      ['run', 'name', 'from', 'to', 'leads', 'route', 'used for', 'state', 'accepted with less', 'conditions'],
      ...index.plan.runs.map((run) => {
        const proof = of.proofs.get(run.id)
        return [
          run.tag,
          run.name ?? '',
          socketWords(index, run.from),
          socketWords(index, run.to),
          leadTags(index, run),
          of.length(run.route.length),
          usesOf(of, run).join('; '),
          proof ? stateWords[proof.state].name : '',
          proof?.accepted?.less ?? '',
          proof?.accepted?.conditions ?? '',
        ]
      }),
    ]
  },
}

const leads: PackTable = {
  name: 'leads',
  rows: ({ site, length }) => [
    ['lead', 'kind', 'length', 'may be used for', 'where', 'came with', 'note'],
    ...drawerRows(site.index).map(({ cable, abilities, where, pairing }) => [
      cable.tag,
      (cable.kind && site.index.kinds.get(cable.kind)?.name) ?? '',
      length(cable.length),
      shortCode(abilities),
      where.at === 'run' ? where.run.tag : where.at,
      pairing ?? '',
      cable.note ?? '',
    ]),
  ],
}

const tests: PackTable = {
  name: 'tests',
  rows: ({ site, proofs }) => [
    ['run', 'state', 'test', 'read', 'passed', 'stale since', 'at', 'under'],
    ...site.index.plan.runs.flatMap((run) => {
      const proof = proofs.get(run.id)
      return (proof?.tests ?? []).map(({ test, result, passed }) => [
        run.tag,
        proof ? stateOf(proof) : '',
        testName(site.index, test, portKey(test.socket) === portKey(run.from)),
        result ? readingText(result.reading as Tried) : '',
        result ? (passed ? 'yes' : 'no') : '',
        result?.stale ? `${result.stale.was}, now ${result.stale.is}` : '',
        result?.at ?? '',
        result?.under ?? '',
      ])
    }),
  ],
}

const devices: PackTable = {
  name: 'devices',
  rows: ({ site }) => [
    ['device', 'place', 'port', 'run', 'goes to'],
    ...site.index.plan.devices.flatMap((device) =>
      (site.index.runsAt.get(device.id) ?? []).map((run) => {
        const [here, there] = endsFrom(run, device.id)
        return [
          device.name,
          site.index.places.get(device.place ?? '')?.name ?? '',
          device.ports.find(({ id }) => id === here.port)?.name ?? here.port,
          run.tag,
          socketWords(site.index, there),
        ]
      }),
    ),
  ],
}

/** The tables of a pack, each a file. */
export const packTables: readonly PackTable[] = [runs, leads, tests, devices]
