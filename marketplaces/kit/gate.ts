import type { HttpBindings } from '@hono/node-server';
import type { Context, Next } from 'hono';
import { refuse } from './answers';
import type { Market, Seller } from './types';
import type { Fault, World } from './world';

const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

const cut = (c: Context) => {
  const { outgoing } = c.env as HttpBindings; // the server is always Node's
  outgoing.socket?.destroy();
  return new Response(null, { headers: { 'x-hono-already-sent': 'true' } });
};

function takeFault(world: World, market: Market, fits: (fault: Fault) => boolean): Fault | null {
  const faults = world.faults.get(market.name) ?? [];
  const fault = faults.find((one) => one.times > 0 && fits(one));
  if (!fault) return null;
  fault.times--;
  return fault;
}

/** Does to a request what the control page asked for: slow, refused, or the connection cut before or after the work. */
export const faultGate = (world: World, market: Market) => async (c: Context, next: Next) => {
  const fits = (one: Fault) =>
    one.kind !== 'token-slow' &&
    (!one.method || one.method === c.req.method) &&
    (!one.path || c.req.path.endsWith(one.path));
  const fault = takeFault(world, market, fits);
  if (!fault) return next();
  switch (fault.kind) {
    case 'token-slow':
      return next();
    case 'slow':
      await wait(fault.ms);
      return next();
    case 'error-500':
      return world.odd(market.name).otherWords
        ? c.html(
            '<!doctype html><html><head><title>503</title></head><body><h1>Down for a moment</h1></body></html>',
            503,
          )
        : refuse(c, market, 500, 'Something went wrong on our side');
    case 'busy-429':
      return refuse(c, market, 429, 'Too many requests', [], {
        'retry-after': world.odd(market.name).otherWords
          ? new Date(Date.now() + Math.max(1_000, fault.ms)).toUTCString()
          : String(Math.max(1, Math.ceil(fault.ms / 1000))),
      });
    case 'drop-before':
      return cut(c);
    // The work is done, and the answer breaks off in its middle.
    case 'cut-short': {
      await next();
      const whole = Buffer.from(await c.res.arrayBuffer());
      const { outgoing } = c.env as HttpBindings; // the server is always Node's
      outgoing.writeHead(c.res.status, { 'content-type': 'application/json', 'content-length': whole.length });
      outgoing.write(whole.subarray(0, Math.floor(whole.length / 2)), () => outgoing.socket?.destroy());
      c.res = new Response(null, { headers: { 'x-hono-already-sent': 'true' } });
      return;
    }
    case 'drop-after':
      await next();
      c.res = cut(c);
      return;
  }
};

/** Makes whoever asks for new tokens wait, when the control page asked for it. */
export async function waitForTokens(world: World, market: Market): Promise<void> {
  const fault = takeFault(world, market, (one) => one.kind === 'token-slow');
  if (fault) await wait(fault.ms);
}

type Bucket = { tokens: number; at: number };
const buckets = new Map<string, Bucket>();

/** A token bucket per seller: a burst of one tenth of a minute's number, refilled evenly. */
export function overRate(world: World, market: Market, seller: Seller): number {
  const own = seller.exceptions.perMinute;
  const perMinute = typeof own === 'number' ? own : world.rules(market).pacing.perMinute;
  const size = Math.max(5, perMinute / 10);
  const now = Date.now();
  const key = `${market.name}/${seller.name}`;
  const bucket = buckets.get(key) ?? { tokens: size, at: now };
  bucket.tokens = Math.min(size, bucket.tokens + ((now - bucket.at) * perMinute) / 60_000);
  bucket.at = now;
  buckets.set(key, bucket);
  if (bucket.tokens >= 1) {
    bucket.tokens--;
    return 0;
  }
  return Math.max(1, Math.ceil(((1 - bucket.tokens) * 60) / perMinute));
}
