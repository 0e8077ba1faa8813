import { chakra } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import type { Connector } from '../../core/standards/connectors'

const hole = 'var(--hw-colors-floor)'

/** The mouth of each plug as one looks into it, drawn to one scale as far as this size allows. */
const faces: Record<Connector, ReactNode> = {
  'type-c': (
    <>
      <rect x="9" y="11" width="30" height="11" rx="5.5" />
      <path d="M15 16.5h18" strokeWidth="2" />
    </>
  ),
  'type-a': (
    <>
      <rect x="7" y="9" width="34" height="15" />
      <rect x="10" y="11.5" width="28" height="5" fill="currentColor" stroke="none" />
    </>
  ),
  'type-b': (
    <>
      <path d="M13 27V11l5-5h12l5 5v16z" />
      <rect x="18.5" y="13" width="11" height="8" fill="currentColor" stroke="none" />
    </>
  ),
  'micro-b': (
    <>
      <path d="M6 21V15l3-3h15l3 3v6z" />
      <path d="M29 21V12h10l3 3v6z" />
    </>
  ),
  'mini-b': (
    <>
      <path d="M12 23v-5l-2-3v-4h28v4l-2 3v5z" />
      <path d="M17 15.5h14" strokeWidth="2" />
    </>
  ),
  displayport: (
    <>
      <path d="M6 9h36v15H11l-5-5z" />
      <path d="M13 16.5h22" strokeWidth="2" />
    </>
  ),
  'mini-displayport': (
    <>
      <path d="M11 10h26v9l-4 4H15l-4-4z" />
      <path d="M17 15.5h14" strokeWidth="2" />
    </>
  ),
  hdmi: (
    <>
      <path d="M6 10h36v6l-4 7H10l-4-7z" />
      <path d="M13 15.5h22" strokeWidth="2" />
    </>
  ),
  dvi: (
    <>
      <rect x="6" y="9" width="36" height="15" rx="2" />
      <path d="M11 13.5h18M11 16.5h18M11 19.5h18" strokeWidth="1.6" strokeDasharray="1.6 1.4" />
      <path d="M33 16.5h5" strokeWidth="2" />
    </>
  ),
  own: (
    <>
      <circle cx="24" cy="16.5" r="9" />
      <path d="M24 11v11M18.5 16.5h11" strokeWidth="2" />
    </>
  ),
  '8p8c': (
    <>
      <path d="M10 26V8h28v18h-7v3H17v-3z" />
      <path d="M14 9v6M17 9v6M20 9v6M23 9v6M26 9v6M29 9v6M32 9v6M35 9v6" strokeWidth="1.2" />
    </>
  ),
  lc: (
    <>
      <rect x="8" y="9" width="14" height="15" />
      <rect x="26" y="9" width="14" height="15" />
      <circle cx="15" cy="16.5" r="2.5" fill="currentColor" stroke="none" />
      <circle cx="33" cy="16.5" r="2.5" fill="currentColor" stroke="none" />
    </>
  ),
}

export function ConnectorFace({ connector, width = 48 }: { connector: Connector; width?: number }) {
  return (
    <chakra.svg
      viewBox="0 0 48 33"
      width={`${width}px`}
      height={`${(width * 33) / 48}px`}
      aria-hidden="true"
      fill={hole}
      stroke="currentColor"
      strokeWidth="1.8"
      strokeLinejoin="round"
      flex="none"
    >
      {faces[connector]}
    </chakra.svg>
  )
}
