import type { EndName } from '../../../core/vocabulary/search'

/** How a search may end, as a button says it and as it is told afterwards. */
export const endWords: Readonly<Record<EndName, { button: string; short: string; says: string }>> = {
  found: { button: 'That is it', short: 'Found', says: 'The fault was found.' },
  'nothing wrong': {
    button: 'Nothing is wrong',
    short: 'Nothing was wrong',
    says: 'It does what can be expected of it. Nothing was wrong.',
  },
  'went away': {
    button: 'It went away',
    short: 'It went away',
    says: 'It went away. Nobody knows why, so it may come back: let it soak.',
  },
  noted: {
    button: 'Only write it down',
    short: 'Written down',
    says: 'It works. The warning is written down, and not chased.',
  },
  'not found': {
    button: 'Give up for now',
    short: 'Not found',
    says: 'The fault was not found. What was tried is kept.',
  },
}
