import { readingText } from '../bench/grade-reading'
import { drawerRows } from '../drawer/drawer-rows'
import type { Tried } from '../observe/observation'
import { socketName } from '../plan/site-index'
import type { RunProof } from '../prove/proof'
import { BEFORE_NOTED, restsWords, staleWords, stateSaid, waivedNames } from '../prove/proof-words'
import { changeWords } from '../prove/rests'
import { stateWords, testName } from '../prove/test-words'
import { shortCode } from '../tags/short-code'
import type { Run } from '../vocabulary/run'
import { endsFrom, leadTags, usesOf } from './run-words'
import type { BookOf } from './section'

/** A table of the pack: the name of its file, and its rows under their heads. */
export type PackTable = { name: string; rows(of: BookOf): string[][] }

const runs: PackTable = {
  name: 'runs',
  rows: (of) => {
    const { index } = of.site
    return [
      [
        'run',
        'name',
        'from',
        'to',
        'leads',
        'route',
        'used for',
        'state',
        'stale since',
        'accepted with less',
        'accepted without',
        'rests on',
        'conditions',
      ],
      ...index.plan.runs.map((run) => {
        const proof = of.proofs.get(run.id)
        return [
          run.tag,
          run.name ?? '',
          socketName(index.devices, run.from),
          socketName(index.devices, run.to),
          leadTags(index, run),
          of.length(run.route.length),
          usesOf(of, run).join('; '),
          proof ? stateWords[proof.state].name : '',
          proof ? staleWords(index, run, proof).join('; ') : '',
          proof?.accepted?.less ?? '',
          proof ? waivedNames(index, run, proof).join('; ') : '',
          restsOf(of, run, proof),
          proof?.accepted?.conditions ?? '',
        ]
      }),
    ]
  },
}

function restsOf({ site, length }: BookOf, run: Run, proof: RunProof | undefined): string {
  const accepted = proof?.accepted
  if (!accepted) return ''
  return accepted.rests ? restsWords(site.index, run, accepted.rests, length).join('; ') : BEFORE_NOTED
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
      return (proof?.tests ?? []).map(({ test, result, passed, failed, waived }) => [
        run.tag,
        proof ? stateSaid(site.index, run, proof) : '',
        testName(site.index, test, run),
        result ? readingText(result.reading as Tried) : '',
        result ? (passed ? 'yes' : failed ? 'failed' : 'no') : waived ? 'accepted without it' : '',
        (result?.stale ?? []).map((change) => changeWords(site.index, run, change)).join('; '),
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
          socketName(site.index.devices, there),
        ]
      }),
    ),
  ],
}

/** The tables of a pack, each a file. */
export const packTables: readonly PackTable[] = [runs, leads, tests, devices]
