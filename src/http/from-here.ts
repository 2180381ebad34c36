import { isIP } from 'node:net';
import { config } from '../config';

/**
 * Names under which the shop is known: its address, those that the settings list, this machine, and any address in digits.
 * A name that a stranger lets point here is none of them, so that no page of his is taken for one of ours.
 */
function isOurName(host: string): boolean {
  if (!URL.canParse(`http://${host}`)) return false;
  const name = new URL(`http://${host}`).hostname.replace(/^\[|\]$/g, '');
  return name === 'localhost' || isIP(name) !== 0 || [new URL(config.baseUrl).hostname, ...config.hosts].includes(name);
}

/** A page elsewhere can make a browser send cookies; it cannot make it say that the request came from here. */
export function fromHere(request: Request): boolean {
  const { headers } = request;
  const origin = headers.get('origin');
  if (!origin) return headers.get('sec-fetch-site') === 'same-origin';
  if (origin === config.baseUrl) return true;
  // Who asks by which scheme and name was found out where the connection came in.
  const host = headers.get('x-forwarded-host') ?? headers.get('host') ?? '';
  return origin === `${headers.get('x-forwarded-proto') ?? 'http'}://${host}` && isOurName(host);
}
