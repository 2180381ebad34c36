import { readFileSync } from 'node:fs';
import { client, drained, pause } from '../support/drive.mjs';

const minutes = 5;
/** Clock ticks a second in which Linux counts processor time (sysconf _SC_CLK_TCK; 100 on every common build). */
const ticks = 100;

/** Processor time of a process so far, in seconds (proc(5), fields 14 and 15 of stat). */
export function spent(pid) {
  const after = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1].split(' ');
  return (Number(after[11]) + Number(after[12])) / ticks;
}

/**
 * With nothing to do: the processor time of what sends, what does long work and the database, in percent of one core. Then
 * one piece is sold by hand: how long until its end is begun.
 */
export async function idle({ processes, settings, say }) {
  const call = client(settings);
  const accounts = (await call('GET', '/accounts')).body.accounts.filter((one) => one.state === 'connected');
  const { items } = (await call('GET', '/items?limit=3&sort=sku&dir=desc')).body;
  const selection = { kind: 'items', ids: items.map((one) => one.id) };
  const places = accounts.filter((one) => ['Hallowick', 'Oakhand', 'Shopfront'].includes(one.name));
  await call('POST', '/publish', { selection, accounts: places.map((one) => one.id) });
  await drained(call);
  // What a start does by itself is over by then.
  await pause(20_000);
  const names = ['worker', 'tasks', 'database'];
  const before = names.map((name) => spent(processes.pid(name)));
  const began = Date.now();
  await pause(minutes * 60_000);
  const seconds = (Date.now() - began) / 1000;
  const shares = names.map((name, at) => ((spent(processes.pid(name)) - before[at]) / seconds) * 100);
  const all = shares.reduce((sum, one) => sum + one, 0);
  say(`  ${names.map((name, at) => `${name} ${shares[at].toFixed(2)} %`).join(', ')}, over ${Math.round(seconds)} s`);
  const line = (id, value, unit, goal, ok) => ({ id, value, unit, baseline: null, ratio: null, goal, ok });
  say(line(`P16 nothing to do, ${accounts.length} accounts connected`, all, '% of a core', 3, all <= 3));
  const waits = [];
  for (const item of items) {
    await call('POST', `/items/${item.id}/stock`, { how: 'set', units: 0 });
    await drained(call);
    for (const { id } of places) {
      const [job] = (await call('GET', `/jobs?item=${item.id}&account=${id}`)).body.jobs;
      const first = job?.story?.[0]?.at;
      if (first) waits.push(Date.parse(first) - Date.parse(job.createdAt));
    }
  }
  const worst = Math.max(...waits);
  say(line(`P16 an urgent job begins, the slowest of ${waits.length}`, worst, 'ms', 200, worst <= 200));
}
