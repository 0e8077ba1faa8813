import type { Knex } from 'knex'
import { type Assessed, assessAnew } from '../../core/checks/assess'
import type { Block, Title } from '../../core/handover/block'
import { blocksOf, bookOf, titleOf } from '../../core/handover/book'
import type { Drawing } from '../../core/handover/drawing'
import { floorDrawing } from '../../core/handover/floor-drawing'
import { freshRuns, sinceHandover } from '../../core/handover/since'
import type { Since } from '../../core/handover/since-sorts'
import type { Plan } from '../../core/plan/plan'
import { type GrowthAnswer, judgeUpgrade } from '../../core/variants/upgrades'
import type { Growth } from '../../core/vocabulary/growth'
import type { Handover, SectionName } from '../../core/vocabulary/handover'
import { finished } from '../../core/work/in-slices'
import { closeDatabase, database } from '../database/connection'
import { currentCopy } from '../sites/copies'
import { CUT_OFF, planOf } from './make-pack'

// What pages ask of a handover. Each is answered on the thread that calls it, from the plan that was handed over, over a connection of its own.

/** An answer, or why there is none, in words. */
export type Answer<T> = { ok: true; value: T } | { ok: false; problem: string }
type Asked = { siteId: string; handover: string }

async function answer<T>(
  { siteId, handover: id }: Asked,
  give: (handed: { plan: Plan; handover: Handover; now: Plan }) => T,
): Promise<Answer<T>> {
  const knex: Knex = database()
  try {
    const held = await currentCopy(knex, siteId)
    const handover = held?.copy.plan.handovers.find((each) => each.id === id)
    if (!held || !handover) return { ok: false, problem: 'This handover is not there any more. The history has it.' }
    const plan = await planOf(knex, siteId, handover)
    return plan ? { ok: true, value: give({ plan, handover, now: held.copy.plan }) } : { ok: false, problem: CUT_OFF }
  } finally {
    await closeDatabase()
  }
}

/** What has changed since, and the floors as they are now with what is new standing out. */
export type SinceAnswer = { since: Since[]; floors: { id: string; name: string; drawing: Drawing }[] }

/** Drawings on the page of what has changed. */
const FLOOR_ROOM = { width: 700, height: 460 }

export const sinceThen = (asked: Asked): Promise<Answer<SinceAnswer>> =>
  answer(asked, ({ plan, now }) => {
    const [before, after] = [assessAnew(plan), assessAnew(now)] as const
    const since = sinceHandover(before, after)
    return { since, floors: freshFloors(after, freshRuns(since)) }
  })

/** The floors on which something new lies. */
function freshFloors({ index }: Assessed, fresh: ReadonlySet<string>): SinceAnswer['floors'] {
  if (fresh.size === 0) return []
  return index.plan.floors.flatMap((floor) => {
    const drawing = floorDrawing(index, floor, FLOOR_ROOM, fresh)
    const isNew = drawing.shapes.some((shape) => 'ink' in shape && shape.ink === 'new')
    return isNew ? [{ id: floor.id, name: floor.name, drawing }] : []
  })
}

/** A part of the book for a screen: its blocks from one on, and where it goes on. */
export type Leaf = { title: Title; sections: readonly SectionName[]; blocks: readonly Block[]; next: number | null }
/** So much is on one page of the screen: a book of some thirty runs. */
const LEAF_WEIGHT = 300

/** How much of a page a block takes, roughly, in lines. */
const weightOf = (block: Block): number =>
  block.sort === 'table' ? block.rows.length / 2 : block.sort === 'cards' ? block.cards.length : 1

export const leafOf = ({
  part,
  from,
  ...asked
}: Asked & { part: SectionName | null; from: number }): Promise<Answer<Leaf>> =>
  answer(asked, ({ plan, handover }) => {
    const wanted = part && handover.sections.includes(part) ? [part] : handover.sections
    const of = bookOf(assessAnew(plan), { ...handover, sections: wanted })
    const blocks: Block[] = []
    let at = 0
    let weight = 0
    let next: number | null = null
    for (const block of blocksOf(of)) {
      if (weight >= LEAF_WEIGHT) {
        next = at
        break
      }
      if (at >= from) {
        blocks.push(block)
        weight += weightOf(block)
      }
      at += 1
    }
    return { title: titleOf(of), sections: handover.sections, blocks, next }
  })

/** What a change would break and cost, judged on the plan that was handed over; that plan stays as it is. */
export const ahead = ({ growth, ...asked }: Asked & { growth: Growth }): Promise<Answer<GrowthAnswer>> =>
  answer(asked, ({ plan }) =>
    finished(judgeUpgrade(assessAnew(plan), { id: 'asked', name: 'asked', growth: [growth] })),
  )
