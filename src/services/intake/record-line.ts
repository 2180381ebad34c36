import { eq, sql } from 'drizzle-orm';
import type { Scan } from '../../core/barcode';
import { type IntakeSettings, needsSales, noteOf, priceByRule } from '../../core/batch';
import type { ItemPatch } from '../../core/item';
import { homeCurrency } from '../../core/measure';
import type { Tx } from '../../db/client';
import { type BatchLineRow, type BatchRow, batchLine, run } from '../../db/schema';
import type { Actor } from '../access/actor';
import { commitItems } from '../changes/commit/commit-items';
import type { Numbering } from '../changes/commit/free-sku';
import { recordChanges } from '../changes/commit/record-changes';
import { allCommitted } from '../changes/commit/refusal-error';
import { createItemWithin } from '../items/create-item';
import type { LoadedAccount } from '../records/accounts/load-accounts';
import { codeOf } from '../records/batches/load-batch';
import type { KnownBefore } from './known-before';
import { type KnownPiece, pieceOfCode, pieceOfNumber } from './known-piece';
import { printLine } from './print-line';

/** What a line is recorded from. */
export type Recording = {
  actor: Actor;
  batch: BatchRow;
  key: string;
  /** As it came. */
  text: string;
  scan: Scan;
  settings: IntakeSettings;
  shop: ShopNow;
};
/** What recording asks of the shop: once for all that is recorded in the same transaction. */
export type ShopNow = {
  /** Every account as it is; who records asks once more before it commits. */
  accounts: LoadedAccount[];
  numbers: Numbering;
  known: KnownBefore;
};
type NewLine = Omit<BatchLineRow, 'id'>;
/** What a recorded scan became. */
type Became = Pick<NewLine, 'kind' | 'finding' | 'said' | 'itemId' | 'lookAt'> & Partial<NewLine>;

/**
 * Records a scan: units for what is known, a new item for what is not, a line that waits for a person for what is no code.
 * Who records counts the pieces in the batch's run, by `countPieces`.
 * @param place the line in whose place it stands, when it is read again
 */
export async function recordLine(
  tx: Tx,
  recording: Recording,
  place?: Pick<BatchLineRow, 'id' | 'at'>,
): Promise<{ id: number; isPiece: boolean }> {
  const { actor, batch, key, text, scan, settings } = recording;
  const at = new Date();
  const became = await become(tx, recording);
  const isNew = became.kind === 'item';
  const isAsked = isNew || became.kind === 'none';
  const [{ insertId }] = await tx.insert(batchLine).values({
    batchId: batch.id,
    key,
    scanned: text.slice(0, 200),
    code: scan.is === 'code' ? scan.code : '',
    combination: null,
    units: settings.quantity,
    unitsBefore: null,
    costBefore: null,
    settings,
    asksGrade: isAsked && settings.asksGrade,
    asksPrice: isAsked && settings.asksPrice,
    found: [],
    sales: null,
    silent: [],
    doneAt: became.lookAt === null ? at : null,
    byName: actor.name,
    at,
    ...became,
    ...place,
  });
  if (became.lookAt === null)
    await printLine(tx, {
      settings,
      units: settings.quantity,
      byName: actor.name,
      scanned: text,
      itemId: became.itemId,
    });
  return { id: insertId, isPiece: became.kind !== 'none' };
}

/** So many more pieces belong to the batch. */
export async function countPieces(tx: Tx, runId: number, pieces: number): Promise<void> {
  if (pieces > 0)
    await tx
      .update(run)
      .set({ itemCount: sql`${run.itemCount} + ${pieces}` })
      .where(eq(run.id, runId));
}

async function become(tx: Tx, recording: Recording): Promise<Became> {
  const { scan, settings, text, shop } = recording;
  const numbered = shop.known.isNumber(text.trim()) ? await pieceOfNumber(tx, text.trim()) : null;
  if (typeof numbered === 'string')
    return { kind: 'none', finding: 'broken', said: numbered, itemId: null, lookAt: null };
  if (numbered) return addUnits(tx, recording, numbered);
  if (scan.is === 'broken') return { kind: 'none', finding: 'broken', said: scan.why, itemId: null, lookAt: null };
  const at = new Date();
  if (scan.is === 'words') {
    const itemId = await newItem(tx, recording, { title: scan.words });
    return { kind: 'item', finding: 'looking', said: '', itemId, lookAt: at };
  }
  const known = shop.known.isInStock(scan.code) ? await pieceOfCode(tx, scan.code, settings.grade) : null;
  if (known && !known.isOtherGrade) return addUnits(tx, recording, known);
  const facts: ItemPatch = {
    barcode: scan.code,
    ...(scan.expiresOn ? { expiresOn: scan.expiresOn } : {}),
    ...(scan.printedPrice?.currency === homeCurrency ? { retailPrice: scan.printedPrice.amount } : {}),
  };
  const mended = scan.mended ?? '';
  if (known) {
    const itemId = await newItem(tx, recording, facts, known.itemId);
    const lookAt = needsSales(settings) ? at : null;
    const said = [mended, 'Known in another condition: its words are taken over'].filter(Boolean).join('. ');
    return { kind: 'item', finding: 'known', said, itemId, lookAt };
  }
  const learned = shop.known.nameOf(scan.code);
  const itemId = await newItem(tx, recording, { ...facts, ...(learned ? { title: learned } : {}) });
  return { kind: 'item', finding: 'looking', said: mended, itemId, lookAt: at };
}

async function newItem(tx: Tx, recording: Recording, facts: ItemPatch, copyOf?: number): Promise<number> {
  const { actor, batch, key, settings, shop } = recording;
  const { supplier, boughtOn } = batch;
  const price = priceByRule(settings.price, { cost: settings.cost, median: null });
  const fields: ItemPatch = {
    supplier,
    boughtOn,
    batch: codeOf(batch.id),
    condition: settings.grade,
    conditionNote: noteOf(settings.snippets, settings.snippets, settings.besides),
    location: settings.place,
    ...(settings.category ? { category: settings.category } : {}),
    ...(settings.cost === null ? {} : { cost: settings.cost }),
    // What the other piece costs says nothing of this one.
    ...(price !== null || copyOf !== undefined ? { price } : {}),
    ...facts,
  };
  const { id, sku } = await createItemWithin(
    tx,
    actor,
    { fields, quantity: settings.quantity, copyOf, key },
    { numbers: shop.numbers, meantFor: settings.accounts, asked: shop.accounts },
  );
  shop.known.recorded(sku, facts.barcode ?? '');
  // Taken back with the batch, it is gone from the inventory again.
  const context = { actor, why: 'scan' as const, at: new Date(), runId: batch.runId };
  await recordChanges(tx, context, [{ itemId: id, itemVersion: 1, field: 'standing', from: 'deleted', to: 'active' }]);
  return id;
}

/** Units for an item that is there already; it keeps its own words, price and place. */
async function addUnits(tx: Tx, recording: Recording, known: KnownPiece): Promise<Became> {
  const { actor, batch, settings, shop } = recording;
  const { itemId, combination } = known;
  const before = { units: 0, cost: null as number | null, sku: '' };
  allCommitted(
    await commitItems(
      tx,
      [itemId],
      ({ items: [item] }) => {
        const row = item?.variations.find((one) => one.key === combination);
        before.units = row?.quantity ?? item?.quantity ?? 0;
        before.cost = item?.cost ?? null;
        before.sku = row?.sku || item?.sku || '';
        const target = combination === null ? { item: itemId } : { item: itemId, combination };
        return [{ target, field: 'quantity', to: before.units + settings.quantity }];
      },
      {
        actor,
        why: 'scan',
        at: new Date(),
        runId: batch.runId,
        send: 'stock',
        stock: { reason: 'bought', note: batch.name.slice(0, 200) },
        accounts: shop.accounts,
      },
    ),
  );
  const now = before.units + settings.quantity;
  return {
    kind: 'stock',
    finding: 'known',
    said: `In stock as ${before.sku}: ${before.units} + ${settings.quantity} = ${now}`,
    itemId,
    combination,
    unitsBefore: before.units,
    costBefore: before.cost,
    lookAt: null,
  };
}
