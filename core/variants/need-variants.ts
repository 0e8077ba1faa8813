import { type Assessed, assess } from '../checks/assess'
import { GRADES, narrowestOf, type Squeeze, type Verdict } from '../checks/finding'
import { put } from '../plan/put'
import { roomOf } from '../remedy/room'
import type { Need } from '../vocabulary/need'

/** One of the ways in which a need may be asked, judged. */
export type JudgedVariant = { name: string; need: Need; grade: Verdict; squeeze: Squeeze | null }

export type NeedVariants = {
  /** As it is stated first, then its variants in their order. */
  judged: readonly JudgedVariant[]
  /** The one with the least to spare; null where all find alike. */
  hungriest: string | null
}

/** The need as one of its variants asks it: the figures that differ, the rest as it is stated. */
export function variantOf(need: Need, variant: NonNullable<Need['variants']>[number]): Need {
  const { name, mode, rate, back, watts } = variant
  const { said: _, ...plain } = need
  return {
    ...(rate !== undefined && plain.kind === 'storage' ? bothWays(plain) : plain),
    name,
    ...(mode && need.kind === 'picture' ? { mode } : {}),
    ...(rate !== undefined && 'rate' in need ? { rate } : {}),
    ...(back !== undefined && need.kind === 'storage' ? { back } : {}),
    ...(watts !== undefined && need.kind !== 'picture' ? { watts } : {}),
  } as Need
}

/** A rate that a variant names is read as well as written, where it says no other. */
function bothWays<Storage extends { back?: unknown }>({ back: _, ...need }: Storage): Omit<Storage, 'back'> {
  return need
}

/** A need judged in each of its variants, on all that it can bear on. Null where it has none. */
export function judgeVariants({ index, walks }: Assessed, need: Need): NeedVariants | null {
  const [first] = walks.paths.get(need.id) ?? []
  if (!need.variants || need.variants.length === 0 || !first) return null
  const room = roomOf(index, first.run.id)
  const judge = (name: string, asked: Need): JudgedVariant => {
    const verdict = assess(put(room, 'needs', asked)).needs.find(({ id }) => id === need.id)
    const own = verdict?.findings.filter(({ needId }) => needId === need.id) ?? []
    return { name, need: asked, grade: verdict?.grade ?? 'blocked', squeeze: narrowestOf(own) }
  }
  const judged = [
    judge('as stated', need),
    ...need.variants.map((variant) => judge(variant.name, variantOf(need, variant))),
  ]
  const spare = ({ grade, squeeze }: JudgedVariant): number =>
    GRADES.indexOf(grade) * 1e6 + (squeeze ? Math.min(1e5, squeeze.have / squeeze.need) : 1e5)
  const least = Math.min(...judged.map(spare))
  const alike = judged.every((each) => spare(each) === least)
  return { judged, hungriest: alike ? null : (judged.find((each) => spare(each) === least)?.name ?? null) }
}
