import type { Request } from 'express'
import ipaddr from 'ipaddr.js'

/**
 * Who calls, as far as an address tells it: an IPv4 address, or the network of an IPv6 address, of which whoever has one
 * has all of /64 (RFC 4291, §2.5.4).
 */
export function clientOf({ ip = '' }: Pick<Request, 'ip'>): string {
  if (!ipaddr.isValid(ip)) return 'unknown'
  const address = ipaddr.process(ip)
  if (address.kind() === 'ipv4') return address.toString()
  return (address as ipaddr.IPv6).parts
    .slice(0, 4)
    .map((part) => part.toString(16))
    .join(':')
}
