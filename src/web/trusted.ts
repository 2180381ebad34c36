import type { IncomingHttpHeaders } from 'node:http';
import { BlockList, isIP } from 'node:net';

/** `::ffff:127.0.0.1` is how a socket for both families tells an IPv4 address. */
const plain = (address: string): string => address.replace(/^::ffff:(?=\d+\.)/, '');

/**
 * The proxies that are believed, from addresses and ranges with commas between: `127.0.0.1, 10.1.0.0/16, fd00::/8`.
 * @throws for what is neither
 */
export function readTrusted(text: string): (address: string) => boolean {
  const list = new BlockList();
  for (const part of text.split(',').flatMap((one) => one.trim() || [])) {
    const [address = '', bits] = part.split('/');
    const family = isIP(address);
    const width = bits === undefined ? (family === 6 ? 128 : 32) : Number(bits);
    if (!family || !Number.isInteger(width) || width < 0 || width > (family === 6 ? 128 : 32))
      throw new Error(`NETTING_TRUSTED_PROXIES: “${part}” is neither an address nor a range such as 10.0.0.0/8`);
    list.addSubnet(address, width, family === 6 ? 'ipv6' : 'ipv4');
  }
  return (address) => {
    const known = plain(address);
    const family = isIP(known);
    return family !== 0 && list.check(known, family === 6 ? 'ipv6' : 'ipv4');
  };
}

/** What the headers of a request say of who asks and how, as far as it may be believed. */
export type Asked = { client: string; scheme: 'http' | 'https'; host: string };

const last = (value: string | string[] | undefined): string[] =>
  (Array.isArray(value) ? value.join(',') : (value ?? '')).split(',').flatMap((one) => one.trim() || []);

/**
 * Who asks: the peer itself, or, where the peer is a proxy that is trusted, the last in its chain that is not one. What
 * anybody else says of himself counts for nothing.
 */
export function askedBy(peer: string, headers: IncomingHttpHeaders, isTrusted: (address: string) => boolean): Asked {
  const own: Asked = { client: plain(peer), scheme: 'http', host: headers.host ?? '' };
  if (!isTrusted(peer)) return own;
  const chain = last(headers['x-forwarded-for']).map(plain);
  const strangers = chain.filter((one) => !isTrusted(one));
  const client = strangers.at(-1) ?? chain[0] ?? own.client;
  return {
    client: isIP(client) ? client : own.client,
    scheme: last(headers['x-forwarded-proto']).at(-1) === 'https' ? 'https' : 'http',
    host: last(headers['x-forwarded-host']).at(-1) ?? own.host,
  };
}

const said = ['x-forwarded-for', 'x-forwarded-host', 'x-forwarded-proto', 'x-forwarded-port', 'x-real-ip', 'forwarded'];

/** Leaves in the headers only what was found out, so that whoever reads them further on may believe them. */
export function keepBelieved(headers: IncomingHttpHeaders, asked: Asked): void {
  for (const name of said) delete headers[name];
  headers['x-forwarded-for'] = asked.client;
  headers['x-forwarded-proto'] = asked.scheme;
  headers['x-forwarded-host'] = asked.host;
  headers.host = asked.host;
}
