import { readNeedSize, saidSize } from '../needs/need-text'
import type { Plan } from '../plan/plan'
import { put } from '../plan/put'
import { parsed, unreadable } from '../quantity/parsed'
import { idField } from '../vocabulary/fields'
import { NEED_KINDS, type Need } from '../vocabulary/need'

import { called, found, type Table, yesNo } from './table-row'

/** What is asked of some kinds of needs alone: the column, how it is written, and the field of the need that a cell makes. */
type NeedColumn = {
  column: string
  say(need: Need): string | number | undefined
  read(text: string): Record<string, unknown> | null
}
const figureOf =
  (field: string) =>
  (text: string): Record<string, unknown> | null =>
    Number.isFinite(Number(text)) ? { [field]: Number(text) } : null
const oneWord =
  (field: string, words: readonly string[]) =>
  (text: string): Record<string, unknown> | null =>
    words.includes(text.toLowerCase()) ? { [field]: text.toLowerCase() } : null
const needColumns: readonly NeedColumn[] = [
  { column: 'hours', say: (need) => (need.kind === 'headset' ? need.hours : undefined), read: figureOf('hours') },
  { column: 'refresh', say: (need) => (need.kind === 'headset' ? need.refresh : undefined), read: figureOf('refresh') },
  {
    column: 'link',
    say: (need) => (need.kind === 'headset' ? need.link : undefined),
    read: oneWord('link', ['gen1x1', 'gen2x1']),
  },
  { column: 'volts', say: (need) => (need.kind === 'sensor' ? need.volts : undefined), read: figureOf('volts') },
  {
    column: 'feed',
    say: (need) => (need.kind === 'sensor' ? need.feed : undefined),
    read: oneWord('feed', ['there', 'missing']),
  },
  { column: 'delay', say: (need) => (need.kind === 'audio' ? need.delay : undefined), read: figureOf('delay') },
  {
    column: 'uncompressed',
    say: (need) => (need.kind === 'picture' && need.uncompressed ? 'yes' : undefined),
    read: (text) => (yesNo(text) === null ? null : yesNo(text) ? { uncompressed: true } : {}),
  },
]

export const needs: Table = {
  columns: ['from', 'to', 'kind', 'size', 'name', 'priority', 'note', 'id', ...needColumns.map(({ column }) => column)],
  needed: ['from', 'to', 'kind', 'size'],
  rows: (plan) =>
    plan.needs.map((need) => [
      called(plan.devices, need.from),
      called(plan.devices, need.to),
      need.kind,
      saidSize(need),
      need.name ?? '',
      need.priority === undefined ? '' : String(need.priority),
      need.note ?? '',
      // what two needs are called may be the same
      need.id,
      ...needColumns.map(({ say }) => String(say(need) ?? '')),
    ]),
  read(row, { plan, idOf }) {
    const [from, to] = [found(plan.devices, row('from'), 'from'), found(plan.devices, row('to'), 'to')]
    if (!from.ok) return from
    if (!to.ok) return to
    const kind = NEED_KINDS.find((each) => each === row('kind').toLowerCase())
    if (!kind) return unreadable(`kind: one of ${NEED_KINDS.join(', ')}`)
    const size = readNeedSize(kind, row('size'))
    if (!size.ok) return unreadable(`size: ${size.problem}`)
    const between = plan.needs.filter(
      (need) => need.from === from.value.id && need.to === to.value.id && need.kind === kind,
    )
    const was =
      between.find(({ id }) => id === row('id')) ??
      (row('id') === ''
        ? between.find(({ name }) => (name ?? '').toLowerCase() === row('name').toLowerCase())
        : undefined)
    const more: Record<string, unknown> = {}
    for (const { column, read } of needColumns) {
      const said = row(column)
      if (said === '') continue
      const value = read(said)
      if (value === null) return unreadable(`${column}: "${said.slice(0, 40)}" is not understood`)
      Object.assign(more, value)
    }
    const priority = row('priority') === '' ? undefined : Number(row('priority'))
    const need = {
      ...(was ?? {
        id: freshNeed(plan, row('id')) ?? idOf('needs', `${kind} ${to.value.name}`),
        from: from.value.id,
        to: to.value.id,
      }),
      ...size.value,
      ...more,
      ...(row('name') === '' ? {} : { name: row('name') }),
      ...(priority === undefined ? {} : { priority }),
      ...(row('note') === '' ? {} : { note: row('note') }),
    } as Need
    return parsed(put(plan, 'needs', need))
  },
}

/** An id that a row gives to a need of its own; null where it gives none that could be one. */
const freshNeed = (plan: Plan, id: string): string | null =>
  idField.safeParse(id).success && !plan.needs.some((need) => need.id.toLowerCase() === id.toLowerCase()) ? id : null
