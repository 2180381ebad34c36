import { z } from 'zod';
import { NettingError } from '../core/errors';
import type { Pacer } from './pacer';

export type Access =
  | { kind: 'key'; key: string }
  | { kind: 'oauth'; accessToken: string; refreshToken: string; expiresAt: string };

export type Request = {
  method: 'GET' | 'POST' | 'PATCH';
  path: string;
  body?: unknown;
  bytes?: Buffer;
  /** Lines of JSON, one a line (NDJSON), in place of one body; answered the same way, as an array. */
  lines?: unknown[];
  idempotencyKey?: string;
};

/** A conversation with one marketplace on behalf of one account: access, pace, time-outs, and errors with names. */
export type Session = {
  send(request: Request): Promise<unknown>;
  /** Which account it speaks for, where there is one already. */
  account?: string;
  urgent?: boolean;
};

/** So long a request waits for its answer, in milliseconds. */
export const requestTimeoutMs = 20_000;

/** Somebody else may be sending for the account by now: nothing was sent, and nothing of this is to be kept. */
export class LostLease extends Error {
  constructor() {
    super('another worker may be sending for the account');
    this.name = 'LostLease';
  }
}

export type SessionOptions = {
  account?: string;
  base: string;
  marketName: string;
  readAccess(): Promise<Access>;
  /** Called once when the marketplace does not accept the access any more; returns the renewed one. */
  renewAccess(): Promise<Access>;
  pacer: Pacer;
  /** Its requests overtake the others of the same account. */
  urgent?: boolean;
  /** Told of every request whether they answered; a fault of theirs counts as silence. */
  heard?(answered: boolean): void;
  /** Asked right before every request: whether the account may still be spoken for. */
  mayStill?(): boolean;
  timeoutMs?: number;
};

const problemSchema = z.object({
  title: z.string().optional(),
  detail: z.string().optional(),
  errors: z.array(z.object({ pointer: z.string(), detail: z.string() })).optional(),
});

/** How long to wait, in milliseconds, by a header of seconds or of a date (RFC 9110, 10.2.3). */
export function retryAfterOf(header: string | null, now = Date.now()): number | undefined {
  if (header === null || header.trim() === '') return undefined;
  const seconds = Number(header);
  const ms = Number.isFinite(seconds) ? seconds * 1_000 : Date.parse(header) - now;
  return Number.isFinite(ms) && ms > 0 ? Math.min(ms, 86_400_000) : undefined;
}

/** Longer pauses than a marketplace's pace ever asks for: it is about the day's number, or the account. */
const longPauseMs = 900_000;
export const aboutTheDay = /new (?:listing|offer|lot|item)s? a day|(?:daily|today|per day|24 hours).*|allowance/i;
const aboutAccess = /token|key|scope|permission|not allowed to|sign in|credential|authori[sz]/i;

/** A page for people, or nothing at all, tells a seller nothing. */
const isPage = (text: string) => /^\s*<(?:!doctype|html)/i.test(text);

/** What a marketplace answered in its own words, as one of our errors. */
export async function refusal(response: Response, marketName: string): Promise<NettingError> {
  const text = (await response.text()).slice(0, 4_000);
  const { status } = response;
  let message = isPage(text) ? `it answered ${status}` : text.trim() || `it answered ${status}`;
  let pointers: { pointer: string; detail: string }[] = [];
  try {
    const problem = problemSchema.parse(JSON.parse(text));
    message = problem.detail ?? problem.title ?? message;
    pointers = problem.errors ?? [];
  } catch {
    // A bare sentence: shown as it is.
  }
  const retryAfterMs = retryAfterOf(response.headers.get('retry-after'));
  const said = `${marketName}: ${message.replace(/[<>]/g, '').slice(0, 300)}`;
  const details = pointers.map(({ pointer, detail }) => ({ field: pointer, message: detail }));
  // A word about the daily number is about new listings alone: everything else may go on.
  if (status === 429 && (aboutTheDay.test(message) || (retryAfterMs ?? 0) >= longPauseMs))
    return new NettingError('market-warned', said, { retryAfterMs: retryAfterMs ?? 3_600_000 });
  if (status === 429) return new NettingError('market-busy', said, { retryAfterMs });
  // However they put it: what is forbidden for a while is a lock, and what is not said to be about access, too.
  if (status === 403 && (retryAfterMs !== undefined || !aboutAccess.test(message)))
    return new NettingError('market-locked', said, {
      retryAfterMs: retryAfterMs ?? 300_000,
      fix: 'Wait until the lock is over; sending goes on by itself',
    });
  if (status === 401 || status === 403)
    return new NettingError('market-auth', said, { fix: 'Connect the account again' });
  if (status === 404) return new NettingError('not-found', said);
  if (status === 409)
    return new NettingError('market-blocked', said, { fix: 'Settle it on the marketplace, then try again' });
  if (status >= 500) return new NettingError('market-unreachable', said, { retryAfterMs });
  return new NettingError('market-refused', said, { details, field: details[0]?.field });
}

const unreadable = (marketName: string) =>
  new NettingError('market-unreachable', `${marketName} gave an answer that cannot be read`, {});

/** So often access is renewed for one request before it counts as refused. */
const mostRenewals = 2;

export function openSession(options: SessionOptions): Session {
  const { base, marketName, pacer, timeoutMs = requestTimeoutMs } = options;

  async function once(request: Request, access: Access): Promise<Response> {
    const headers: Record<string, string> =
      access.kind === 'key' ? { 'x-api-key': access.key } : { authorization: `Bearer ${access.accessToken}` };
    if (request.idempotencyKey) headers['idempotency-key'] = request.idempotencyKey;
    if (request.body !== undefined) headers['content-type'] = 'application/json';
    if (request.lines) headers['content-type'] = 'application/x-ndjson';
    if (request.bytes) headers['content-type'] = 'image/jpeg';
    await pacer.turn(options.urgent);
    // With nothing to wait for between this look and the request.
    if (options.mayStill?.() === false) throw new LostLease();
    try {
      return await fetch(`${base}${request.path}`, {
        method: request.method,
        headers,
        body: request.bytes
          ? new Uint8Array(request.bytes)
          : request.lines
            ? request.lines.map((line) => JSON.stringify(line)).join('\n')
            : request.body === undefined
              ? undefined
              : JSON.stringify(request.body),
        signal: AbortSignal.timeout(timeoutMs),
        redirect: 'error',
      });
    } catch {
      // Whether the work was done is not known: the caller finds out before it repeats.
      options.heard?.(false);
      throw new NettingError('market-unreachable', `${marketName} did not answer`, {});
    }
  }

  return {
    account: options.account,
    urgent: options.urgent,
    async send(request) {
      let response = await once(request, await options.readAccess());
      // What another one has just renewed may have run out meanwhile as well.
      for (let renewals = 0; response.status === 401 && renewals < mostRenewals; renewals++)
        response = await once(request, await options.renewAccess());
      options.heard?.(response.status < 500);
      if (!response.ok) {
        const error = await refusal(response, marketName).catch(() => unreadable(marketName));
        if (error.code === 'market-busy') pacer.backOff(error.facts.retryAfterMs ?? 1_000);
        throw error;
      }
      try {
        if (!request.lines) return await response.json();
        const text = await response.text();
        return text
          .split('\n')
          .filter(Boolean)
          .map((line): unknown => JSON.parse(line));
      } catch {
        throw unreadable(marketName);
      }
    },
  };
}
