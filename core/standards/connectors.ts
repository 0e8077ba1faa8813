/** Every connector Hallway knows, in the order people are offered them. */
export const CONNECTORS = [
  'type-c',
  'type-a',
  'type-b',
  'micro-b',
  'mini-b',
  'displayport',
  'mini-displayport',
  'hdmi',
  'dvi',
  '8p8c',
  'lc',
  'own',
] as const
export type Connector = (typeof CONNECTORS)[number]

export const GENDERS = ['socket', 'plug'] as const
export type Gender = (typeof GENDERS)[number]

/** One end of a lead, or a port. A maker's own plug has a name: only plugs of one name mate. */
export type End = { connector: Connector; gender: Gender; ownPlug?: string | undefined }

export const connectorNames: Record<Connector, string> = {
  'type-c': 'type-C',
  'type-a': 'type-A',
  'type-b': 'type-B',
  'micro-b': 'micro-B',
  'mini-b': 'mini-B',
  displayport: 'DisplayPort',
  'mini-displayport': 'mini DisplayPort',
  hdmi: 'HDMI',
  dvi: 'DVI',
  '8p8c': 'category cable jack',
  lc: 'LC fibre',
  own: "maker's own",
}

/** HDMI and DVI are one signal in two plugs. */
export const speaksTmds = (connector: Connector): boolean => connector === 'hdmi' || connector === 'dvi'

/** Connectors of the single-lane USB family that came before type-C. */
export const isLegacyUsb = (connector: Connector): boolean =>
  connector === 'type-a' ||
  connector === 'type-b' ||
  connector === 'micro-b' ||
  connector === 'mini-b' ||
  // what travels in a maker's own plug beside its supply is USB of one lane (common practice)
  connector === 'own'

/** A plug over which 5 V come and nothing is negotiated; what a maker's own plug brings is the maker's affair (common practice). */
export const isOlderPlug = (connector: Connector): boolean => connector !== 'own' && isLegacyUsb(connector)

export const carriesUsb = (connector: Connector): boolean => connector === 'type-c' || isLegacyUsb(connector)

/** One plug in one socket of the same connector. */
export const endsMate = (one: End, other: End): boolean =>
  one.connector === other.connector &&
  one.gender !== other.gender &&
  (one.ownPlug ?? '').toLowerCase() === (other.ownPlug ?? '').toLowerCase()

export const describeEnd = (end: End): string => `${end.ownPlug ?? connectorNames[end.connector]} ${end.gender}`
