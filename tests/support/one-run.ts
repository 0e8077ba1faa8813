import type { z } from 'zod'
import { assess, type NeedVerdict, type RunVerdict } from '../../core/checks/assess'
import type { Finding } from '../../core/checks/checks'
import { sentence } from '../../core/checks/sentences'
import { observationSchema } from '../../core/observe/observation'
import type { Plan } from '../../core/plan/plan'
import type { CableGrade, Construction } from '../../core/standards/grades'
import type { Cable } from '../../core/vocabulary/cable'
import type { DeviceKind, deviceSchema } from '../../core/vocabulary/device'
import type { Need } from '../../core/vocabulary/need'
import type { placeSchema } from '../../core/vocabulary/place'
import type { Policy } from '../../core/vocabulary/policy'
import type { Surrounding } from '../../core/vocabulary/surroundings'
import { type Piece, planFrom } from './shorthand'

type PortInput = Omit<z.input<typeof deviceSchema>['ports'] extends (infer P)[] | undefined ? P : never, 'id' | 'name'>

/** A lead said in a line; ends default to type-C plugs. */
export type LeadInput = {
  grade?: CableGrade
  construction?: Construction
  length: number | string
  amps?: 0 | 3 | 5
  volts?: 20 | 50
  ends?: [string, string]
  oneWay?: boolean
  evidence?: Piece[]
  more?: Partial<Cable>
}

/** Need without its ends, which are always the run's own. */
export type NeedInput = Need extends infer N ? (N extends Need ? Omit<N, 'id' | 'from' | 'to'> : never) : never

export type OneRun = {
  from: PortInput & { kind?: DeviceKind }
  to: PortInput & { kind?: DeviceKind }
  /** More about the far device: its place, its battery or drive. */
  far?: Partial<z.input<typeof deviceSchema>>
  places?: z.input<typeof placeSchema>[]
  through?: Surrounding[]
  leads: LeadInput[]
  need?: NeedInput & { upstream?: boolean }
  alsoNeed?: NeedInput[]
  route?: number
  /** How tight the route is. */
  path?: { bend?: number; conduit?: { inner: number; beside?: number[] } }
  policy?: Partial<Policy>
  /** What was seen, one after the other, a minute apart: of the first lead where it names nothing else. */
  seen?: Seen[]
}

/** An observation without what does not matter in a test. `on` is the port of the host end: `near/p` is that of the run. */
export type Seen = Record<string, unknown> & { on?: string; to?: string }

const addressOf = (text: string) => {
  const [device, port] = text.split('/')
  return { device, port }
}

/** Observations as a plan has them. */
export const seenAs = (seen: readonly Seen[]): Plan['observations'] =>
  seen.map(({ on, to, where, ...rest }, at) =>
    observationSchema.parse({
      id: `seen-${at}`,
      at: new Date(Date.UTC(2026, 5, 1, 9, at)).toISOString(),
      subject: { cable: 'c1' },
      ...rest,
      ...(on || to || where
        ? {
            where: {
              ...(on ? { port: addressOf(on) } : {}),
              ...(to ? { far: addressOf(to) } : {}),
              ...(where as object),
            },
          }
        : {}),
    }),
  )

/** "type-c" is a plug; "type-c socket" the other half of an extension. */
function end(text: string): { connector: never; gender: never } {
  const [connector, gender = 'plug'] = text.split(' ')
  return { connector: connector as never, gender: gender as never }
}

/** A plan of one run between two devices, read through the same door as every plan file. */
export function onePlan({
  from,
  to,
  leads,
  need,
  alsoNeed = [],
  route = 0.3,
  path,
  policy,
  far,
  places = [],
  through,
  seen = [],
}: OneRun): Plan {
  const { kind: fromKind = 'computer', ...fromPort } = from
  const { kind: toKind = 'other', ...toPort } = to
  const plan = planFrom({
    policy: { ...policy },
    places,
    devices: [
      { id: 'near', name: 'Near', kind: fromKind, ports: [{ id: 'p', name: 'port', ...fromPort }] },
      { id: 'far', name: 'Far', kind: toKind, ports: [{ id: 'p', name: 'port', ...toPort }], ...far },
    ],
    cables: leads.map((lead, at) => ({
      id: `c${at + 1}`,
      tag: `C-${at + 1}`,
      ends: (lead.ends ?? ['type-c', 'type-c']).map(end),
      length: lead.length,
      construction: lead.construction ?? 'passive',
      oneWay: lead.oneWay ?? false,
      evidence: [
        ...(lead.grade
          ? [{ basis: 'claimed', on: '2026-03-02', grade: lead.grade, amps: lead.amps, volts: lead.volts }]
          : []),
        ...(lead.evidence ?? []),
      ],
      ...lead.more,
    })),
    runs: [
      {
        id: 'r1',
        tag: 'R-01',
        from: { device: 'near', port: 'p' },
        to: { device: 'far', port: 'p' },
        leads: leads.map((_, at) => ({ cable: `c${at + 1}` })),
        route: { length: route, through, ...path },
      },
    ],
    needs: [...(need ? [need] : []), ...alsoNeed].map(needOf),
  })
  return seen.length === 0 ? plan : { ...plan, observations: [...plan.observations, ...seenAs(seen)] }
}

function needOf({ upstream, ...need }: NonNullable<OneRun['need']>, at: number) {
  return { id: `n${at + 1}`, from: upstream ? 'far' : 'near', to: upstream ? 'near' : 'far', ...need }
}

export type Judged = {
  plan: Plan
  run: RunVerdict
  need: NeedVerdict | undefined
  /** The first finding of a check. */
  finding(check: Finding['check']): Finding | undefined
  /** All sentences together, for a look at the words. */
  words: string
}

export function judge(input: OneRun): Judged {
  const plan = onePlan(input)
  const { runs, needs } = assess(plan)
  const run = runs[0] as RunVerdict
  return {
    plan,
    run,
    need: needs[0],
    finding: (check) => run.findings.find((finding) => finding.check === check),
    words: run.findings.map((finding) => sentence(finding)).join('\n'),
  }
}
