import { eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import type { Change, Refusal } from '../../../core/change';
import { type Catalogue, fieldsFor, fieldValue } from '../../../core/field';
import type { Item } from '../../../core/item';
import { jsonSchema, sameJson } from '../../../core/json';
import { homeCurrency } from '../../../core/measure';
import { transaction } from '../../../db/client';
import { run } from '../../../db/schema';
import type { Actor } from '../../access/actor';
import { loadCustomFields } from '../../records/items/load-custom-fields';
import { commitItems } from './commit-items';

export const writeCellsSchema = z
  .object({
    cells: z
      .array(
        z
          .object({
            item: z.number().int().positive(),
            field: z.string().min(1).max(80),
            /** As it was typed or pasted; read as the field is read everywhere. */
            text: z.string().max(60_000),
            /** What stood there when it was typed; another value there now is not overwritten. */
            from: jsonSchema.optional(),
          })
          .strict(),
      )
      .min(1)
      .max(5_000),
  })
  .strict();
type Cell = z.infer<typeof writeCellsSchema>['cells'][number];

export const writtenCellsSchema = z.object({
  /** What takes all of it back; null when nothing became different. */
  runId: z.number().nullable(),
  items: z.number(),
  refused: z.array(z.object({ item: z.number(), field: z.string(), why: z.string() })),
});
export type WrittenCells = z.infer<typeof writtenCellsSchema>;

/** So many items are held at once: a sale in the middle never waits for long. */
const portion = 200;

function changeOf(cell: Cell, item: Item, catalogue: Catalogue): Change | Refusal {
  const { field: id, text, from } = cell;
  const refused = (why: string, kind: Refusal['kind'] = 'invalid'): Refusal => ({
    item: item.id,
    field: id,
    kind,
    why,
  });
  const field = catalogue.item(id);
  if (!field || field.traits.byItself) return refused(`There is no field ${id} to be typed into`);
  const now = fieldValue(item, id);
  if (from !== undefined && !sameJson(now, from))
    return refused(
      `${field.label} was changed meanwhile, to ${field.show(now, { currency: homeCurrency })}`,
      'conflict',
    );
  const read = field.read(text, { currency: homeCurrency });
  return 'problem' in read ? refused(read.problem) : { target: { item: item.id }, field: id, to: read.value };
}

/**
 * Writes cells of the inventory, typed or pasted, each with a value of its own. An item with a cell that cannot be read,
 * or that somebody else has changed, stays as it is and is named; the others are written, as one run that can be taken
 * back.
 */
export async function writeCells(actor: Actor, { cells }: z.infer<typeof writeCellsSchema>): Promise<WrittenCells> {
  const byItem = new Map<number, Cell[]>();
  for (const cell of cells) byItem.set(cell.item, [...(byItem.get(cell.item) ?? []), cell]);
  const ids = [...byItem.keys()].sort((a, b) => a - b);
  const title = `Typed in the inventory: ${cells.length.toLocaleString('en')} ${cells.length === 1 ? 'cell' : 'cells'}`;
  const runId = await transaction(async (tx) => {
    const [{ insertId }] = await tx
      .insert(run)
      .values({ kind: 'edit', title, detail: {}, itemCount: 0, byName: actor.name });
    return insertId;
  });
  let changed = 0;
  const refused: WrittenCells['refused'] = [];
  for (let at = 0; at < ids.length; at += portion) {
    const some = ids.slice(at, at + portion);
    const committed = await transaction(async (tx) => {
      const catalogue = fieldsFor(await loadCustomFields(tx));
      const done = await commitItems(
        tx,
        some,
        ({ items }) =>
          items.flatMap((item) => (byItem.get(item.id) ?? []).map((cell) => changeOf(cell, item, catalogue))),
        { actor, why: 'typing', at: new Date(), send: 'stock', runId },
      );
      const count = done.items.filter((one) => one.changes.length).length;
      await tx
        .update(run)
        .set({ itemCount: sql`${run.itemCount} + ${count}` })
        .where(eq(run.id, runId));
      return { count, refused: done.refused, held: new Set(done.items.map((one) => one.itemId)) };
    });
    changed += committed.count;
    refused.push(...committed.refused.map(({ item, field, why }) => ({ item, field, why })));
    for (const id of some)
      if (!committed.held.has(id)) refused.push({ item: id, field: '', why: `There is no item ${id}` });
  }
  if (changed > 0) return { runId, items: changed, refused };
  await transaction((tx) => tx.delete(run).where(eq(run.id, runId)));
  return { runId: null, items: 0, refused };
}
