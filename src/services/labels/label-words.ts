import { and, eq, inArray } from 'drizzle-orm';
import { NettingError } from '../../core/errors';
import { conditionLabel } from '../../core/item';
import { commandLabels, type LabelRequest, type LabelWords, mostLabels } from '../../core/label';
import { formatMoney } from '../../core/measure';
import { database } from '../../db/client';
import { item, listing } from '../../db/schema';
import { batchPieces } from '../records/batches/batch-pieces';
import { findPresets } from '../records/batches/find-presets';
import { loadBatch } from '../records/batches/load-batch';

/** What each label says, in the order of what was asked for. */
export async function labelWords(request: LabelRequest): Promise<LabelWords[]> {
  const words = await allWords(request);
  if (words.length === 0)
    throw new NettingError('invalid', 'There is nothing to be printed', {
      fix: 'Choose items, a batch, or write places',
    });
  if (words.length > mostLabels)
    throw new NettingError('invalid', `${words.length.toLocaleString('en')} labels are too many at once`, {
      field: 'items',
      fix: `Print ${mostLabels.toLocaleString('en')} at a time`,
    });
  return words;
}

async function allWords(request: LabelRequest): Promise<LabelWords[]> {
  const { kind, places, copies } = request;
  if (kind === 'command') return commandLabels(await findPresets());
  if (kind === 'shelf') return places.map((place) => ({ kind, code: place, title: place, facts: [], price: '' }));
  const pieces = await piecesOf(request);
  const items = new Map((await labelItems(pieces.map((one) => one.id))).map((one) => [one.id, one]));
  const codes = await codesOf([...items.values()], request);
  return pieces.flatMap(({ id, units }) => {
    const found = items.get(id);
    const code = codes.get(id);
    if (!found || !code) return [];
    const { title, sku, condition, location, price, currency, quantity } = found;
    const one: LabelWords = {
      kind,
      code,
      title: title || sku,
      facts: [conditionLabel(condition), location],
      price: price === null ? '' : formatMoney(price, currency),
    };
    return Array.from({ length: Math.max(0, copies === 'units' ? (units ?? quantity) : copies) }, () => one);
  });
}

type LabelItem = Awaited<ReturnType<typeof labelItems>>[number];

/** Items as far as labels speak of them. */
const labelItems = (ids: readonly number[]) => {
  const { id, sku, barcode, title, condition, location, price, currency, quantity } = item;
  return database()
    .select({ id, sku, barcode, title, condition, location, price, currency, quantity })
    .from(item)
    .where(inArray(id, [0, ...ids]));
};

/** The pieces that are meant, each with its units; of items by themselves what is in stock. */
async function piecesOf({ items, batch }: LabelRequest): Promise<{ id: number; units: number | null }[]> {
  if (batch === null) return items.map((id) => ({ id, units: null }));
  const db = database();
  const pieces = await batchPieces(db, await loadBatch(db, batch));
  return pieces.map(({ item: [id], units }) => ({ id, units }));
}

/** What the code of each item says. Items that have none are said by their stock numbers. */
async function codesOf(items: readonly LabelItem[], { code }: LabelRequest): Promise<Map<number, string>> {
  if (code === 'sku') return new Map(items.map((one) => [one.id, one.sku]));
  const there =
    code === 'barcode'
      ? new Map(items.map((one) => [one.id, one.barcode]))
      : new Map(
          (
            await database()
              .select({ itemId: listing.itemId, remoteId: listing.remoteId })
              .from(listing)
              .where(and(eq(listing.accountId, code), inArray(listing.itemId, [0, ...items.map((one) => one.id)])))
          ).map((row) => [row.itemId, row.remoteId ?? '']),
        );
  const without = items.filter((one) => !there.get(one.id));
  if (without.length)
    throw new NettingError(
      'invalid',
      `${without.length === 1 ? `${without[0]?.sku} has` : `${without.length} items, such as ${without[0]?.sku}, have`} no ${code === 'barcode' ? 'barcode' : 'number there'}`,
      { field: 'code', fix: 'Print their stock numbers, or leave them out' },
    );
  return there;
}
