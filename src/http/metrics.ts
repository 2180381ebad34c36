import { collectDefaultMetrics, Gauge, Histogram, Registry } from 'prom-client';
import { stateInNumbers } from '../services/audit/state-in-numbers';

type Kept = { registry: Registry; requests: Histogram<'method' | 'path' | 'status'> };
// Next.js may load this module more than once a process; what is counted must stay one.
const kept = globalThis as typeof globalThis & { nettingMetrics?: Kept };

function own(): Kept {
  kept.nettingMetrics ??= (() => {
    const registry = new Registry();
    collectDefaultMetrics({ register: registry, prefix: 'netting_' });
    const requests = new Histogram({
      name: 'netting_request_seconds',
      help: 'Time until a request of the HTTP interface was answered, by its described path',
      labelNames: ['method', 'path', 'status'],
      buckets: [0.01, 0.03, 0.1, 0.3, 1, 3, 10, 60],
      registers: [registry],
    });
    return { registry, requests };
  })();
  return kept.nettingMetrics;
}

/** Keeps how long a request took. The path is that of the description: what is asked for does not make new series. */
export function timed(method: string, path: string, status: number, ms: number): void {
  own().requests.observe({ method, path, status: `${Math.floor(status / 100)}xx` }, ms / 1_000);
}

/** The state of the shop as gauges, read now. */
async function gauges(): Promise<Registry> {
  const state = await stateInNumbers(new Date());
  const registers = [new Registry()];
  const gauge = <L extends string>(name: string, help: string, ...labelNames: L[]) =>
    new Gauge<L>({ name: `netting_${name}`, help, labelNames, registers });
  const jobs = gauge('jobs', 'Jobs that are due, held or under way', 'state');
  const oldest = gauge('jobs_oldest_seconds', 'Since when the oldest of them is due', 'state');
  for (const one of state.jobs) {
    jobs.set({ state: one.state }, one.count);
    oldest.set({ state: one.state }, one.oldestSeconds);
  }
  gauge('urgent_jobs', 'Ends and lowerings that are due').set(state.urgent.count);
  gauge('urgent_oldest_seconds', 'Since when the oldest end or lowering is due').set(state.urgent.oldestSeconds);
  const heard = gauge('account_heard_seconds', 'Since the orders of an account were last heard', 'account', 'market');
  const silent = gauge('account_unheard', 'An account whose orders should have been heard', 'account', 'market');
  for (const { name, market, heardSeconds, isUnheard } of state.accounts) {
    if (heardSeconds !== null) heard.set({ account: name, market }, heardSeconds);
    silent.set({ account: name, market }, isUnheard ? 1 : 0);
  }
  const pool = gauge('database_connections', 'Connections of this process to the database', 'state');
  for (const [name, count] of Object.entries(state.pool)) pool.set({ state: name }, count);
  const found = gauge('audit_findings', 'What the last audit found', 'check');
  for (const { id, count } of state.audit.found) found.set({ check: id }, count);
  const at = gauge('audit_at_seconds', 'When the last audit was, in seconds since 1970');
  if (state.audit.at) at.set(state.audit.at.getTime() / 1_000);
  return registers[0] ?? new Registry();
}

/** What is counted of this process and of the shop, in the text format of Prometheus. */
export async function metricsText(): Promise<{ type: string; text: string }> {
  const whole = Registry.merge([own().registry, await gauges()]);
  return { type: whole.contentType, text: await whole.metrics() };
}
