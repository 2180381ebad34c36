import { eq, sql } from 'drizzle-orm';
import type { Change } from '../../core/change';
import { type EditedField, editedFields } from '../../core/kit';
import type { Tx } from '../../db/client';
import { kitLot } from '../../db/schema';
import { commitItems } from '../changes/commit/commit-items';
import { loadAccounts } from '../records/accounts/load-accounts';
import type { LotNow } from './find-kit';
import type { LotsResult, Portion } from './lots-task';
import { matchStock } from './match-stock';

/** Changes what is in stock by what its lots say by now; nothing is added. */
export async function changePortion(
  tx: Tx,
  { actor, kit, input, runId, lots }: Portion<'change'>,
): Promise<LotsResult> {
  const result: LotsResult = { made: 0, added: 0, changed: 0, items: 0, left: [] };
  const account = (await loadAccounts(tx)).find((one) => one.id === kit.accountId);
  const same = await matchStock(
    tx,
    account,
    lots.filter((lot) => lot.itemId === null),
  );
  const meant = lots.flatMap((lot) => {
    const item = lot.itemId ?? same.get(lot.id)?.id;
    if (item !== undefined) return [{ lot, item }];
    result.left.push({ lot: lot.id, name: lot.name, why: 'It is not in stock: add it' });
    return [];
  });
  if (meant.length === 0) return result;
  const { refused } = await commitItems(
    tx,
    meant.map((one) => one.item),
    () => meant.flatMap(({ lot, item }) => changesOf(lot, item, account?.id, input.units)),
    { actor, why: 'bulk', at: new Date(), runId, send: 'all', stock: { reason: 'set' } },
  );
  for (const { lot, item } of meant) {
    const no = refused.find((one) => one.item === item);
    if (no) {
      result.left.push({ lot: lot.id, name: lot.name, why: no.why });
      continue;
    }
    const isList = lot.state !== 'done' && lot.meant === 'change';
    await tx
      .update(kitLot)
      .set({
        edited: [],
        version: sql`${kitLot.version} + 1`,
        // What was a list of changes is done; more pieces that only lent their price are still to be added.
        ...(isList ? { state: 'done' as const, itemId: item, runId } : {}),
      })
      .where(eq(kitLot.id, lot.id));
    result.changed++;
    result.items++;
  }
  return result;
}

function changesOf(lot: LotNow, item: number, account: number | undefined, units: boolean): Change[] {
  // Of one that went in from here only what was written since; a list says what it says.
  const said = (field: EditedField) =>
    lot.state === 'done'
      ? lot.edited.includes(field)
      : field === 'price'
        ? lot.price !== null
        : field === 'tiers'
          ? lot.tiers.length > 0
          : lot[field] !== '';
  const target = { item };
  return [
    ...editedFields.filter(said).flatMap((field): Change[] => {
      if (field === 'price') return [{ target, field, to: lot.price }];
      if (field === 'place') return [{ target, field: 'location', to: lot.place }];
      if (field === 'comment') return [{ target, field: 'conditionNote', to: lot.comment }];
      return account === undefined ? [] : [{ target: { item, account }, field: 'extra.tiers', to: lot.tiers }];
    }),
    ...(units && lot.state !== 'done' ? [{ target, field: 'quantity', to: lot.quantity }] : []),
  ];
}
