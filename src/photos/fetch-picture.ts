import type { IncomingMessage } from 'node:http';
import { NettingError } from '../core/errors';
import { type AskOptions, askOutside, NotAsked } from '../outside/ask-outside';
import { maxPhotoBytes } from './intake';

const mostRedirects = 3;

const refused = (why: string) => new NettingError('photo-unreadable', why, { field: 'photos' });

export type FetchOptions = Omit<AskOptions, 'trusts'> & {
  /** Where the shop is connected anyhow, such as `https://market.example`: it may lie anywhere. */
  trusts?: string;
};

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
export async function fetchPicture(address: string, { trusts, ...options }: FetchOptions = {}): Promise<Buffer> {
  let url = new URL(address);
  for (let led = 0; led <= mostRedirects; led++) {
    const trusted = trusts ? [trusts] : [];
    const response = await askOutside(url, { headers: { accept: 'image/*' } }, { ...options, trusts: trusted }).catch(
      (error: unknown) => {
        throw refused(error instanceof NotAsked ? error.message : `${url.hostname} does not answer`);
      },
    );
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
