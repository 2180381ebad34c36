import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { type Description, Interface } from './interface';

const need = (name: string): string => {
  const value = process.env[name];
  if (!value) throw new Error(`${name} is not set: run these tests with npm test`);
  return value;
};

/** The stack that the tests run against: started by bin/test.mjs on its own ports and data folder. */
export const stack = {
  base: `http://127.0.0.1:${need('NETTING_PORT')}`,
  markets: `http://127.0.0.1:${need('NETTING_MARKETS_PORT')}`,
  dataFolder: need('NETTING_DATA'),
  databasePort: Number(need('NETTING_DB_PORT')),
  get token(): string {
    return readFileSync(join(this.dataFolder, 'demo-api-token'), 'utf8').trim();
  },
  get databasePassword(): string {
    const secrets = JSON.parse(readFileSync(join(this.dataFolder, 'secrets.json'), 'utf8')) as {
      databasePassword: string;
    };
    return secrets.databasePassword;
  },
};

let described: Promise<Interface> | null = null;

/**
 * Each request on a connection of its own: one that was kept may be closed by the other side at the very moment in which
 * the next request goes out.
 */
export const alone = { connection: 'close' };

/** What Netting says of its own HTTP interface. */
export const describedInterface = (): Promise<Interface> => {
  described ??= fetch(`${stack.base}/api/openapi.json`, {
    headers: { authorization: `Bearer ${stack.token}`, ...alone },
  })
    .then((answer) => answer.json())
    .then((description) => new Interface(description as Description)); // OpenAPI 3.1, made by openapi.ts
  return described;
};

export type Answer<T> = { status: number; body: T };

/** Calls Netting with the demo's API token. Every answer is held to its own description. */
export async function call<T = Record<string, unknown>>(
  method: string,
  path: string,
  body?: unknown,
): Promise<Answer<T>> {
  const response = await fetch(`${stack.base}/api/v1${path}`, {
    method,
    headers: {
      authorization: `Bearer ${stack.token}`,
      ...alone,
      ...(body === undefined ? {} : { 'content-type': 'application/json' }),
    },
    body: body === undefined ? undefined : JSON.stringify(body),
  });
  const answer: unknown = await response.json();
  const faults = (await describedInterface()).faults(method, path, response.status, answer);
  if (faults.length) throw new Error(`answered otherwise than described:\n${faults.slice(0, 8).join('\n')}`);
  return { status: response.status, body: answer as T };
}

/** The same of what answers line by line: every line, each held to the description. */
export async function callLines<T>(path: string, body: unknown): Promise<T[]> {
  const response = await fetch(`${stack.base}/api/v1${path}`, {
    method: 'POST',
    headers: { authorization: `Bearer ${stack.token}`, ...alone, 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
  const interfaceNow = await describedInterface();
  const { media } = interfaceNow.answerOf(`POST ${path}`);
  if (!response.headers.get('content-type')?.startsWith(media))
    throw new Error(`not ${media}: ${await response.text()}`);
  const lines = (await response.text())
    .trimEnd()
    .split('\n')
    .map((line): unknown => JSON.parse(line));
  const faults = lines.flatMap((line) => interfaceNow.faults('POST', path, response.status, line));
  if (faults.length) throw new Error(`answered otherwise than described:\n${faults.slice(0, 8).join('\n')}`);
  return lines as T[]; // as described, which was checked above
}

/** Waits for a thing to become true; fails with what was seen last. */
export async function until<T>(look: () => Promise<T>, fits: (seen: T) => boolean, ms = 30_000): Promise<T> {
  const end = Date.now() + ms;
  let seen = await look();
  while (!fits(seen)) {
    if (Date.now() > end) throw new Error(`did not happen; last seen: ${JSON.stringify(seen)?.slice(0, 800)}`);
    await new Promise((resolve) => setTimeout(resolve, 80));
    seen = await look();
  }
  return seen;
}

/** What buyers, chance and the marketplace do. */
export async function control(market: string, action: string, body: unknown = {}): Promise<Record<string, unknown>> {
  const response = await fetch(`${stack.markets}/control/api/${market}/${action}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', ...alone },
    body: JSON.stringify(body),
  });
  return (await response.json()) as Record<string, unknown>;
}

const moveClocks = async (days: number): Promise<number> => {
  const response = await fetch(`${stack.markets}/control/api/clock`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', ...alone },
    body: JSON.stringify({ days }),
  });
  return Date.parse(((await response.json()) as { now: string }).now);
};

/** The marketplaces' clocks go on by a day. @returns what time it is there then */
export const aDayLater = (): Promise<number> => moveClocks(1);

/** What time it is at the marketplaces: some test may have moved their clocks. */
export const theirTime = (): Promise<number> => moveClocks(0);

export type MarketListing = {
  id: string;
  state: string;
  seller: string;
  summary: { title: string; price: number; quantity: number; reference: string; photos: string[] };
};

/** A marketplace's own list, as it sees it. */
export async function marketListings(market: string, reference?: string): Promise<MarketListing[]> {
  const all = (await (
    await fetch(`${stack.markets}/control/api/${market}/listings`, { headers: alone })
  ).json()) as MarketListing[];
  return reference === undefined ? all : all.filter((one) => one.summary.reference === reference);
}

export type Account = { id: number; market: string; name: string; remoteName: string };
export const accounts = async (): Promise<Account[]> =>
  (await call<{ accounts: Account[] }>('GET', '/accounts')).body.accounts;
export async function accountOf(name: string): Promise<number> {
  const found = (await accounts()).find((one) => one.name === name);
  if (!found) throw new Error(`no account ${name}`);
  return found.id;
}

/** How often faults of a marketplace are still to come: 0 once all of them have met a request. */
export async function faultsLeft(market: string): Promise<number> {
  const faults = (await (await fetch(`${stack.markets}/control/api/${market}/faults`, { headers: alone })).json()) as {
    times: number;
  }[];
  return faults.reduce((sum, one) => sum + one.times, 0);
}
