import { type LookupAddress, lookup as systemLookup } from 'node:dns';
import { request as httpRequest, type IncomingMessage } from 'node:http';
import { request as httpsRequest } from 'node:https';
import { isIP, type LookupFunction } from 'node:net';
import { NettingError } from '../core/errors';
import { isInside } from './inside-address';
import { maxPhotoBytes } from './intake';

const timeoutMs = 15_000;
const mostRedirects = 3;

const refused = (why: string) => new NettingError('photo-unreadable', why, { field: 'photos' });

type Resolve = (host: string) => Promise<LookupAddress[]>;

const resolveBySystem: Resolve = (host) =>
  new Promise((resolve, reject) =>
    systemLookup(host, { all: true }, (error, addresses) => (error ? reject(error) : resolve(addresses))),
  );

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
        if (odd || addresses.length === 0) throw refused('This address leads into a net that nothing is fetched from');
        const [first] = addresses;
        if (options.all) done(null, addresses);
        else done(null, first?.address ?? '', first?.family);
      })
      .catch((error: Error) => done(error, '', 4));
  };

export type FetchOptions = {
  resolve?: Resolve;
  may?: (address: string) => boolean;
  /** Where the shop is connected anyhow, such as `https://market.example`: it may lie anywhere. */
  trusts?: string;
};

function get(
  url: URL,
  { resolve = resolveBySystem, may: mayBe = (one) => !isInside(one), trusts }: FetchOptions,
): Promise<IncomingMessage> {
  const may = url.origin === trusts ? () => true : mayBe;
  const host = url.hostname.replace(/^\[|\]$/g, '');
  if (isIP(host) && !may(host)) throw refused('This address leads into a net that nothing is fetched from');
  const ask = url.protocol === 'https:' ? httpsRequest : httpRequest;
  return new Promise((answered, failed) => {
    const request = ask(url, {
      lookup: checked(resolve, may),
      headers: { accept: 'image/*', 'user-agent': 'Netting' },
      signal: AbortSignal.timeout(timeoutMs),
    });
    request.once('response', answered);
    request.once('error', failed);
    request.end();
  });
}

async function bodyOf(response: IncomingMessage): Promise<Buffer> {
  const parts: Buffer[] = [];
  let bytes = 0;
  for await (const part of response) {
    const buffer = part as Buffer; // no encoding is set
    bytes += buffer.length;
    if (bytes > maxPhotoBytes) throw refused('The picture at this address is larger than 30 MB');
    parts.push(buffer);
  }
  return Buffer.concat(parts);
}

/**
 * A picture from an address of the open internet. Addresses inside a house's own net are refused, whatever name leads
 * there and wherever it is led on to; what it is is looked at by who stores it.
 */
export async function fetchPicture(address: string, options: FetchOptions = {}): Promise<Buffer> {
  let url = new URL(address);
  for (let led = 0; led <= mostRedirects; led++) {
    if (!/^https?:$/.test(url.protocol)) throw refused('Only addresses of the web are read');
    if (url.username || url.password) throw refused('An address with a password in it is not read');
    const response = await get(url, options).catch((error: unknown) => {
      throw error instanceof NettingError ? error : refused(`${url.hostname} does not answer`);
    });
    const { statusCode = 0, headers } = response;
    if (statusCode >= 300 && statusCode < 400 && headers.location) {
      response.destroy();
      url = new URL(headers.location, url);
      continue;
    }
    if (statusCode !== 200) {
      response.destroy();
      throw refused(`There is no picture at this address: it answered ${statusCode}`);
    }
    try {
      return await bodyOf(response);
    } finally {
      response.destroy();
    }
  }
  throw refused('This address leads on too often');
}
