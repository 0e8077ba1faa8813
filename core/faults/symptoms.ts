import type { NeedKind } from '../vocabulary/need'
import { type StopName, SYMPTOMS, type Symptom } from '../vocabulary/search'
import type { Scene } from './scene'

/** What people see, in their own words, what exactly to look at, and on which runs it can be seen at all. */
type SymptomFacts = {
  saw: string
  look: string
  /** Needs of which one must cross the run; left out: any run can show it. */
  with?: readonly NeedKind[]
  /** Both ports must speak USB. */
  usb?: true
  /** It is no question to ask in between: it stops the work, or takes time to show. */
  unasked?: true
  /** What has to be dealt with first where it is seen. */
  stops?: StopName
}

const DATA = ['storage', 'headset', 'camera', 'audio', 'sensor', 'data'] as const satisfies readonly NeedKind[]

export const symptomFacts: Readonly<Record<Symptom, SymptomFacts>> = {
  'not detected': {
    saw: 'Nothing is detected',
    look: 'The device list of the computer: is there any entry for it, even an unknown one?',
  },
  'charges only': {
    saw: 'It charges, and nothing else',
    look: 'A charging sign, and no entry in the device list.',
    with: ['power', ...DATA],
    usb: true,
  },
  'usb2 only': {
    saw: 'It is detected as USB 2.0',
    look: 'The speed in the device list: 480 Mb/s, or "high speed", is USB 2.0.',
    with: [...DATA, 'picture'],
    usb: true,
  },
  'slow copy': {
    saw: 'Copies are far below what the drive can do',
    look: 'MB/s of one large file that was not read before, both ways.',
    with: ['storage'],
  },
  drops: {
    saw: 'It drops after a while',
    look: 'The sound of a device that goes and comes, or a picture that goes black for a moment. Watch for two minutes.',
  },
  'alone only': {
    saw: 'It works only with other devices unplugged',
    look: 'Unplug what else hangs on the computer: does it come?',
    unasked: true,
  },
  'listed but black': {
    saw: 'The display is listed, and black',
    look: 'The display settings list it, and it shows nothing.',
    with: ['picture'],
  },
  'fewer modes': {
    saw: 'Fewer picture modes than the display has',
    look: 'The list of sizes and refresh rates in the display settings.',
    with: ['picture'],
  },
  'low refresh': {
    saw: 'The wanted refresh cannot be chosen, or only 30 Hz comes up',
    look: 'The refresh rate on the advanced page of the display settings.',
    with: ['picture'],
  },
  blurred: {
    saw: 'The picture is blurred, or its edges are cut',
    look: 'Small text: are its edges coloured or soft? Is the size that of the display?',
    with: ['picture'],
  },
  'both black': {
    saw: 'Both screens are black',
    look: 'No screen of the computer shows anything.',
    with: ['picture'],
    unasked: true,
    stops: 'both black',
  },
  'frames lost': {
    saw: 'Frames are lost, or the sound crackles',
    look: "The counter of lost frames in the camera's own program, or the sound.",
    with: ['camera', 'audio', 'headset', 'sensor'],
  },
  'charges slowly': {
    saw: 'It charges slowly, or the battery falls while it is plugged in',
    look: 'The power page of the system: "charging slowly", or the watts it names.',
    with: ['power'],
  },
  'headset drains': {
    saw: 'The headset drains while it is plugged in',
    look: 'Its battery in percent now, and in half an hour.',
    with: ['headset'],
    unasked: true,
  },
  'no power': {
    saw: 'It gets no power at all',
    look: 'No lamp, no charging sign.',
    with: ['power', 'headset', 'camera', 'sensor', 'storage'],
  },
  'supply dark': {
    saw: 'The lamp of a supply is out',
    look: 'The supply of the dock, extender or display: is its lamp lit?',
    stops: 'dead supply',
    unasked: true,
  },
  'wakes on old charger': {
    saw: 'It only wakes on an old charger with a type-A socket',
    look: 'A type-A charger with an A-to-C lead, for a quarter of an hour.',
    with: ['power'],
    unasked: true,
  },
  'too much current': {
    saw: 'The computer says that a device takes too much current',
    look: 'A message of too much current or a power surge on a port.',
    with: DATA,
    usb: true,
  },
  refused: {
    saw: 'The computer refuses the accessory',
    look: 'A message that the accessory or the device is not supported.',
  },
  'reduced function': {
    saw: 'The computer warns of reduced function',
    look: 'A message that the device works with limits, or would do better in another port.',
  },
  'nothing new appears': {
    saw: 'No new device appears any more, whatever is plugged in',
    look: 'Plug in something simple that works elsewhere: does it appear?',
    with: DATA,
    usb: true,
  },
  'wants format': {
    saw: 'A disk asks to be formatted',
    look: 'Do not confirm it. Close the message.',
    with: ['storage'],
    unasked: true,
    stops: 'format',
  },
  hot: {
    saw: 'A plug or a lead is hot',
    look: 'Unplug at the supply before you touch it again.',
    unasked: true,
    stops: 'hot',
  },
  smoke: {
    saw: 'It smokes, or smells burnt',
    look: 'Switch the mains off. Do not look any closer.',
    unasked: true,
    stops: 'smoke',
  },
}

/** The symptoms that a run can show. */
export const symptomsOf = ({ kinds, planned }: Pick<Scene, 'kinds' | 'planned'>): Symptom[] =>
  SYMPTOMS.filter((symptom) => {
    const { with: needs, usb } = symptomFacts[symptom]
    if (usb && planned === null) return false
    return needs === undefined || kinds.size === 0 || needs.some((need) => kinds.has(need))
  })

/** Those of them that can be looked for in between. */
export const looksOf = (scene: Pick<Scene, 'kinds' | 'planned'>): Symptom[] =>
  symptomsOf(scene).filter((symptom) => !symptomFacts[symptom].unasked)
