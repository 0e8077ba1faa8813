/** A word that Hallway uses in a sense of its own, and what it means. */
export type Word = { word: string; means: string }

/** Every such word, in the order in which a newcomer meets it. */
export const WORDS: readonly Word[] = [
  { word: 'site', means: 'one job: a building or a floor, with its devices, places, runs, cables and records' },
  { word: 'place', means: 'a spot where devices stand: a desk, a rack, a ceiling point' },
  {
    word: 'pathway',
    means: 'a way that cables may take between places: a tray, a conduit, a raised floor, a desk edge',
  },
  { word: 'run', means: 'one physical connection between two ports: one lead, or several in a row, along one route' },
  { word: 'need', means: 'what must get through between two devices: a picture, files, a headset link, power' },
  { word: 'path', means: 'all runs, docks and hubs that a need passes' },
  { word: 'cable, lead', means: 'one physical cable with a tag; a lead is the same thing in a sentence' },
  { word: 'kind', means: 'what a shop sells; several cables may be of one kind' },
  { word: 'article', means: 'one length of a kind: what is bought, and kept as a spare' },
  { word: 'supplier, offer', means: 'who sells, and what one of them asks for an article' },
  { word: 'drawer', means: 'the cables at hand: what each can do, and how that is known' },
  { word: 'hallway', means: 'the path of a need seen from above: what must get through walks along it' },
  { word: 'door', means: 'a port or a lead on that path; it is as wide as what it passes at this length' },
  { word: 'narrowest door', means: 'the door that decides' },
  { word: 'Clear', means: 'all needs get through with some to spare' },
  { word: 'Tight', means: 'they get through with little to spare, or something has yet to be proved' },
  { word: 'Blocked', means: 'something does not get through; the finding says which part, why, and what to do' },
  { word: 'to spare, short', means: 'what is left over, and what is missing' },
  {
    word: 'rules',
    means:
      'what a site chose where technicians disagree: by the book (published limits) or by the bench (what passed a test counts)',
  },
  { word: 'bench', means: 'where cables are tested; a session tests many of them' },
  { word: 'soak', means: 'a long test; a lead that fails late fails there' },
  { word: 'proved, stale', means: 'every test that its needs ask for has passed; stale: something changed since' },
  { word: 'rests on', means: 'what was so when a run was proved or accepted; where that is worse now, it is stale' },
  { word: 'accepted', means: 'somebody took a run over as it is, under conditions that are written down' },
  { word: 'record', means: 'what cables of each kind did so far, here and at other sites' },
  { word: 'search', means: 'finding what is wrong with a run: what was seen, what was tried, and what came of it' },
  { word: 'stop', means: 'something that comes before any further try: a hot plug, a disk that asks to be formatted' },
  {
    word: 'handover',
    means: 'what a client was given: the plan as it stood, with a book, tables and drawings; it is never edited',
  },
  { word: 'what-if', means: 'a change that is tried on the page and not saved until you keep it' },
  { word: 'proposal', means: 'a change of several things that is shown before it is made' },
  { word: 'way out', means: 'small changes that would make a run Clear' },
  {
    word: 'look, work, lead',
    means:
      'what somebody with an account may do on a site: read it; plan, lay and test; decide its rules and its people',
  },
  { word: 'link', means: 'lets somebody without an account look at one site' },
  { word: 'token', means: 'lets a script or an instrument in' },
]

/** A key, where it counts, and what it does. */
export type Key = { keys: string; where: string; does: string }

export const KEYS: readonly Key[] = [
  { keys: '/', where: 'everywhere', does: 'find anything of the site' },
  { keys: '?', where: 'everywhere', does: 'show these words and keys' },
  { keys: 'u', where: 'everywhere', does: 'switch between metres and feet' },
  { keys: 'j', where: 'drawer', does: 'go to the box for what the job needs' },
  {
    keys: 'arrows, space, Enter',
    where: 'drawer',
    does: 'walk, choose, open; with shift a stretch, Control+A all, Escape none',
  },
  { keys: 'up, down, x', where: 'board', does: 'walk from run to run, choose the one in focus' },
  { keys: 'plus, minus, arrows, 0', where: 'a floor', does: 'zoom, pan, show all of it' },
  { keys: 'arrows on a point', where: 'a floor', does: 'move it 10 cm, with shift 1 m, with alt 1 cm' },
  { keys: 'Control+Z', where: 'everywhere', does: 'undo what you saved last' },
  { keys: 'alt and an arrow', where: 'ports of a device', does: 'move a line' },
]

/** A table as documents are formatted: every column as wide as its widest cell. */
function table(heads: readonly string[], rows: readonly (readonly string[])[]): string {
  const widths = heads.map((head, at) =>
    Math.max(...[head, ...rows.map((cells) => cells[at] ?? '')].map((cell) => cell.length)),
  )
  const line = (cells: readonly string[], pad: string): string =>
    `| ${cells.map((cell, at) => cell.padEnd(widths[at] ?? 0, pad)).join(' | ')} |`
  return [
    line(heads, ' '),
    line(
      heads.map(() => ''),
      '-',
    ),
    ...rows.map((cells) => line(cells, ' ')),
  ].join('\n')
}

/** The same as a document. */
export const wordsDocument = (): string =>
  `# Words\n\n${table(
    ['word', 'what it means here'],
    WORDS.map(({ word, means }) => [word, means]),
  )}\n\n# Keys\n\n${table(
    ['key', 'where', 'does'],
    KEYS.map(({ keys, where, does }) => [keys, where, does]),
  )}\n`
