import ipaddr from 'ipaddr.js'

/** The bits of an address of the sixth version that one line has to itself: whoever has one has all addresses behind it (RFC 6177). */
const LINE_BITS = 64

/** What is counted as one sender: an address, or all of those that one line has. */
export function networkOf(address: string): string {
  if (!ipaddr.isValid(address)) return address
  const parsed = ipaddr.process(address)
  return parsed instanceof ipaddr.IPv6
    ? `${ipaddr.IPv6.networkAddressFromCIDR(`${parsed.toNormalizedString()}/${LINE_BITS}`).toNormalizedString()}/${LINE_BITS}`
    : parsed.toString()
}
