/** One thing that changed: what it is called, what became of it, and the page of the site where it is, if it is still there. */
export type SinceLine = { id: string; name: string; what: string; page: string | null }

/** What the client would feel comes first, then what was proved, then the lists of the plan. */
export const SINCE_NAMES = [
  'verdicts',
  'failed',
  'stale',
  'hot',
  'rules',
  'mains',
  'closed',
  'turned',
  'searches',
  'proved again',
  'proofs',
  'withdrawn',
  'laid',
  'moved',
  'replaced',
  'changed',
  'removed',
  'retired',
  'leads',
  'devices',
  'needs',
  'places',
  'floors',
  'pathways',
  'kinds',
  'upgrades',
] as const
export type SinceName = (typeof SINCE_NAMES)[number]

export const sinceTitles: Readonly<Record<SinceName, { title: string; says: string }>> = {
  verdicts: { title: 'Judged otherwise', says: 'What works better or worse than the book says, and why.' },
  failed: { title: 'Tests that failed', says: 'These runs did not do what was asked of them.' },
  stale: {
    title: 'Gone stale',
    says: 'They were proved or accepted; something changed since, and they are to be proved again.',
  },
  hot: { title: 'Leads that got hot', says: 'Unplug these at the supply, let them cool, and do not use them again.' },
  rules: { title: 'Rules changed', says: 'What this site is judged by, and which verdicts that alone changes.' },
  mains: { title: 'Mains gone', says: 'There is no outlet within reach any more.' },
  closed: { title: 'Pathways closed', says: 'No further cable goes along these.' },
  turned: { title: 'Leads turned round', says: 'They lie the other way now.' },
  searches: { title: 'Faults searched', says: 'Searches that began or ended.' },
  'proved again': {
    title: 'Proved or accepted since',
    says: 'Use these results, not the ones in the book.',
  },
  proofs: { title: 'Proved otherwise', says: 'How far these runs have come, where that is not what the book says.' },
  withdrawn: { title: 'Figures withdrawn', says: 'Do not use these figures of the book: somebody took them back.' },
  laid: { title: 'New runs', says: 'Runs that were not there when it was handed over.' },
  moved: { title: 'Runs that go another way', says: 'Other ends, or another route.' },
  replaced: { title: 'Leads replaced', says: 'Other leads lie in these runs.' },
  changed: { title: 'Runs changed otherwise', says: 'Their tags, names or notes.' },
  removed: { title: 'Runs removed', says: 'Runs in the book that this site does not have any more.' },
  retired: { title: 'Leads retired', says: 'Do not use these any more.' },
  leads: { title: 'Leads new, gone or changed', says: 'In the drawer and in runs.' },
  devices: { title: 'Devices new, gone or changed', says: 'What they can do, where they stand, what is installed.' },
  needs: { title: 'What is asked of the site', says: 'Needs that are new, gone or changed.' },
  places: { title: 'Places new, gone or changed', says: 'Where devices stand.' },
  floors: { title: 'Floors new, gone or changed', says: 'The drawings of the book.' },
  pathways: { title: 'Pathways new, gone or changed', says: 'What runs follow.' },
  kinds: { title: 'Kinds of lead new, gone or changed', says: 'The catalogue that new leads come from.' },
  upgrades: { title: 'Changes to come', says: 'What may be asked later, new, gone or changed.' },
}

export type Since = { name: SinceName; lines: readonly SinceLine[] }
export type Say = (name: SinceName, line: SinceLine) => void
