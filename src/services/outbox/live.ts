import { sql } from 'drizzle-orm';
import { z } from 'zod';
import { database } from '../../db/client';
import { rowsOf } from '../../db/rows';
import { progress, sendingProgressSchema } from './sending-progress';
/** What a page that is open is told: how the sending stands, and which kinds of things have changed since the last time. */
export const liveNewsSchema = z.object({
  progress: sendingProgressSchema,
  changed: z.array(z.enum(['jobs', 'sales', 'items'])),
});
export type LiveNews = z.infer<typeof liveNewsSchema>;

type Marks = { jobs: string; sales: string; items: string };
type Subscriber = (news: LiveNews) => void;

const everyMs = 400;

async function marks(): Promise<Marks> {
  const [row] = rowsOf<Marks>(
    await database().execute(sql`select
      concat_ws('/', (select max(id) from job), (select max(finished_at) from job), (select count(*) from job where state in ('running', 'held'))) as jobs,
      concat_ws('/', (select max(id) from sale), (select max(id) from change_record)) as sales,
      concat_ws('/', (select max(id) from change_record), (select max(updated_at) from item where archived = 0), (select max(id) from inbox), (select count(*) from inbox where state = 'waiting')) as items`),
  );
  return row ?? { jobs: '', sales: '', items: '' };
}

/** One look at the database serves every open page of this process; without open pages nothing is asked. */
class Live {
  readonly #subscribers = new Set<Subscriber>();
  #timer: NodeJS.Timeout | null = null;
  #last: Marks | null = null;
  #lastProgress = '';

  subscribe(tell: Subscriber): () => void {
    this.#subscribers.add(tell);
    // A new page is told everything at once.
    this.#lastProgress = '';
    this.#timer ??= setTimeout(() => void this.#look(), 0);
    return () => this.#subscribers.delete(tell);
  }

  async #look(): Promise<void> {
    try {
      const [now, how] = await Promise.all([marks(), progress()]);
      const before = this.#last;
      const changed = before ? (['jobs', 'sales', 'items'] as const).filter((name) => before[name] !== now[name]) : [];
      const shown = JSON.stringify(how);
      if (changed.length || shown !== this.#lastProgress)
        for (const tell of this.#subscribers) tell({ progress: how, changed });
      this.#last = now;
      this.#lastProgress = shown;
    } catch {
      // The database is away for the moment; the pages keep what they show and are told when it is back.
    }
    this.#timer = this.#subscribers.size > 0 ? setTimeout(() => void this.#look(), everyMs) : null;
    if (!this.#timer) this.#last = null;
  }
}

// Next.js may load this module more than once a process; the look-out must stay one.
const kept = globalThis as typeof globalThis & { nettingLive?: Live };

/** Calls back with news until it is called off. */
export function subscribeLive(tell: Subscriber): () => void {
  kept.nettingLive ??= new Live();
  return kept.nettingLive.subscribe(tell);
}
