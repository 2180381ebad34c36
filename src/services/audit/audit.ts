import { sql } from 'drizzle-orm';
import { z } from 'zod';
import { priorities } from '../../core/sync';
import { database, transaction } from '../../db/client';
import { rowsOf } from '../../db/rows';
import { setting } from '../../db/schema';
import { systemActor } from '../access/actor';
import { enqueueJobs, stockFields } from '../records/listings/enqueue-jobs';
import { checks, type Finding, staleOffer } from './checks';
import { photoFiles } from './photo-files';

export const auditSchema = z.object({
  /** When it was last looked; null when never. */
  at: z.string().nullable(),
  found: z.array(
    z.object({
      id: z.string(),
      says: z.string(),
      count: z.number(),
      /** Some of them. */
      named: z.array(z.object({ text: z.string(), item: z.number().nullable() })),
      /** How many were put right by queuing what is due. */
      mended: z.number(),
    }),
  ),
});
export type Audit = z.infer<typeof auditSchema>;

/** So many items are looked at in one go. */
const portion = 5_000;
const shown = 20;
const place = 'audit';

async function ranges(): Promise<{ from: number; to: number }[]> {
  const [row] = rowsOf<{ last: number | null }>(await database().execute(sql`select max(id) as last from item`));
  const count = Math.ceil(Number(row?.last ?? 0) / portion);
  return Array.from({ length: count }, (_, at) => ({ from: at * portion + 1, to: (at + 1) * portion }));
}

/** Has what is on offer wrongly told at once. */
const queueOffers = (): Promise<number> =>
  transaction((tx) =>
    enqueueJobs(tx, {
      where: staleOffer,
      priority: sql`if(l.wanted = 'ended' or l.wanted_quantity < 1, ${priorities.end}, ${priorities.quantity})`,
      runId: null,
      only: stockFields,
    }),
  );

/**
 * Looks whether everything adds up: offers, leases, stock, orders, photos, links, access. Items are looked at in portions.
 * @param mend queues what can be put right by sending it
 */
export async function audit({ mend }: { mend: boolean }): Promise<Audit> {
  const parts = await ranges();
  const found: Audit['found'] = [];
  const add = (id: string, says: string, all: Finding[], mended = 0) => {
    if (all.length) found.push({ id, says, count: all.length, named: all.slice(0, shown), mended });
  };
  for (const check of checks) {
    const all: Finding[] = [];
    for (const range of check.byItem ? parts : [{ from: 0, to: 0 }]) all.push(...(await check.look(range)));
    add(check.id, check.says, all, mend && check.id === 'offers' && all.length ? await queueOffers() : 0);
  }
  const { missing, stray } = await photoFiles();
  add('photos', 'A photo has no file', missing);
  add('files', 'A file in the folder of photos belongs to no photo', stray);
  return { at: new Date().toISOString(), found };
}

/** Looks, puts right what can be, and keeps what was found for the page that shows it. */
export async function auditAndKeep(): Promise<Audit> {
  const value = await audit({ mend: true });
  const row = { value, byName: systemActor.name, at: new Date() };
  await database()
    .insert(setting)
    .values({ name: place, ...row })
    .onDuplicateKeyUpdate({ set: row });
  return value;
}

/** What the last audit has found. */
export async function lastAudit(): Promise<Audit> {
  const [row] = await database().select().from(setting).where(sql`name = ${place}`);
  return row ? auditSchema.parse(row.value) : { at: null, found: [] };
}
