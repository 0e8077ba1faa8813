import type { Policy } from './policy'

/** A question on which practitioners disagree, by its field of the policy. */
export type PolicyQuestion =
  | 'length'
  | 'extensions'
  | 'cables'
  | 'computerDisplays'
  | 'reservation'
  | 'addInCards'
  | 'farData'
  | 'buying'
  | 'soak'
  | 'proveIn'
  | 'others'
  | 'searching'
  | 'drivers'

/** One answer: its name, what follows from it, and how it is said of a site that goes by it. */
type Answer<Value> = { value: Value; title: string; consequence: string; goes: string }

/** Where practitioners disagree, both schools with what follows from each. */
export const policyQuestions: {
  [Name in PolicyQuestion]: { legend: string; options: readonly Answer<NonNullable<Policy[Name]>>[] }
} = {
  length: {
    legend: 'How long may a cable be?',
    options: [
      {
        value: 'book',
        title: 'By the book',
        consequence:
          'The published limit for its rate and construction; a longer cable that passed a test is shown, and does not count.',
        goes: 'by the book',
      },
      {
        value: 'bench',
        title: 'By the bench',
        consequence: 'What this very cable has passed on this controller counts, even beyond the book.',
        goes: 'by the bench',
      },
    ],
  },
  extensions: {
    legend: 'Extensions of type-C?',
    options: [
      {
        value: 'never',
        title: 'Never',
        consequence: 'They are outside the standard.',
        goes: 'without type-C extensions',
      },
      {
        value: 'soaked',
        title: 'Where the very chain has passed a soak',
        consequence: 'At least 60 seconds, with the same leads in the same order.',
        goes: 'with type-C extensions that passed a soak',
      },
    ],
  },
  cables: {
    legend: 'Which cables?',
    options: [
      {
        value: 'any',
        title: 'Any known cable',
        consequence: 'Marks, chips and tests decide; the one supplied with the device is offered first.',
        goes: 'with any known cable',
      },
      {
        value: 'supplied',
        title: 'Only the one supplied with the device',
        consequence: 'Any other is blocked.',
        goes: 'with supplied leads only',
      },
    ],
  },
  computerDisplays: {
    legend: 'HDMI to a computer display?',
    options: [
      {
        value: 'displayport',
        title: 'DisplayPort first',
        consequence: 'HDMI gets a note where the display has DisplayPort too.',
        goes: 'with DisplayPort first',
      },
      { value: 'either', title: 'As good', consequence: 'No note.', goes: 'with HDMI as good as DisplayPort' },
    ],
  },
  reservation: {
    legend: 'What does a picture reserve in a dock’s tunnel?',
    options: [
      {
        value: 'link',
        title: 'A whole link rate',
        consequence: 'What hosts usually do: a second display may come up lower than the first.',
        goes: 'with pictures that reserve whole links',
      },
      {
        value: 'stream',
        title: 'Its own stream rate',
        consequence: 'What newer hosts do: more displays fit.',
        goes: 'with pictures that reserve their own rate',
      },
    ],
  },
  addInCards: {
    legend: 'Ports on add-in cards?',
    options: [
      {
        value: 'record',
        title: 'By this site’s own record',
        consequence: 'A note says that the port is on a card; what held on its controller decides.',
        goes: 'with add-in cards by their record',
      },
      {
        value: 'avoid',
        title: 'Only where no other port does it',
        consequence: 'A run at such a port is tight.',
        goes: 'with add-in cards avoided',
      },
    ],
  },
  farData: {
    legend: 'Data past 5 m: copper or glass?',
    options: [
      {
        value: 'both',
        title: 'Both',
        consequence:
          'Active copper costs less and may pick up noise; optical is light, isolates, and may carry no power.',
        goes: 'with copper and glass alike',
      },
      {
        value: 'copper',
        title: 'Active copper first',
        consequence: 'What is offered to buy has copper before glass.',
        goes: 'with copper before glass',
      },
      {
        value: 'optical',
        title: 'Optical first',
        consequence: 'What is offered to buy has glass before copper.',
        goes: 'with glass before copper',
      },
    ],
  },
  buying: {
    legend: 'Is price quality?',
    options: [
      {
        value: 'cheapest',
        title: 'Buy the cheapest that does it',
        consequence: 'And test it on the day it comes, while it can go back; what is planned to be bought says so.',
        goes: 'with the cheapest that does it',
      },
      {
        value: 'dearest',
        title: 'Buy the dearest that does it',
        consequence: 'Price is taken for quality: of what does the job the dearest is offered first.',
        goes: 'with the dearest that does it',
      },
    ],
  },
  soak: {
    legend: 'How long is a link watched before it counts?',
    options: [
      {
        value: 'minute',
        title: 'A minute',
        consequence: 'The least there is: a marginal lead looks fine for 45 s and drops a minute later.',
        goes: 'with soaks of a minute',
      },
      {
        value: 'night',
        title: 'A night',
        consequence: '8 hours. On average it may still drop every 3 hours or so.',
        goes: 'with soaks of a night',
      },
      {
        value: 'ten days',
        title: 'Ten days around the clock',
        consequence: 'For what stays in walls and ceilings. On average it may still drop once in 3 days.',
        goes: 'with soaks of ten days',
      },
    ],
  },
  proveIn: {
    legend: 'Where is a run proved?',
    options: [
      {
        value: 'own port',
        title: 'In its own port',
        consequence: 'Where it is planned, and nowhere else. Whoever moves it proves it again.',
        goes: 'with runs proved in their own port',
      },
      {
        value: 'each controller',
        title: 'On each controller that may be used',
        consequence: 'Also in a free port of every other controller: a lead may hold on one and drop on the next.',
        goes: 'with runs proved on each controller',
      },
    ],
  },
  others: {
    legend: 'How much do the tries of others count?',
    options: [
      {
        value: 'as own',
        title: 'As much as what was tried here',
        consequence: 'Your clients are much alike: a kind that held elsewhere ranks as if it had held here.',
        goes: 'with the tries of others as its own',
      },
      {
        value: 'half',
        title: 'Half as much',
        consequence: 'Other computers and other sockets: two tries elsewhere weigh as much as one here.',
        goes: 'with the tries of others at half their weight',
      },
      {
        value: 'not',
        title: 'Not at all',
        consequence: 'Only what was tried on this site ranks and prices a kind.',
        goes: 'without the tries of others',
      },
    ],
  },
  searching: {
    legend: 'How is a fault searched?',
    options: [
      {
        value: 'most telling',
        title: 'What tells most for its minutes first',
        consequence: 'Often a look or another port. The lead comes when it tells most.',
        goes: 'with the most telling try first',
      },
      {
        value: 'lead first',
        title: 'Another lead first',
        consequence: 'The lead is the part that lies most. It may take longer where that is not so.',
        goes: 'with another lead tried first',
      },
    ],
  },
  drivers: {
    legend: 'Where are drivers taken from?',
    options: [
      {
        value: 'system',
        title: "The system's own first",
        consequence: "A search names the board maker's as the second step. Neither is done by itself.",
        goes: "with the system's own drivers",
      },
      {
        value: 'maker',
        title: "The board maker's first",
        consequence: "A search names the system's own as the second step. Neither is done by itself.",
        goes: "with the board maker's drivers",
      },
    ],
  },
}

/** What a site goes by in a question; one that it says nothing of it goes by as it always did. */
export const answerOf = (policy: Policy, question: PolicyQuestion): string =>
  policy[question] ?? UNSAID[question as keyof typeof UNSAID]
const UNSAID = { others: 'half' } as const

/** Rules for the work at the bench and in a search. */
const FOR_THE_WORK: ReadonlySet<string> = new Set<PolicyQuestion>(['proveIn', 'others', 'searching', 'drivers'])
/** Whether any verdict of Match depends on a question. */
export const bearsOnVerdicts = (question: string): boolean => !FOR_THE_WORK.has(question)

/** Every answer that a site does not go by and that may change a verdict, each by itself. */
export const otherChoices = (policy: Policy): { choice: Partial<Policy>; goes: string }[] =>
  Object.entries(policyQuestions)
    .filter(([name]) => bearsOnVerdicts(name))
    .flatMap(([name, { options }]) =>
      options
        .filter(({ value }) => answerOf(policy, name as PolicyQuestion) !== value)
        .map(({ value, goes }) => ({ choice: { [name]: value }, goes })),
    )
