import type { Metres } from '../quantity/length'
import type { Connector, End } from '../standards/connectors'
import type { CableGrade, Construction } from '../standards/grades'
import type { CableKind } from '../vocabulary/cable'

/** A sort of lead that is commonly sold, at the lengths it is commonly sold in, without a price: what to look for where a site's own catalogue has nothing (common practice). */
export type CommonKind = { kind: CableKind; lengths: readonly Metres[] }

type Sold = {
  id: string
  name: string
  ends: [Connector, Connector]
  /** A socket at its second end: it extends the device's own lead. */
  extends?: true
  grade: CableGrade
  lengths: Metres[]
  construction?: Construction
  amps?: CableKind['amps']
  volts?: CableKind['volts']
  oneWay?: true
  feed?: CableKind['feed']
  wants?: string[]
}

const plug = (connector: Connector): End => ({ connector, gender: 'plug' })
const C: [Connector, Connector] = ['type-c', 'type-c']
const AC: [Connector, Connector] = ['type-a', 'type-c']
const DP: [Connector, Connector] = ['displayport', 'displayport']
const HDMI: [Connector, Connector] = ['hdmi', 'hdmi']

const sold: readonly Sold[] = [
  { id: 'c-charge', name: 'type-C charge lead, 5 A mark', ends: C, grade: 'usb2', amps: 5, lengths: [1, 2, 3] },
  {
    id: 'c-charge-240',
    name: 'type-C charge lead, 240 W mark',
    ends: C,
    grade: 'usb2',
    amps: 5,
    volts: 50,
    lengths: [1, 2, 3],
  },
  { id: 'c-10', name: 'type-C lead, 10 Gb/s mark', ends: C, grade: 'gen2', amps: 3, lengths: [0.5, 1] },
  { id: 'c-20', name: 'type-C lead, 20 Gb/s mark', ends: C, grade: 'usb4-20', amps: 5, lengths: [1, 2] },
  { id: 'c-40', name: 'type-C lead, 40 Gb/s mark', ends: C, grade: 'usb4-40', amps: 5, lengths: [0.5, 0.8] },
  {
    id: 'c-40-active',
    name: 'type-C active lead, 40 Gb/s mark',
    ends: C,
    grade: 'usb4-40',
    construction: 'active',
    amps: 5,
    lengths: [1.2, 2],
  },
  {
    id: 'c-80',
    name: 'type-C lead, 80 Gb/s and 240 W mark',
    ends: C,
    grade: 'usb4-80',
    amps: 5,
    volts: 50,
    lengths: [0.5, 1],
  },
  {
    id: 'c-5-active',
    name: 'type-C active lead, 5 Gb/s',
    ends: C,
    grade: 'gen1',
    construction: 'active',
    amps: 3,
    lengths: [3, 5],
  },
  {
    id: 'c-10-active',
    name: 'type-C active lead, 10 Gb/s',
    ends: C,
    grade: 'gen2',
    construction: 'active',
    amps: 3,
    lengths: [3, 5],
  },
  {
    id: 'c-10-optical',
    name: 'type-C optical lead, 10 Gb/s, no power',
    ends: C,
    grade: 'gen2',
    construction: 'optical',
    amps: 0,
    lengths: [10, 15, 20, 30, 50],
  },
  {
    id: 'c-40-optical',
    name: 'type-C optical lead, 40 Gb/s, no power',
    ends: C,
    grade: 'usb4-40',
    construction: 'optical',
    amps: 0,
    lengths: [5, 10, 20, 30, 50],
  },
  { id: 'ac-5', name: 'type-A to type-C lead, 5 Gb/s', ends: AC, grade: 'gen1', amps: 3, lengths: [1, 2, 3] },
  { id: 'ac-10', name: 'type-A to type-C lead, 10 Gb/s', ends: AC, grade: 'gen2', amps: 3, lengths: [0.5, 1] },
  {
    id: 'ac-5-active',
    name: 'type-A to type-C active lead, 5 Gb/s',
    ends: AC,
    grade: 'gen1',
    construction: 'active',
    amps: 3,
    lengths: [5],
  },
  {
    id: 'ac-10-optical',
    name: 'type-A to type-C optical lead, 10 Gb/s, no power',
    ends: AC,
    grade: 'gen2',
    construction: 'optical',
    amps: 0,
    lengths: [10, 15, 20, 30],
  },
  {
    id: 'ab-2',
    name: 'type-A to type-B lead, USB 2.0',
    ends: ['type-a', 'type-b'],
    grade: 'usb2',
    lengths: [1, 2, 3, 5],
  },
  { id: 'ab-5', name: 'type-A to type-B lead, 5 Gb/s', ends: ['type-a', 'type-b'], grade: 'gen1', lengths: [1, 2, 3] },
  { id: 'cb-5', name: 'type-C to type-B lead, 5 Gb/s', ends: ['type-c', 'type-b'], grade: 'gen1', lengths: [1, 2] },
  {
    id: 'c-5',
    name: 'type-C lead, full-featured, 5 Gb/s mark',
    ends: C,
    grade: 'gen1',
    amps: 3,
    lengths: [1, 2],
  },
  {
    id: 'c-10-fed',
    name: 'type-C active lead, 10 Gb/s, fed at its far end',
    ends: C,
    grade: 'gen2',
    construction: 'active',
    amps: 3,
    feed: 'required',
    wants: ['a supply at its far end'],
    lengths: [8, 10],
  },
  {
    id: 'c-10-hybrid',
    name: 'type-C hybrid optical lead, 10 Gb/s, with power',
    ends: C,
    grade: 'gen2',
    construction: 'optical',
    amps: 3,
    lengths: [5, 10],
  },
  {
    id: 'ac-5-fed',
    name: 'type-A to type-C active lead, 5 Gb/s, fed at its far end',
    ends: AC,
    grade: 'gen1',
    construction: 'active',
    amps: 3,
    feed: 'required',
    wants: ['a supply at its far end'],
    lengths: [8, 10],
  },
  {
    id: 'ac-10-hybrid',
    name: 'type-A to type-C hybrid optical lead, 10 Gb/s, with power',
    ends: AC,
    grade: 'gen2',
    construction: 'optical',
    amps: 3,
    lengths: [5, 10],
  },
  {
    id: 'ac-2',
    name: 'type-A to type-C lead, USB 2.0',
    ends: AC,
    grade: 'usb2',
    amps: 3,
    lengths: [1, 2, 3],
  },
  {
    id: 'ab-2-active',
    name: 'type-A to type-B active lead, USB 2.0',
    ends: ['type-a', 'type-b'],
    grade: 'usb2',
    construction: 'active',
    lengths: [5],
  },
  {
    id: 'aa-5',
    name: 'type-A extension, 5 Gb/s',
    ends: ['type-a', 'type-a'],
    extends: true,
    grade: 'gen1',
    amps: 3,
    lengths: [0.5, 1],
  },
  {
    id: 'aa-2',
    name: 'type-A extension, USB 2.0',
    ends: ['type-a', 'type-a'],
    extends: true,
    grade: 'usb2',
    amps: 3,
    lengths: [1, 2, 3],
  },
  {
    id: 'aa-5-active',
    name: 'type-A active extension, 5 Gb/s',
    ends: ['type-a', 'type-a'],
    extends: true,
    grade: 'gen1',
    construction: 'active',
    amps: 3,
    lengths: [3, 5],
  },
  {
    id: 'aa-2-active',
    name: 'type-A active extension, USB 2.0',
    ends: ['type-a', 'type-a'],
    extends: true,
    grade: 'usb2',
    construction: 'active',
    amps: 3,
    lengths: [5],
  },
  {
    id: 'aa-5-fed',
    name: 'type-A active extension, 5 Gb/s, fed at its far end',
    ends: ['type-a', 'type-a'],
    extends: true,
    grade: 'gen1',
    construction: 'active',
    amps: 3,
    feed: 'required',
    wants: ['a supply at its far end'],
    lengths: [8, 10],
  },
  {
    id: 'c-dp',
    name: 'type-C to DisplayPort lead',
    ends: ['type-c', 'displayport'],
    grade: 'dp-hbr3',
    oneWay: true,
    lengths: [1, 2],
  },
  {
    id: 'c-dp-2',
    name: 'type-C to DisplayPort lead, HBR2',
    ends: ['type-c', 'displayport'],
    grade: 'dp-hbr2',
    oneWay: true,
    lengths: [2, 3],
  },
  {
    id: 'c-dp-80',
    name: 'type-C to DisplayPort 2.1 lead, DP80',
    ends: ['type-c', 'displayport'],
    grade: 'dp80',
    oneWay: true,
    lengths: [1],
  },
  {
    id: 'c-mdp',
    name: 'type-C to mini DisplayPort lead',
    ends: ['type-c', 'mini-displayport'],
    grade: 'dp-hbr2',
    oneWay: true,
    lengths: [1, 2],
  },
  {
    id: 'dp-c',
    name: 'DisplayPort to type-C lead, both ways',
    ends: ['displayport', 'type-c'],
    grade: 'dp-hbr3',
    lengths: [1, 2],
  },
  {
    id: 'c-hdmi',
    name: 'type-C to HDMI lead, 18 Gb/s',
    ends: ['type-c', 'hdmi'],
    grade: 'hdmi-18',
    oneWay: true,
    lengths: [1, 2, 3],
  },
  {
    id: 'c-hdmi-48',
    name: 'type-C to HDMI lead, 48 Gb/s',
    ends: ['type-c', 'hdmi'],
    grade: 'hdmi-48',
    oneWay: true,
    lengths: [1, 2],
  },
  { id: 'dp-2', name: 'DisplayPort lead, HBR2', ends: DP, grade: 'dp-hbr2', lengths: [3] },
  { id: 'dp-3', name: 'DisplayPort lead, HBR3', ends: DP, grade: 'dp-hbr3', lengths: [1, 2] },
  { id: 'dp-80', name: 'DisplayPort lead, DP80', ends: DP, grade: 'dp80', lengths: [1] },
  {
    id: 'dp-active',
    name: 'DisplayPort active lead, HBR3',
    ends: DP,
    grade: 'dp-hbr3',
    construction: 'active',
    oneWay: true,
    lengths: [3, 5, 10],
  },
  {
    id: 'dp-optical',
    name: 'DisplayPort optical lead, HBR3',
    ends: DP,
    grade: 'dp-hbr3',
    construction: 'optical',
    oneWay: true,
    lengths: [10, 15, 20, 30, 50],
  },
  { id: 'hdmi-18', name: 'HDMI lead, 18 Gb/s', ends: HDMI, grade: 'hdmi-18', lengths: [1, 2, 3, 5] },
  { id: 'hdmi-48', name: 'HDMI lead, 48 Gb/s', ends: HDMI, grade: 'hdmi-48', lengths: [1, 2, 3] },
  {
    id: 'hdmi-optical',
    name: 'HDMI optical lead, 48 Gb/s',
    ends: HDMI,
    grade: 'hdmi-48',
    construction: 'optical',
    oneWay: true,
    lengths: [5, 10, 15, 20, 30, 50],
  },
  {
    id: 'cat6a',
    name: 'category 6A cable',
    ends: ['8p8c', '8p8c'],
    grade: 'cat6a',
    lengths: [1, 2, 3, 5, 10, 15, 20, 25, 30, 40, 50, 75, 100],
  },
]

export const assortment: readonly CommonKind[] = sold.map(
  ({ id, ends: [one, other], lengths, extends: isExtension, ...rest }) => ({
    kind: {
      construction: 'passive',
      oneWay: false,
      ...rest,
      id: `common-${id}`,
      ends: [plug(one), isExtension ? { ...plug(other), gender: 'socket' } : plug(other)],
      stock: [],
    },
    lengths,
  }),
)
