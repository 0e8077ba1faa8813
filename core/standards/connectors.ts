/** Every connector Hallway knows, in the order people are offered them. */
export const CONNECTORS = [
  'type-c',
  'type-a',
  'type-b',
  'micro-b',
  'displayport',
  'mini-displayport',
  'hdmi',
  '8p8c',
  'lc',
] as const
export type Connector = (typeof CONNECTORS)[number]

export const GENDERS = ['socket', 'plug'] as const
export type Gender = (typeof GENDERS)[number]

export type End = { connector: Connector; gender: Gender }

export const connectorNames: Record<Connector, string> = {
  'type-c': 'type-C',
  'type-a': 'type-A',
  'type-b': 'type-B',
  'micro-b': 'micro-B',
  displayport: 'DisplayPort',
  'mini-displayport': 'mini DisplayPort',
  hdmi: 'HDMI',
  '8p8c': 'category cable jack',
  lc: 'LC fibre',
}

/** Connectors of the single-lane USB family that came before type-C. */
export const isLegacyUsb = (connector: Connector): boolean =>
  connector === 'type-a' || connector === 'type-b' || connector === 'micro-b'

export const carriesUsb = (connector: Connector): boolean => connector === 'type-c' || isLegacyUsb(connector)

/** One plug in one socket of the same connector. */
export const endsMate = (one: End, other: End): boolean =>
  one.connector === other.connector && one.gender !== other.gender

export const describeEnd = (end: End): string => `${connectorNames[end.connector]} ${end.gender}`
