import { and, eq, inArray, sql } from 'drizzle-orm';
import { type Scan, spellingsOf } from '../../core/barcode';
import { type IntakeSettings, needsSales, noteOf, priceByRule } from '../../core/batch';
import type { ItemPatch } from '../../core/item';
import { homeCurrency } from '../../core/measure';
import type { Tx } from '../../db/client';
import { type BatchLineRow, type BatchRow, batchLine, mapping, run } from '../../db/schema';
import type { Actor } from '../access/actor';
import { commitItems } from '../changes/commit/commit-items';
import { recordChanges } from '../changes/commit/record-changes';
import { allCommitted } from '../changes/commit/refusal-error';
import { createItemWithin } from '../items/create-item';
import { accountsAtHand } from '../records/accounts/accounts-at-hand';
import { codeOf } from '../records/batches/load-batch';
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
};
type NewLine = Omit<BatchLineRow, 'id'>;
/** What a recorded scan became. */
type Became = Pick<NewLine, 'kind' | 'finding' | 'said' | 'itemId' | 'lookAt'> & Partial<NewLine>;

/**
 * Records a scan: units for what is known, a new item for what is not, a line that waits for a person for what is no code.
 * @param place the line in whose place it stands, when it is read again
 */
export async function recordLine(
  tx: Tx,
  recording: Recording,
  place?: Pick<BatchLineRow, 'id' | 'at'>,
): Promise<number> {
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
  if (became.kind !== 'none')
    await tx
      .update(run)
      .set({ itemCount: sql`${run.itemCount} + 1` })
      .where(eq(run.id, batch.runId));
  return insertId;
}

async function become(tx: Tx, recording: Recording): Promise<Became> {
  const { scan, settings, text } = recording;
  const numbered = await pieceOfNumber(tx, text.trim());
  if (typeof numbered === 'string')
    return { kind: 'none', finding: 'broken', said: numbered, itemId: null, lookAt: null };
  if (numbered) return addUnits(tx, recording, numbered);
  if (scan.is === 'broken') return { kind: 'none', finding: 'broken', said: scan.why, itemId: null, lookAt: null };
  const at = new Date();
  if (scan.is === 'words') {
    const itemId = await newItem(tx, recording, { title: scan.words });
    return { kind: 'item', finding: 'looking', said: '', itemId, lookAt: at };
  }
  const known = await pieceOfCode(tx, scan.code, settings.grade);
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
  const learned = await learnedName(tx, scan.code);
  const itemId = await newItem(tx, recording, { ...facts, ...(learned ? { title: learned } : {}) });
  return { kind: 'item', finding: 'looking', said: mended, itemId, lookAt: at };
}

/** What a catalogue called it when it was found there before. */
async function learnedName(tx: Tx, code: string): Promise<string | null> {
  const sources = spellingsOf(code).map((one) => `code:${one}`);
  const [row] = await tx
    .select({ detail: mapping.detail })
    .from(mapping)
    .where(and(eq(mapping.kind, 'product'), inArray(mapping.source, sources)))
    .limit(1);
  return row?.detail?.name ?? null;
}

async function newItem(tx: Tx, recording: Recording, facts: ItemPatch, copyOf?: number): Promise<number> {
  const { actor, batch, key, settings } = recording;
  const { supplier, boughtOn, skuPattern } = batch;
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
  const { id } = await createItemWithin(
    tx,
    actor,
    { fields, quantity: settings.quantity, copyOf, key },
    { skuPattern, meantFor: settings.accounts, atHand: await accountsAtHand() },
  );
  // Taken back with the batch, it is gone from the inventory again.
  const context = { actor, why: 'scan' as const, at: new Date(), runId: batch.runId };
  await recordChanges(tx, context, [{ itemId: id, itemVersion: 1, field: 'standing', from: 'deleted', to: 'active' }]);
  return id;
}

/** Units for an item that is there already; it keeps its own words, price and place. */
async function addUnits(tx: Tx, recording: Recording, known: KnownPiece): Promise<Became> {
  const { actor, batch, settings } = recording;
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
        accounts: await accountsAtHand(),
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
