import { eq, sql } from 'drizzle-orm';
import { NettingError } from '../../../core/errors';
import { type Tx, transaction } from '../../../db/client';
import { rowsOf } from '../../../db/rows';
import { run } from '../../../db/schema';
import type { Actor } from '../../access/actor';
import { isThere } from '../../records/items/is-there';
import { endWhere } from './end-listings';
import { publish } from './publish';

/** Knots of a product that are left out may be so many at most. */
const mostWithout = 10_000;

/** What a run ended and nobody wants live since, to be listed again. */
async function listAgain(tx: Tx, actor: Actor, runId: number): Promise<{ runId: number; queued: number }> {
  const ended = rowsOf<{ itemId: number; accountId: number }>(
    await tx.execute(sql`
      select distinct l.item_id as itemId, l.account_id as accountId from listing l join job j on j.listing_id = l.id
      where j.run_id = ${runId} and j.outcome = 'ended' and l.wanted = 'ended' and not ${isThere}`),
  );
  if (ended.length === 0) throw new NettingError('invalid', 'Nothing of what this ended is still ended');
  const known = new Set(ended.map((one) => `${one.itemId}/${one.accountId}`));
  const items = [...new Set(ended.map((one) => one.itemId))];
  const accounts = [...new Set(ended.map((one) => one.accountId))];
  if (items.length * accounts.length - known.size > mostWithout)
    throw new NettingError('invalid', 'These are too many to be listed again in one go', {
      fix: 'Choose them in the inventory and publish them',
    });
  const without = items.flatMap((itemId) =>
    accounts.flatMap((accountId) => (known.has(`${itemId}/${accountId}`) ? [] : [{ itemId, accountId }])),
  );
  const { runId: again, queued } = await publish(
    actor,
    { selection: { kind: 'items', ids: items }, accounts, without, as: 'live' },
    tx,
  );
  return { runId: again, queued };
}

/**
 * Takes back what was sent in one go: ends what a publishing listed and still stands there, lists again what an ending
 * ended. What was listed before the publishing and only changed by it stays; what was sold stays sold.
 */
export async function takeBackSending(actor: Actor, runId: number): Promise<{ runId: number; queued: number }> {
  return transaction(async (tx) => {
    const [original] = await tx.select().from(run).where(eq(run.id, runId)).for('update');
    if (!original) throw new NettingError('not-found', 'There is no such run');
    if (original.undoneBy) throw new NettingError('too-late', 'This was taken back already');
    if (original.kind !== 'publish' && original.kind !== 'end')
      throw new NettingError('invalid', 'Only what was published or ended is taken back this way');
    const listed = sql`l.id in (select j.listing_id from job j where j.run_id = ${runId} and (j.outcome = 'created' or (j.state in ('waiting', 'held', 'running') and not ${isThere})))`;
    const back =
      original.kind === 'publish'
        ? await endWhere(tx, actor, listed, { takesBack: runId })
        : await listAgain(tx, actor, runId);
    await tx.update(run).set({ undoneBy: back.runId }).where(eq(run.id, runId));
    return back;
  });
}
