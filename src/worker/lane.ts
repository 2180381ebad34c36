import { eq } from 'drizzle-orm';
import type { Logger } from 'pino';
import { fullPace, paceOn, permission, priorities } from '../core/sync';
import { database } from '../db/client';
import type { AccountRow } from '../db/schema';
import { account } from '../db/schema';
import { connectorOf } from '../markets';
import { learnHealth } from '../services/access/market-health';
import { sessionFor } from '../services/access/market-session';
import { AccountLoader } from './account-loader';
import { claimOthers, claimUrgent, type JobRow } from './claim';
import { workInbox } from './inbox';
import {
  bePresent,
  type Due,
  giveLane,
  keepLanes,
  nothingDue,
  type Running,
  reclaimJobs,
  runningJobs,
  takeLane,
} from './lanes';
import { Lease } from './lease';
import { forgetPlaces } from './new-listings';
import { pollOrders } from './poll';
import { runJob } from './send';

const concurrency = 6;
/** Ends and lower quantities never wait for a place. */
const urgentPlaces = 8;
/** What can wait goes on beside what is urgent, however many sales there are, but slowly. */
const placesUnderPressure = 1;
const mostClaimed = 300;
const heartbeatMs = 2_000;
/** Just below what is allowed: clocks differ. */
const underRate = 0.98;

type Which = 'urgent' | 'others';

type LaneState = {
  running: Map<number, { work: Promise<void>; urgent: boolean }>;
  lease: Lease;
  /** What is being taken from the line right now. */
  claiming: Record<Which, Promise<void> | null>;
  events: Promise<unknown> | null;
  probe: Promise<unknown> | null;
  /** It is to go to another worker as soon as nothing runs in it. */
  leaving: boolean;
};

const isUrgent = (job: JobRow) => job.priority <= priorities.quantity;

/** The accounts that this worker sends for, each on its own: a slow or dead one keeps no other one waiting. */
export class Lanes {
  readonly #worker: string;
  readonly #log: Logger;
  readonly #wake: () => void;
  readonly #lanes = new Map<number, LaneState>();
  #lastHeartbeat = 0;
  /** Something urgent is under way on some account: what can wait leaves it the processor. */
  #isPressed = false;
  /** Jobs, each with the number of its claim, that the last look found taken by this worker and not under way. */
  #missing = new Set<string>();
  readonly #accounts = new AccountLoader();

  /** @param wake called when something may be due at once, such as what a sale has brought about */
  constructor(worker: string, log: Logger, wake: () => void) {
    this.#worker = worker;
    this.#log = log;
    this.#wake = wake;
  }

  /** Everything under way. */
  get running(): Promise<void>[] {
    return [...this.#lanes.values()].flatMap((lane) => [...lane.running.values()].map((one) => one.work));
  }

  /**
   * Now and then: says that the lanes are held, takes those that are free, gives some up when there are more workers, and
   * asks for orders. Workers share the accounts evenly.
   */
  async keep(accounts: AccountRow[]): Promise<void> {
    if (Date.now() - this.#lastHeartbeat < heartbeatMs) return;
    this.#lastHeartbeat = Date.now();
    const share = Math.ceil(accounts.length / (await bePresent(this.#worker)));
    await this.#renew();
    const held = [...this.#lanes.entries()];
    for (const [, lane] of held.slice(0, share)) lane.leaving = false;
    for (const [id, lane] of held.slice(share)) {
      lane.leaving = true;
      if (lane.running.size > 0 || lane.events || lane.claiming.urgent || lane.claiming.others) continue;
      this.#lanes.delete(id);
      await giveLane(id, this.#worker);
    }
    for (const row of accounts) if (this.#lanes.size < share && !this.#lanes.has(row.id)) await this.#take(row);
    await this.#putBack(accounts);
    for (const row of accounts) {
      if (!this.#lanes.has(row.id)) continue;
      learnHealth(row);
      if (permission(row, new Date()) === 'send') void pollOrders(row, this.#log);
    }
  }

  /** What another worker has taken meanwhile is not this one's any more. */
  async #renew(): Promise<void> {
    if (this.#lanes.size === 0) return;
    const asked = [...this.#lanes.values()].map((lane) => ({ lane, at: lane.lease.ask() }));
    const kept = await keepLanes([...this.#lanes.keys()], this.#worker);
    for (const [id] of this.#lanes) if (!kept.has(id)) this.#lanes.delete(id);
    const still = new Set(this.#lanes.values());
    for (const { lane, at } of asked) if (still.has(lane)) lane.lease.renewed(at);
  }

  async #take(row: AccountRow): Promise<void> {
    const lane: LaneState = {
      running: new Map(),
      lease: new Lease(),
      claiming: { urgent: null, others: null },
      events: null,
      probe: null,
      leaving: false,
    };
    const at = lane.lease.ask();
    if (!(await takeLane(row.id, this.#worker))) return;
    lane.lease.renewed(at);
    forgetPlaces(row.id);
    this.#lanes.set(row.id, lane);
  }

  /**
   * Jobs that nobody has under way any more go back into the line: at once those of a worker that is gone; those that this
   * one took itself and does not know of, when the next look still finds them so, since they may just be taken.
   */
  async #putBack(accounts: AccountRow[]): Promise<void> {
    const before = this.#missing;
    const rows = await runningJobs([...this.#lanes.keys()]);
    const isOwn = (row: Running) => row.leaseOwner === this.#worker;
    const missing = rows.filter((row) => isOwn(row) && !this.#lanes.get(row.accountId)?.running.has(row.id));
    this.#missing = new Set(missing.map((row) => `${row.id}/${row.lease}`));
    const lost = [
      ...rows.filter((row) => !isOwn(row)),
      ...missing.filter((row) => before.has(`${row.id}/${row.lease}`)),
    ];
    for (const { id, market, name } of accounts) {
      const here = lost.filter((row) => row.accountId === id);
      if (here.length === 0) continue;
      const back = await reclaimJobs(here, connectorOf(market).honoursIdempotencyKey);
      this.#log.info({ account: name, back }, 'jobs taken over');
    }
  }

  /** Starts what is due, as much at a time as each lane bears; what is urgent first. Never waits for the jobs themselves. */
  tend(accounts: AccountRow[], due: ReadonlyMap<number, Due>): void {
    const open: { row: AccountRow; lane: LaneState; due: Due }[] = [];
    for (const row of accounts) {
      const lane = this.#lanes.get(row.id);
      if (!lane) continue;
      const what = due.get(row.id) ?? nothingDue;
      if (what.events) this.#hear(row, lane);
      if (row.state !== 'connected' || row.restoredAt) continue;
      const may = permission(row, new Date());
      if (may === 'probe') lane.probe ??= this.#probe(row).finally(() => (lane.probe = null));
      if (may !== 'send' || row.pausedAt || (row.lockedUntil && row.lockedUntil.getTime() > Date.now())) continue;
      open.push({ row, lane, due: what });
    }
    this.#isPressed =
      [...due.values()].some((what) => what.urgent || what.events) ||
      [...this.#lanes.values()].some((lane) => [...lane.running.values()].some((one) => one.urgent));
    for (const { row, lane, due: what } of open) {
      if (what.urgent) this.#begin(row, lane, 'urgent');
      // What can wait is taken beside: it does not keep what is urgent waiting.
      if (what.others) this.#begin(row, lane, 'others');
    }
  }

  /** One account's claiming keeps no other one waiting, however long what it wants is held. */
  #begin(row: AccountRow, lane: LaneState, which: Which): void {
    lane.claiming[which] ??= this.#start(row, lane, which)
      .catch((error: unknown) => this.#log.error({ error: String(error) }, 'lanes'))
      .finally(() => {
        lane.claiming[which] = null;
      });
  }

  #hear(row: AccountRow, lane: LaneState): void {
    lane.events ??= workInbox(row.id, this.#log)
      .catch((error: unknown) => this.#log.error({ error: String(error) }, 'inbox'))
      .finally(() => {
        lane.events = null;
        this.#wake();
      });
  }

  async #start(row: AccountRow, lane: LaneState, which: Which): Promise<void> {
    const jobs = await this.#claim(row, lane, which);
    if (jobs.length === 0) return;
    const found = await this.#accounts.load(row.id);
    if (!found) return;
    const { perMinute } = paceOn(found.compiled.rules.pacing, row.ownPace ?? fullPace, new Date());
    for (const job of jobs) {
      const urgent = isUrgent(job);
      const session = sessionFor(found.row, perMinute * underRate, urgent, () => lane.lease.holds);
      const work = runJob({ account: found, session, worker: this.#worker }, job)
        .catch((error: unknown) =>
          this.#log.error(
            { job: job.id, error: error instanceof Error ? error.stack : String(error) },
            'job interrupted',
          ),
        )
        .finally(() => {
          lane.running.delete(job.id);
          this.#wake();
        });
      lane.running.set(job.id, { work, urgent });
    }
  }

  async #claim(row: AccountRow, lane: LaneState, which: Which): Promise<JobRow[]> {
    const all = [...lane.running.values()];
    const urgentNow = all.filter((one) => one.urgent).length;
    const usual = connectorOf(row.market).linesAtOnce ?? concurrency;
    const places = this.#isPressed ? Math.min(placesUnderPressure, usual) : usual;
    // A lane that is to go to another worker does only what cannot wait until it is there.
    const free = which === 'urgent' ? urgentPlaces - urgentNow : lane.leaving ? 0 : places - (all.length - urgentNow);
    if (free <= 0) return [];
    return which === 'urgent'
      ? claimUrgent(row.id, this.#worker, free)
      : claimOthers(row.id, this.#worker, Math.min(free, mostClaimed));
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
