import { type LookupAddress, lookup as systemLookup } from 'node:dns';
import { request as httpRequest, type IncomingMessage } from 'node:http';
import { request as httpsRequest } from 'node:https';
import { isIP, type LookupFunction } from 'node:net';
import { isInside } from './inside-address';

const timeoutMs = 15_000;

type Resolve = (host: string) => Promise<LookupAddress[]>;

const resolveBySystem: Resolve = (host) =>
  new Promise((resolve, reject) =>
    systemLookup(host, { all: true }, (error, addresses) => (error ? reject(error) : resolve(addresses))),
  );

/** An address that nothing is asked of, with a sentence that says why. */
export class NotAsked extends Error {}

const insideWords = 'This address leads into a net that Netting does not speak to';

/**
 * A look-up that hands out only what was checked: the connection goes to the very address that was looked at, so that a
 * second answer of the name's server changes nothing.
 */
const checked =
  (resolve: Resolve, may: (address: string) => boolean): LookupFunction =>
  (host, options, done) => {
    resolve(host)
      .then((addresses) => {
        const odd = addresses.find((one) => !may(one.address));
        if (odd || addresses.length === 0) throw new NotAsked(insideWords);
        const [first] = addresses;
        if (options.all) done(null, addresses);
        else done(null, first?.address ?? '', first?.family);
      })
      .catch((error: Error) => done(error, '', 4));
  };

export type AskOptions = {
  resolve?: Resolve;
  may?: (address: string) => boolean;
  /** Origins that are spoken to wherever they lie, such as `https://market.example`. */
  trusts?: readonly string[];
};

/**
 * Asks an address that somebody wrote: of the open internet alone, unless it is trusted. Where it leads on to is not
 * followed here. Throws `NotAsked` for what is not asked at all, and the connection's own error.
 */
export async function askOutside(
  url: URL,
  { method = 'GET', headers = {}, body }: { method?: string; headers?: Record<string, string>; body?: string },
  { resolve = resolveBySystem, may: mayBe = (one) => !isInside(one), trusts = [] }: AskOptions = {},
): Promise<IncomingMessage> {
  if (!/^https?:$/.test(url.protocol)) throw new NotAsked('Only addresses of the web are spoken to');
  if (url.username || url.password) throw new NotAsked('An address with a password in it is not used');
  const may = trusts.includes(url.origin) ? () => true : mayBe;
  const host = url.hostname.replace(/^\[|\]$/g, '');
  if (isIP(host) && !may(host)) throw new NotAsked(insideWords);
  const ask = url.protocol === 'https:' ? httpsRequest : httpRequest;
  return new Promise((answered, failed) => {
    const request = ask(url, {
      method,
      lookup: checked(resolve, may),
      headers: { ...headers, 'user-agent': 'Netting' },
      signal: AbortSignal.timeout(timeoutMs),
    });
    request.once('response', answered);
    request.once('error', failed);
    request.end(body);
  });
}
