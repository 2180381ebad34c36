import { client, drained, pause } from '../support/drive.mjs';
import { spent } from './idle.mjs';

const places = ['Hallowick', 'Oakhand', 'Shopfront'];

/** Processor time of everything that takes part in a change that is sent, for each change, and how long all of them took. */
export async function costOfAChange({ processes, settings }) {
  const call = client(settings);
  const accounts = (await call('GET', '/accounts')).body.accounts.filter((one) => places.includes(one.name));
  const { items } = (await call('GET', '/items?limit=400&sort=sku&dir=asc')).body;
  const selection = { kind: 'items', ids: items.map((one) => one.id) };
  await call('POST', '/publish', { selection, accounts: accounts.map((one) => one.id) });
  await drained(call, 900_000);
  await pause(3_000);
  const names = ['worker', 'database', 'web', 'tasks', 'marketplaces'];
  const before = names.map((name) => spent(processes.pid(name)));
  const began = Date.now();
  const { body } = await call('POST', '/edits', {
    selection,
    steps: [{ field: 'price', do: { verb: 'percent', basisPoints: -500, rounding: 'none', floor: null } }],
    send: true,
  });
  if (!body.runId && !body.taskId) throw new Error('nothing was changed');
  await drained(call, 900_000);
  const seconds = (Date.now() - began) / 1_000;
  const changes = items.length * accounts.length;
  const ms = names.map((name, at) => ((spent(processes.pid(name)) - before[at]) * 1_000) / changes);
  const [sender, database, ...others] = ms;
  return {
    changes,
    seconds,
    lanes: accounts.map((one) => ({ perMinute: one.pacing.perMinute, waiting: items.length })),
    ms: { sender, database, other: others.reduce((sum, one) => sum + one, 0) },
  };
}
