import { and, asc, eq, inArray, sql } from 'drizzle-orm';
import { joinSources, type Source, toldBy } from '../../core/gather';
import type { ItemPatch } from '../../core/item';
import type { Executor, Tx } from '../../db/client';
import { type FoundRow, foundListing, gatheredItem, item, listing, usedSku } from '../../db/schema';
import { commitItems } from '../changes/commit/commit-items';
import { createItemWithin } from '../items/create-item';
import { madeKey } from '../records/items/made-key';
import { knownPhotos } from '../records/photos/known-photos';
import { fillable } from './fillable';
import type { Maker } from './maker';
import { tieThing } from './tie-thing';

/** The same listing makes one item, however often it is brought in. */
const keyOf = ({ accountId, remoteId }: FoundRow): string => madeKey(`found ${accountId} ${remoteId}`);

async function sourcesOf(db: Executor, rows: readonly FoundRow[], { accounts }: Maker): Promise<Source[]> {
  const hashes = rows.flatMap((row) => row.hashes ?? []).filter((one) => one !== null);
  const photos = new Map((await knownPhotos(db, hashes)).map((one) => [one.hash, one]));
  return rows.flatMap((row): Source[] => {
    const account = accounts.get(row.accountId);
    if (!account) return [];
    const told = toldBy(row.content, account, row.facts.called);
    // What is sold is not there any more.
    const isSold = row.state === 'sold';
    return [
      {
        id: account.name,
        told: isSold ? { ...told, quantity: 0, isCapped: false } : told,
        photos: (row.hashes ?? []).flatMap((hash) => photos.get(hash ?? '') ?? []),
      },
    ];
  });
}

/** A stock number that was given before is not taken over; the item gets a new one, as any other. */
async function freeNumbers(tx: Tx, fields: ItemPatch): Promise<ItemPatch> {
  const numbers = [fields.sku ?? '', ...(fields.variations ?? []).map((row) => row.sku)].filter(Boolean);
  if (numbers.length === 0) return fields;
  const given = await tx.select({ sku: usedSku.sku }).from(usedSku).where(inArray(usedSku.sku, numbers));
  const taken = new Set(given.map((row) => row.sku.toLowerCase()));
  const seen = new Set<string>();
  const free = (sku: string) => {
    const key = sku.toLowerCase();
    if (!sku || taken.has(key) || seen.has(key)) return '';
    seen.add(key);
    return sku;
  };
  const { sku: wished, ...rest } = fields;
  const sku = free(wished ?? '');
  return {
    ...rest,
    ...(sku ? { sku } : {}),
    ...(fields.variations ? { variations: fields.variations.map((row) => ({ ...row, sku: free(row.sku) })) } : {}),
  };
}

/**
 * Brings one thing in, in one transaction: an item of its listings, made or joined to one that is there, each of them
 * linked, and whatever one says otherwise kept for its account alone. Nothing is sent.
 * @returns how many listings it was
 */
export async function makeThing(tx: Tx, thing: number, maker: Maker): Promise<number> {
  const { gatheringId, actor, prefer, accounts } = maker;
  // One after the other, whoever brings the same ones in.
  const held = await tx
    .select()
    .from(foundListing)
    .where(and(eq(foundListing.gatheringId, gatheringId), eq(foundListing.thing, thing)))
    .orderBy(asc(foundListing.id))
    .for('update');
  const rows = await notIn(
    tx,
    held.filter((row) => row.itemId === null && row.state !== 'gone'),
  );
  const [first] = rows;
  if (!first) return 0;
  const joined = joinSources(await sourcesOf(tx, rows, maker), prefer);
  const at = new Date();
  const options = { actor, why: 'import' as const, at, send: 'falls' as const, accounts: [...accounts.values()] };
  const before = await madeBefore(tx, keyOf(first));
  const wished = rows.find((row) => row.joinItem !== null)?.joinItem ?? null;
  const known = (wished !== null && (await isActive(tx, wished)) ? wished : null) ?? before.itemId;
  let itemId: number;
  let photos = joined.photos;
  if (known === null) {
    const fields = await freeNumbers(tx, joined.fields);
    const key = before.isTaken ? undefined : keyOf(first);
    const made = await createItemWithin(
      tx,
      actor,
      { fields, quantity: joined.quantity, key },
      { known: options.accounts },
    );
    itemId = made.id;
  } else {
    itemId = known;
    const { fields, hasPhotos } = await fillable(tx, known, joined.fields, accounts);
    if (hasPhotos) photos = [];
    const more = Object.entries(fields);
    if (more.length)
      await commitItems(
        tx,
        [itemId],
        () => more.map(([field, to]) => ({ target: { item: itemId }, field, to: to ?? null })),
        options,
      );
  }
  await tieThing(tx, { itemId, rows, photos }, maker);
  await tx
    .insert(gatheredItem)
    .values({
      gatheringId,
      itemId,
      isNew: known === null,
      taken: joined.from,
      said: joined.stockSaid?.slice(0, 300) ?? (known === null ? null : await stockApart(tx, itemId, rows)),
    })
    .onDuplicateKeyUpdate({ set: { taken: sql`values(\`taken\`)` } });
  return rows.length;
}

/** The item that was made of it before, where it was taken apart since; one that was put away stays so. */
async function madeBefore(tx: Tx, key: string): Promise<{ itemId: number | null; isTaken: boolean }> {
  const [row] = await tx.select({ id: item.id, standing: item.standing }).from(item).where(eq(item.madeBy, key));
  return { itemId: row?.standing === 'active' ? row.id : null, isTaken: row !== undefined };
}

const isActive = async (tx: Tx, id: number): Promise<boolean> => {
  const [row] = await tx.select({ standing: item.standing }).from(item).where(eq(item.id, id));
  return row?.standing === 'active';
};

/** What is offered beyond what an item of ours has; it is lowered when that is sent next. */
async function stockApart(tx: Tx, itemId: number, rows: readonly FoundRow[]): Promise<string | null> {
  const [row] = await tx.select({ quantity: item.quantity }).from(item).where(eq(item.id, itemId));
  const most = Math.max(0, ...rows.map((one) => one.quantity ?? 0));
  const here = row?.quantity ?? 0;
  return most > here ? `${most} are offered there, ${here} are here` : null;
}

/** Without those that were linked meanwhile, which are noted. */
async function notIn(tx: Tx, rows: readonly FoundRow[]): Promise<FoundRow[]> {
  const open: FoundRow[] = [];
  for (const row of rows) {
    const [link] = await tx
      .select({ itemId: listing.itemId })
      .from(listing)
      .where(and(eq(listing.accountId, row.accountId), eq(listing.remoteId, row.remoteId)));
    if (link) await tx.update(foundListing).set({ itemId: link.itemId }).where(eq(foundListing.id, row.id));
    else open.push(row);
  }
  return open;
}
