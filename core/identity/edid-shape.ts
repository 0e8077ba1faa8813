/** A mode that a display says it takes. */
export type EdidMode = {
  width: number
  height: number
  refresh: number
  interlaced?: true
  /** Where in the EDID it stands, in the standard's words. */
  from: string
}

/** What a display says of its HDMI input. */
export type EdidHdmi = {
  maxTmdsMHz: number | null
  frlGbps: number | null
  compression: boolean
  bits: 8 | 10 | 12 | 16
}

/** What a display says of itself (VESA E-EDID 1.4, CTA-861, DisplayID 1.3 and 2.0), as far as Hallway can use it. */
export type Edid = {
  name: string | null
  input: 'analogue' | 'DVI' | 'HDMI' | 'DisplayPort' | 'digital'
  bits: number | null
  modes: EdidMode[]
  /** The mode it is made for. */
  preferred: EdidMode | null
  range: { vertical: [number, number]; horizontal: [number, number]; maxClockMHz: number | null } | null
  hdmi: EdidHdmi | null
  /** Chroma it takes beside RGB. */
  chromas: ('444' | '422' | '420')[]
  /** It takes high dynamic range: perceptual quantiser or hybrid log-gamma. */
  hdr: boolean
  tiles: { across: number; down: number; width: number; height: number } | null
  /** What is wrong with it; it was read all the same as far as it goes. */
  faults: string[]
  /** Parts that were passed over unread, by name. */
  skipped: string[]
}
