const UNDID = 'undid: '
const REDID = 'did again: '

/**
 * What changes are called, in the trade's words. `about` holds the tags and names that the change was made with, the one that matters first. A new change
 * is a builder in `changes/` and a line here.
 */
const words = {
  rename: ([now, before]) => `renamed ${before} to ${now}`,
  'bring in site': ([name]) => `created the site ${name}`,
  'rename site': ([name, before]) => `renamed the site ${before} to ${name}`,
  'put site away': ([name]) => `put the site ${name} away`,
  'bring site back': ([name]) => `brought the site ${name} back`,
  'make practice site': ([name]) => `made ${name} a site to practise on`,
  'make real site': ([name]) => `made ${name} a real site again`,
  'choose policy': (about) => `changed the rules: ${listed(about)}`,
  'lay run': ([tag, ...leads]) =>
    leads.length > 0 ? `laid ${listed(leads)} in the new run ${tag}` : `laid the run ${tag}`,
  'change run': changed,
  'put leads': ([tag, ...leads]) =>
    leads.length > 0 ? `laid ${listed(leads)} in ${tag}` : `removed the leads from ${tag}`,
  'delete run': ([tag]) => `deleted the run ${tag}`,
  'add cables': (tags) => `added ${few(tags, 'cable', 'cables')} to the drawer`,
  'change cable': changed,
  'mark cable': ([tag]) => `noted what is printed on ${tag}`,
  'return cables': (tags) => `put ${few(tags, 'cable', 'cables')} back into the drawer`,
  'lend cables': (tags) => `lent ${few(tags, 'cable', 'cables')}`,
  'retire cables': (tags) => `retired ${few(tags, 'cable', 'cables')}`,
  'tag cables': (tags) => `gave new tags to ${few(tags, 'cable', 'cables')}`,
  'delete cables': (tags) => `deleted ${few(tags, 'cable', 'cables')}`,
  'ask chip': ([tag]) => `asked the chip of ${tag}`,
  'write down': ([tag, what]) => `noted on ${tag}: ${what}`,
  'take back': ([tag, what]) => `took back a note on ${tag}: ${what}`,
  'put kinds': (names) => `added ${few(names, 'cable kind', 'cable kinds')} to the catalogue`,
  'remove kind': ([name]) => `removed ${name} from the catalogue`,
  'begin session': ([name]) => `began the sort-out session ${name}`,
  'end session': ([name]) => `deleted the sort-out session ${name}`,
  'start soak': ([tag, session]) => `let ${tag} soak in ${session}`,
  'stop soak': ([tag, session]) => `stopped the soak of ${tag} in ${session}`,
  'take readings': ([tag, session]) => `took readings of ${tag} in ${session}`,
  'add devices': (names) => `added ${few(names, 'device', 'devices')}`,
  'change device': changed,
  'delete device': ([name]) => `deleted ${name}`,
  'add place': (names) =>
    names.length > 1 ? `added ${few(names, 'place', 'places')}` : `added the place ${listed(names)}`,
  'change place': changed,
  'delete place': ([name]) => `deleted the place ${name}`,
  'add floor': ([name]) => `added the floor ${name}`,
  'change floor': changed,
  'delete floor': ([name]) => `deleted the floor ${name}`,
  'stand on floor': (names) => `put ${few(names, 'place', 'places')} on a floor`,
  'move on floor': (names) => `moved ${listed(names)} on a floor`,
  'lay pathway': ([name]) => `laid the pathway ${name}`,
  'change pathway': changed,
  'delete pathway': ([name]) => `deleted the pathway ${name}`,
  'follow pathways': (tags) => `let ${few(tags, 'run', 'runs')} follow the pathways`,
  'look at place': ([name, ...what]) => `was at ${name}: ${listed(what)}`,
  'bring in table': ([what, ...names]) => `imported ${few(names, what ?? 'row', what ?? 'rows')} from a table`,
  'state needs': (names) => `added ${few(names, 'need', 'needs')}`,
  'change need': changed,
  'drop need': ([name]) => `deleted the need ${name}`,
  'order needs': (names) => `chose who is served first: ${few(names, 'need', 'needs')}`,
  'seat visitor': ([visitor, host]) =>
    host ? `said that ${visitor} sits where ${host} sits` : `said that ${visitor} visits nobody`,
  'think ahead': ([name]) => `added the what-if ${name}`,
  'drop upgrade': ([name]) => `removed the what-if ${name}`,
  'change many': ([did = 'changed', ...names]) => `${did}, many at once: ${few(names, 'thing', 'things')}`,
  'copy place': ([name, ...copies]) => `copied ${name}: ${few(copies, 'place', 'places')}`,
  'follow advice': ([tag, ...what]) => `followed the advice for ${tag}: ${listed(what)}`,
  'keep trial': ([tag, what]) => `kept a what-if on ${tag}: ${what}`,
  'plan order': (tags) => `planned what to buy for ${few(tags, 'run', 'runs')}`,
  'send cables': (tags) => `sent ${few(tags, 'cable', 'cables')} to another site`,
  'wait for lead': ([tag, why]) =>
    why ? `accepted ${tag} as it lies, until there is ${why}` : `stopped waiting with ${tag}`,
  'install run': ([tag, ...what]) => (what.length > 0 ? `laid ${tag}: ${listed(what)}` : `laid ${tag}`),
  'take out run': ([tag]) => `took the leads out of ${tag}`,
  'bring up': ([tag, what]) => `brought up ${tag}: ${what}`,
  'soak run': ([tag, how]) => `let ${tag} soak${how ? ` for ${how}` : ''}`,
  'note drop': ([tag]) => `noted that ${tag} dropped`,
  'stop run soak': ([tag]) => `stopped the soak of ${tag} without a result`,
  'end run soak': ([tag, what]) => `ended the soak of ${tag}: ${what}`,
  'prove run': ([tag, ...what]) => `tested ${tag}: ${listed(what)}`,
  'accept run': ([tag, less]) => (less ? `accepted ${tag} with less: ${less}` : `accepted ${tag}`),
  'withdraw acceptance': ([tag]) => `took back the acceptance of ${tag}`,
  'begin search': ([tag, ...saw]) => `began to search a fault of ${tag}${saw.length > 0 ? `: ${listed(saw)}` : ''}`,
  'tell symptoms': ([tag, ...saw]) => `noted in the search of ${tag}: ${listed(saw)}`,
  'try in search': ([tag, ...what]) => `tried on ${tag}: ${what.join(', ')}`,
  'clear stop': ([tag, how]) => `dealt with a stop on ${tag}: ${how}`,
  'end search': ([tag, words]) => `ended the search of ${tag}: ${words}`,
  'reopen search': ([tag]) => `took up the search of ${tag} again`,
  'hand over': ([name, client]) => `handed over ${name}${client ? ` to ${client}` : ''}`,
  'send order': ([name]) => `ordered: ${name}`,
  'remove order': ([name]) => `removed the order ${name}`,
  'take arrival': ([what]) => `took delivery of ${what}`,
  'try line': ([name]) => `set when to decide on ${name}`,
  'tag arrived': (tags) => `tagged ${few(tags, 'new cable', 'new cables')}`,
  'send back': ([what]) => `sent back ${what}`,
  'add supplier': ([name]) => `added the supplier ${name}`,
  'change supplier': ([name]) => `edited the supplier ${name}`,
  'remove supplier': ([name]) => `removed the supplier ${name}`,
  'put offers': (names) => `noted prices of ${few(names, 'cable kind', 'cable kinds')}`,
  'remove offer': ([name]) => `removed an offer of ${name}`,
  'choose leads': (tags) => `laid the best from the drawer in ${few(tags, 'run', 'runs')}`,
  undo: ([what = '']) =>
    // what was undone and is undone again is as it was first done
    what.startsWith(UNDID) ? `${REDID}${what.slice(UNDID.length)}` : `${UNDID}${what.replace(REDID, '')}`,
} as const satisfies Record<string, (about: readonly string[]) => string>

export type ChangeName = keyof typeof words
export const CHANGE_NAMES = Object.keys(words) as ChangeName[]

/** What a change did, in words that follow a person's name: "laid C-0021 in R-09". */
export const changeWords = ({ name, about }: { name: ChangeName; about: readonly string[] }): string =>
  words[name](about)

/** One thing that was edited: "changed R-16: the note and the route from 3 m to 5 m". */
function changed([name, ...what]: readonly string[]): string {
  return what.length > 0 ? `changed ${name}: ${listed(what)}` : `edited ${name}`
}

function listed(names: readonly string[]): string {
  if (names.length < 2) return names[0] ?? 'nothing'
  return `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`
}

/** Up to three by name, more by number. */
const few = (names: readonly string[], one: string, many: string): string =>
  names.length <= 3 ? listed(names) : `${names.length} ${names.length === 1 ? one : many} (${names[0]} and on)`
