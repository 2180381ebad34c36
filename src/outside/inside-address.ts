import { BlockList, isIP } from 'node:net';

/** Nets that are not the open internet; source: the IANA special-purpose address registries for IPv4 and IPv6. */
const inside = new BlockList();
for (const [net, bits] of [
  ['0.0.0.0', 8],
  ['10.0.0.0', 8],
  ['100.64.0.0', 10],
  ['127.0.0.0', 8],
  ['169.254.0.0', 16],
  ['172.16.0.0', 12],
  ['192.0.0.0', 24],
  ['192.0.2.0', 24],
  ['192.88.99.0', 24],
  ['192.168.0.0', 16],
  ['198.18.0.0', 15],
  ['198.51.100.0', 24],
  ['203.0.113.0', 24],
  ['224.0.0.0', 4],
  ['240.0.0.0', 4],
] as const)
  inside.addSubnet(net, bits, 'ipv4');
// Of IPv6 only what is given out to the world (2000::/3) is outside, and of that not what carries other addresses.
const outside6 = new BlockList();
outside6.addSubnet('2000::', 3, 'ipv6');
const carrying6 = new BlockList();
for (const [net, bits] of [
  ['2001::', 23],
  ['2001:db8::', 32],
  ['2002::', 16],
] as const)
  carrying6.addSubnet(net, bits, 'ipv6');

/** Whether an IP address leads into a house's own net, this machine, or nowhere: nothing may be fetched from there. */
export function isInside(address: string): boolean {
  const version = isIP(address);
  if (version === 4) return inside.check(address, 'ipv4');
  if (version === 6) return !outside6.check(address, 'ipv6') || carrying6.check(address, 'ipv6');
  return true;
}
