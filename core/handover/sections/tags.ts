import type { Section } from '../section'

/** How a tag is read. */
export const tags: Section = {
  name: 'tags',
  title: 'How to read a tag',
  says: 'What stands on the tag of a lead or run.',
  *blocks() {
    yield {
      sort: 'list',
      items: [
        'The tag of a run stands on both ends of what lies in it, that of a lead on both ends of the lead.',
        'On the tag of a lead: the most it carries, the watts it may be used for, its length, and P, A or O.',
        'P is passive copper, A is active, O is optical. "40G 100W 2m A" is an active 2 m lead for 40 Gb/s and 100 W.',
        '"2.0" carries USB 2.0 only. "charge" has no data wires. "unknown": do not promise anything of it.',
        'An arrow shows which way a one-way lead carries: it points away from the computer or source.',
        'The square code opens the page of the lead or run.',
      ],
    }
  },
}
