import { eq } from 'drizzle-orm';
import type { Logger } from 'pino';
import { fullPace, paceOn, permission } from '../core/sync';
import { database } from '../db/client';
import type { AccountRow } from '../db/schema';
import { account } from '../db/schema';
import { connectorOf } from '../markets';
import { learnHealth } from '../services/access/market-health';
import { sessionFor } from '../services/access/market-session';
import { loadAccounts } from '../services/records/load-accounts';
import { claimJobs, type JobRow } from './claim';
import { workInbox } from './inbox';
import { bePresent, type Due, giveLane, reclaimJobs, takeLane } from './lanes';
import { forgetPlaces } from './new-listings';
import { pollOrders } from './poll';
import { runJob } from './send';

const concurrency = 6;
/** Ends and lower quantities never wait for a place. */
const urgentPlaces = 8;
const urgentPriority = 1;
const heartbeatMs = 2_000;
/** Just below what is allowed: clocks differ. */
const underRate = 0.98;

type LaneState = {
  running: Map<number, { work: Promise<void>; urgent: boolean }>;
  lastHeartbeat: number;
  events: Promise<unknown> | null;
  probe: Promise<unknown> | null;
  /** It is to go to another worker as soon as nothing runs in it. */
  leaving: boolean;
};

/** The accounts that this worker sends for, each on its own: a slow or dead one keeps no other one waiting. */
export class Lanes {
  readonly #worker: string;
  readonly #log: Logger;
  readonly #lanes = new Map<number, LaneState>();
  #share = Number.POSITIVE_INFINITY;
  #lastCount = 0;

  constructor(worker: string, log: Logger) {
    this.#worker = worker;
    this.#log = log;
  }

  /** Everything under way. */
  get running(): Promise<void>[] {
    return [...this.#lanes.values()].flatMap((lane) => [...lane.running.values()].map((one) => one.work));
  }

  /** Workers share the accounts evenly: one that has more than its share gives some up, and takes no more than that. */
  async balance(accounts: AccountRow[]): Promise<void> {
    if (Date.now() - this.#lastCount < heartbeatMs) return;
    this.#lastCount = Date.now();
    this.#share = Math.ceil(accounts.length / (await bePresent(this.#worker)));
    const held = [...this.#lanes.entries()];
    for (const [, lane] of held.slice(0, this.#share)) lane.leaving = false;
    for (const [id, lane] of held.slice(this.#share)) {
      lane.leaving = true;
      if (lane.running.size > 0 || lane.events) continue;
      this.#lanes.delete(id);
      await giveLane(id, this.#worker);
    }
  }

  /** Starts what is due on one account, as many at a time as its lane bears. Never waits for the jobs themselves. */
  async tend(row: AccountRow, due: Due): Promise<void> {
    const lane = await this.#hold(row);
    if (!lane) return;
    learnHealth(row);
    if (due.events)
      lane.events ??= workInbox(row.id, this.#log)
        .catch((error: unknown) => this.#log.error({ error: String(error) }, 'inbox'))
        .finally(() => {
          lane.events = null;
        });
    if (row.state !== 'connected') return;
    const may = permission(row, new Date());
    if (may === 'probe') lane.probe ??= this.#probe(row).finally(() => (lane.probe = null));
    if (may !== 'send' || row.pausedAt || (row.lockedUntil && row.lockedUntil.getTime() > Date.now())) return;
    if (!due.jobs) return;
    const jobs = await this.#claim(row, lane);
    if (jobs.length === 0) return;
    const [loaded] = await loadAccounts(database(), [row.id]);
    if (!loaded) return;
    const { perMinute } = paceOn(loaded.compiled.rules.pacing, row.ownPace ?? fullPace, new Date());
    for (const job of jobs) {
      const urgent = job.priority <= urgentPriority;
      const session = sessionFor(loaded.row, perMinute * underRate, urgent);
      const work = runJob({ account: loaded, session, worker: this.#worker }, job)
        .catch((error: unknown) =>
          this.#log.error(
            { job: job.id, error: error instanceof Error ? error.stack : String(error) },
            'job interrupted',
          ),
        )
        .finally(() => lane.running.delete(job.id));
      lane.running.set(job.id, { work, urgent });
    }
  }

  /** Takes or renews the lane's lease now and then; null when another worker has it. */
  async #hold(row: AccountRow): Promise<LaneState | null> {
    const known = this.#lanes.get(row.id);
    if (!known && this.#lanes.size >= this.#share) return null;
    const lane = known ?? { running: new Map(), lastHeartbeat: 0, events: null, probe: null, leaving: false };
    if (Date.now() - lane.lastHeartbeat <= heartbeatMs) return lane;
    if (!(await takeLane(row.id, this.#worker))) {
      this.#lanes.delete(row.id);
      return null;
    }
    lane.lastHeartbeat = Date.now();
    if (!known) forgetPlaces(row.id);
    this.#lanes.set(row.id, lane);
    const { honoursIdempotencyKey } = connectorOf(row.market);
    const back = await reclaimJobs(row.id, this.#worker, [...lane.running.keys()], honoursIdempotencyKey);
    if (back) this.#log.info({ account: row.name, back }, 'jobs taken over');
    if (permission(row, new Date()) === 'send') void pollOrders(row, this.#log);
    return lane;
  }

  async #claim(row: AccountRow, lane: LaneState): Promise<JobRow[]> {
    const all = [...lane.running.values()];
    const urgentNow = all.filter((one) => one.urgent).length;
    const free = (connectorOf(row.market).linesAtOnce ?? concurrency) - (all.length - urgentNow);
    const urgentFree = urgentPlaces - urgentNow;
    const urgent = urgentFree > 0 ? await claimJobs(row.id, this.#worker, urgentFree, 'urgent') : [];
    // A lane that is to go to another worker does only what cannot wait until it is there.
    const others =
      free > 0 && !lane.leaving ? await claimJobs(row.id, this.#worker, Math.min(free, 300), 'others') : [];
    return [...urgent, ...others];
  }

  /** One small question; what comes of it is noted by the session itself. */
  async #probe(row: AccountRow): Promise<void> {
    try {
      const session = sessionFor(row, 60, true);
      await connectorOf(row.market).readAccount(session);
      this.#log.info({ account: row.name }, 'answers again');
      // Whoever asked to wait until they are well goes on now.
      await database().update(account).set({ lastError: null }).where(eq(account.id, row.id));
    } catch (error) {
      this.#log.info({ account: row.name, error: String(error) }, 'does not answer yet');
    }
  }
}
