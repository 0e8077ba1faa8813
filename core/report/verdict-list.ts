import { leadTag } from '../change/differences'
import { type Assessed, leadingFinding } from '../checks/assess'
import { severity, type Verdict } from '../checks/finding'
import { remedySentence } from '../checks/remedies'
import { sentence } from '../checks/sentences'
import { gradeWords } from '../checks/wording'
import { formatNeedSize } from '../needs/need-text'
import { priceAt } from '../plan/site-index'
import { formatLength, type LengthUnit, type Metres } from '../quantity/length'
import { decimal } from '../quantity/parsed'
import { needLabel } from '../vocabulary/need'

/** A run or a need as a list of verdicts tells it. */
export type VerdictLine = {
  id: string
  /** The tag of a run, or what a need is called. */
  name: string
  from: string
  to: string
  /** Of a run its route, of a need what it asks. */
  size: string
  /** The cables of a run, or the runs of a need. */
  over: string
  grade: Verdict
  /** Why it is not clear, and what would help; empty where it is. */
  why: string
  todo: readonly string[]
}

type Judged = { id: string; grade: Verdict; findings: Parameters<typeof leadingFinding>[0] }
/** What of a line only a run or only a need can tell; its ends as devices. Null: it is gone. */
type Own = Pick<VerdictLine, 'name' | 'from' | 'to' | 'size' | 'over'> | null

/** A line for each verdict: worst first, and otherwise as the site lists them. */
function linesOf<Each extends Judged>(
  { index }: Assessed,
  verdicts: readonly Each[],
  unit: LengthUnit,
  own: (verdict: Each) => Own,
): VerdictLine[] {
  const nameOf = (device: string): string => index.devices.get(device)?.name ?? device
  const lines = verdicts.flatMap((verdict): VerdictLine[] => {
    const told = own(verdict)
    if (!told) return []
    const { id, grade, findings } = verdict
    const leading = grade === 'clear' ? null : leadingFinding(findings)
    return [
      {
        ...told,
        id,
        from: nameOf(told.from),
        to: nameOf(told.to),
        grade,
        why: leading ? sentence(leading, unit) : '',
        todo: leading ? leading.remedies.map((remedy) => remedySentence(remedy, unit)) : [],
      },
    ]
  })
  return lines.sort((one, other) => severity[other.grade] - severity[one.grade])
}

/** Every run of a site with its verdict, for the client or the boss: where it goes, over what, and what is wrong with it. */
export const runVerdicts = (site: Assessed, unit: LengthUnit): VerdictLine[] =>
  linesOf(site, site.assessment.runs, unit, ({ id }) => {
    const run = site.index.runs.get(id)
    return run
      ? {
          name: run.tag,
          from: run.from.device,
          to: run.to.device,
          size: formatLength(run.route.length, unit),
          over: run.leads.map((lead) => leadTag(site.index.plan, lead)).join(' + '),
        }
      : null
  })

/** Every need with its verdict along its whole path. */
export const needVerdicts = (site: Assessed, unit: LengthUnit): VerdictLine[] =>
  linesOf(site, site.assessment.needs, unit, ({ id, runs }) => {
    const need = site.index.needs.get(id)
    return need
      ? {
          name: needLabel(need, site.index.devices),
          from: need.from,
          to: need.to,
          size: formatNeedSize(need),
          over: runs.map((run) => site.index.runs.get(run)?.tag ?? run).join(', '),
        }
      : null
  })

/** A lead that the runs of a site still want bought: how many of it, and what they cost together; no price where nobody has said one. */
export type ToBuy = { kind: string; length: Metres; runs: readonly string[]; price: number | null }

/** What has to be bought for the runs as they are planned, in the order in which the runs name it. */
export function toBuy({ index }: Pick<Assessed, 'index'>): ToBuy[] {
  const wanted = new Map<string, ToBuy & { runs: string[] }>()
  for (const run of index.plan.runs)
    for (const lead of run.leads) {
      if (!('kind' in lead)) continue
      const kind = index.kinds.get(lead.kind)
      if (!kind) continue
      const key = `${lead.kind} ${lead.length}`
      const known = wanted.get(key) ?? { kind: kind.name, length: lead.length, runs: [], price: null }
      known.runs.push(run.tag)
      const each = priceAt(kind, lead.length)
      known.price = each === null ? null : each * known.runs.length
      wanted.set(key, known)
    }
  return [...wanted.values()]
}

/** Runs and needs with their verdicts as one table, for spreadsheets. */
export function verdictTable(site: Assessed, unit: LengthUnit): string[][] {
  const { currency } = site.index.plan.policy
  const rowsOf = (what: string, lines: readonly VerdictLine[]): string[][] =>
    lines.map(({ name, from, to, size, over, grade, why, todo }) => [
      what,
      name,
      gradeWords[grade],
      from,
      to,
      size,
      over,
      why,
      todo.join(' '),
      '',
    ])
  return [
    ['what', 'name', 'verdict', 'from', 'to', 'length or size', 'cables or runs', 'why', 'what to do', 'price'],
    ...rowsOf('run', runVerdicts(site, unit)),
    ...rowsOf('need', needVerdicts(site, unit)),
    ...toBuy(site).map(({ kind, length, runs, price }) => [
      'to buy',
      kind,
      '',
      '',
      '',
      formatLength(length, unit),
      runs.join(', '),
      '',
      `Buy ${runs.length}.`,
      price === null ? '' : `${decimal(price, 2)} ${currency}`,
    ]),
  ]
}
