import { readFileSync } from 'node:fs';
import { join } from 'node:path';

export const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/** A row of numbers from 0 to 1 that a seed repeats (Lehmer; Park and Miller 1988). */
export function seeded(seed) {
  let state = (seed % 2147483646) + 1;
  return () => {
    state = (state * 48271) % 2147483647;
    return state / 2147483647;
  };
}

/** Netting over HTTP, patient while it is down: the same call again until there is an answer. */
export function client(settings) {
  const token = readFileSync(join(settings.dataFolder, 'demo-api-token'), 'utf8').trim();
  return async (method, path, body, patient = true) => {
    for (let tries = 0; ; tries++) {
      try {
        const answer = await fetch(`http://127.0.0.1:${settings.port}/api/v1${path}`, {
          method,
          headers: { authorization: `Bearer ${token}`, ...(body ? { 'content-type': 'application/json' } : {}) },
          body: body ? JSON.stringify(body) : undefined,
          signal: AbortSignal.timeout(60_000),
        });
        if (answer.status < 500 || answer.status === 502) return { status: answer.status, body: await answer.json() };
      } catch {
        // Down for the moment.
      }
      if (!patient || tries > 400) throw new Error(`${method} ${path} was never answered`);
      await pause(150);
    }
  };
}

/** What buyers, chance and the marketplaces do. */
export const control =
  (settings) =>
  async (market, action, body = {}) =>
    (
      await fetch(`http://127.0.0.1:${settings.marketsPort}/control/api/${market}/${action}`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(body),
      })
    ).json();

export const moveClock = (settings, ms) =>
  fetch(`http://127.0.0.1:${settings.marketsPort}/control/api/clock`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ ms }),
  });

/** A marketplace's own list, as it sees it. */
export const theirs = async (settings, market, reference) =>
  (
    await fetch(
      `http://127.0.0.1:${settings.marketsPort}/control/api/${market}/listings${reference ? `?reference=${encodeURIComponent(reference)}` : ''}`,
    )
  ).json();

export async function lanesOf(call) {
  const { body } = await call('GET', '/progress');
  return body.lanes;
}
export const openJobs = (lanes) => lanes.reduce((sum, lane) => sum + lane.waiting + lane.running, 0);

/** Waits until nothing waits or runs; what gave up is sent again as a person would, a bounded number of times. */
export async function drained(call, ms = 300_000) {
  const end = Date.now() + ms;
  let retried = 0;
  while (Date.now() < end) {
    if (openJobs(await lanesOf(call)) === 0) {
      const { body } = await call('GET', '/causes');
      const open = body.causes.filter((cause) => cause.errorCode === 'market-unreachable');
      if (open.length === 0 || retried > 20) return { retried };
      for (const cause of open) await call('POST', '/jobs/retry', { account: cause.accountId, message: cause.message });
      retried++;
    }
    await pause(200);
  }
  throw new Error('the outbox did not empty in time');
}

export async function allItems(call) {
  const { body } = await call('GET', '/items?limit=500&sort=sku&dir=asc');
  return body.items;
}
