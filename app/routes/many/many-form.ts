import { MANY_ACTIONS, MANY_LISTS, type ManyAction, type ManyList, MOST_MANY } from '../../../core/change/changes/many'
import { type LengthUnit, parseLength, parseOffset } from '../../../core/quantity/length'
import { type Parsed, parsed, unreadable } from '../../../core/quantity/parsed'
import { readMains } from '../../../core/survey/mains-text'

/** What a form or an address says of many things: the list, those that are ticked, and what is to become of them. */
export type ManyAsked = { list: ManyList; ids: ReadonlySet<string>; what: ManyAction['do'] }

type Fields = Pick<FormData, 'get' | 'getAll'>
const said = (fields: Fields, name: string): string => String(fields.get(name) ?? '').slice(0, 2000)

export function manyAsked(fields: Fields): ManyAsked {
  const list = MANY_LISTS.find((each) => each === fields.get('list')) ?? 'devices'
  const actions: readonly ManyAction['do'][] = MANY_ACTIONS[list]
  const what = actions.find((each) => each === fields.get('do')) ?? actions[0] ?? 'delete'
  return { list, ids: new Set(fields.getAll('id').slice(0, MOST_MANY).map(String)), what }
}

/** What is to become of them, with its figures; or what is missing of it. */
export function readManyAction(fields: Fields, what: ManyAction['do'], unit: LengthUnit): Parsed<ManyAction> {
  switch (what) {
    case 'delete':
      return parsed({ do: 'delete' })
    case 'rename': {
      const find = said(fields, 'find')
      return find === ''
        ? unreadable('Type the words to find.')
        : parsed({ do: 'rename', find, replace: said(fields, 'replace') })
    }
    case 'note':
      return parsed({ do: 'note', note: said(fields, 'note') })
    case 'move': {
      const place = said(fields, 'place')
      return place === '' ? unreadable('Choose where they stand.') : parsed({ do: 'move', place })
    }
    case 'length': {
      const length = parseLength(said(fields, 'length'), unit)
      return length.ok ? parsed({ do: 'length', length: length.value }) : length
    }
    case 'priority': {
      const priority = said(fields, 'priority')
      return /^[1-9]?$/.test(priority)
        ? parsed({ do: 'priority', priority: priority === '' ? null : Number(priority) })
        : unreadable('Choose a priority from 1 to 9.')
    }
    case 'size': {
      const size = said(fields, 'size')
      return size.trim() === '' ? unreadable('Type the size, such as 3840x2160@60.') : parsed({ do: 'size', size })
    }
    case 'mains':
      return parsed({ do: 'mains', mains: readMains(said(fields, 'mains')) ?? 'not known' })
    case 'shift': {
      const [right, down] = ['right', 'down'].map((side) => parseOffset(said(fields, side) || '0', unit))
      if (!right?.ok) return right ?? unreadable('Say how far.')
      if (!down?.ok) return down ?? unreadable('Say how far.')
      return right.value === 0 && down.value === 0
        ? unreadable('Say how far right or down; with a minus it is left or up.')
        : parsed({ do: 'shift', right: right.value, down: down.value })
    }
  }
}
