import ipaddr from 'ipaddr.js'

const parsed = (text: string) => (ipaddr.isValid(text) ? ipaddr.process(text) : undefined)

function network(text: string, bits: { readonly ipv4: number; readonly ipv6: number }): string {
  const address = parsed(text)
  if (!address) return 'unknown'
  const width = bits[address.kind()]
  if (width === 32) return address.toString()
  const base = address.kind() === 'ipv4' ? ipaddr.IPv4.networkAddressFromCIDR(`${address}/${width}`) : ipaddr.IPv6.networkAddressFromCIDR(`${address}/${width}`)
  return `${base}/${width}`
}

/** What tries are counted by: an address, of IPv6 the network that one household has. */
export const tryNetwork = (address: string): string => network(address, { ipv4: 32, ipv6: 64 })

/** What the audit keeps of an address: where it was about, not whose it is. */
export const auditNetwork = (address: string): string => network(address, { ipv4: 24, ipv6: 48 })
