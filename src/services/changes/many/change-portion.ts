import { sql } from 'drizzle-orm';
import type { PoolConnection } from 'mysql2/promise';
import type { Change } from '../../../core/change';
import { applySteps, applyToNumbers, asChange, isOnNumbers, type Step } from '../../../core/edit';
import type { Photo } from '../../../core/item';
import { homeCurrency } from '../../../core/measure';
import type { Db } from '../../../db/client';
import { readRows } from '../../../db/raw';
import type { Actor } from '../../access/actor';
import { isInFamily } from '../../records/items/family';
import { isOfSeveral } from '../../records/items/is-artwork';
import { itemRecord } from '../../records/items/item-record';
import { groupByItem } from '../../records/items/load-items';
import { commitItems } from '../commit/commit-items';
import type { SendPart } from '../commit/queue-changes';
import { type Planned, writeNumbers } from '../commit/write-numbers';
import { stepContext } from './step-context';
import { keepMade, photosFor } from './step-photos';

export type PortionOptions = {
  connection: PoolConnection;
  actor: Actor;
  runId: number;
  steps: readonly Step[];
  send: boolean;
  /** Of what goes out only this part. */
  part?: SendPart;
  /** For the test that both ways come to the same. */
  generalOnly?: boolean;
};

export type PortionResult = {
  items: number;
  listings: number;
  reasons: string[];
  /** Pictures that nobody had made before. */
  made: string[];
  /** Clips that are named now, and made afterwards. */
  clips: string[];
};

type Slim = [id: number, price: number | null, quantity: number, varied: number];

/** Holds the items and reads what steps on numbers need. */
const readNumbers = (connection: PoolConnection, ids: readonly number[]) =>
  readRows<Slim>(
    connection,
    sql`select i.id, i.price, i.quantity, (${isOfSeveral} or i.archived <> 0 or ${isInFamily('i')}) from item i where i.id in ${ids} order by i.id for update`,
  );

/**
 * Applies a series of steps to a portion of items, held in the order of their numbers. Prices and units of items without
 * variations that are worked with are written set by set; everything else goes the general way. Both come to the same.
 */
export async function changePortion(db: Db, ids: readonly number[], options: PortionOptions): Promise<PortionResult> {
  const { connection, actor, runId, steps, send, part } = options;
  const general = options.generalOnly === true || part !== undefined || !isOnNumbers(steps);
  const rows = general ? [] : await readNumbers(connection, ids);
  const planned: Planned[] = [];
  const whole: number[] = general ? [...ids] : [];
  const reasons: string[] = [];
  for (const [id, price, quantity, varied] of rows) {
    if (varied === 1) {
      whole.push(id);
      continue;
    }
    const result = applyToNumbers(steps, { price, quantity }, homeCurrency);
    if (result.refused !== null) reasons.push(result.refused);
    if (result.changed.length)
      planned.push({ id, price, newPrice: result.price, quantity, newQuantity: result.quantity });
  }
  const listings = await writeNumbers(db, planned, {
    connection,
    actor,
    runId,
    why: 'bulk',
    send: send ? 'all' : 'falls',
  });
  if (whole.length === 0) return { items: planned.length, listings, reasons, made: [], clips: [] };
  const { context, accounts } = await stepContext(db, steps);
  const photos: Photo[] = [];
  const made: string[] = [];
  const clips: string[] = [];
  const committed = await commitItems(
    db,
    whole,
    async ({ items, listings: rows }) => {
      const byItem = groupByItem(rows);
      const known = await photosFor(db, steps, items, rows);
      const changes = items.flatMap((item): Change[] => {
        const result = applySteps(steps, itemRecord(item, byItem.get(item.id) ?? []), { ...context, photos: known });
        if ('changes' in result) return asChange(result);
        reasons.push(result.refused);
        return [];
      });
      const kept = await keepMade(db, changes, known);
      photos.push(...kept.named);
      made.push(...kept.made);
      clips.push(...kept.clips);
      return changes;
    },
    { actor, why: 'bulk', at: new Date(), runId, send: send ? 'all' : 'falls', part, accounts, photos },
  );
  reasons.push(...committed.refused.map((one) => one.why));
  return {
    items: planned.length + committed.items.filter((one) => one.changes.length).length,
    listings: listings + committed.queued,
    reasons,
    made,
    clips,
  };
}
