import { and, asc, eq, inArray, isNull, ne, or, sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import {
  type DroppedPhoto,
  keyOf,
  readNamePattern,
  saidBy,
  type Tie,
  tieByBarcode,
  tieByName,
  tieByTime,
} from '../../core/photo/tie';
import { type Executor, transaction } from '../../db/client';
import { type DroppedRow, droppedFile, item, photoDrop, tieWays } from '../../db/schema';
import { openDrop } from './open-drop';

export const tieDropSchema = z
  .object({
    way: z.enum(tieWays),
    pattern: z
      .string()
      .trim()
      .max(120)
      .default('')
      .describe('How names are read, with {sku}, {n} and *; empty for the usual ways'),
    gapSeconds: z.number().int().min(1).max(86_400).default(60),
  })
  .strict();

const atOnce = 1_000;

/** Items by their stock numbers and barcodes, of these names. */
async function keysOf(db: Executor, names: readonly string[]): Promise<Map<string, number>> {
  const wanted = [...new Set(names)].filter((one) => one.length <= 40);
  const found = new Map<string, number>();
  for (let at = 0; at < wanted.length; at += atOnce) {
    const some = wanted.slice(at, at + atOnce);
    const digits = some.filter((one) => /^\d{8,14}$/.test(one));
    const codes = digits.flatMap((one) => [
      one,
      one.padStart(8, '0'),
      one.padStart(12, '0'),
      one.padStart(13, '0'),
      one.padStart(14, '0'),
    ]);
    const rows = await db
      .select({ id: item.id, sku: item.sku, barcode: item.barcode })
      .from(item)
      .where(
        and(
          ne(item.standing, 'deleted'),
          or(inArray(item.sku, some), codes.length ? inArray(item.barcode, codes) : undefined),
        ),
      );
    for (const row of rows) {
      if (row.barcode && !found.has(keyOf(row.barcode))) found.set(keyOf(row.barcode), row.id);
      // A stock number names one item alone; a barcode may be that of several.
      found.set(keyOf(row.sku), row.id);
    }
  }
  return found;
}

const mostWaiting = 5_000;

/** Items without photos, in the order in which they were recorded. */
const waiting = async (db: Executor): Promise<number[]> =>
  (
    await db
      .select({ id: item.id })
      .from(item)
      .where(and(eq(item.standing, 'active'), eq(item.photoCount, 0)))
      .orderBy(asc(item.createdAt), asc(item.id))
      .limit(mostWaiting)
  ).map((one) => one.id);

const photoOf = ({ id, path, takenAt, codes }: DroppedRow): DroppedPhoto => ({
  id,
  path,
  takenAt: takenAt?.getTime() ?? null,
  codes: codes ?? [],
});

async function tiesOf(db: Executor, photos: DroppedPhoto[], how: z.infer<typeof tieDropSchema>): Promise<Tie[]> {
  if (how.way === 'time') return tieByTime(photos, await waiting(db), how.gapSeconds);
  if (how.way === 'barcode')
    return tieByBarcode(
      photos,
      await keysOf(
        db,
        photos.flatMap((one) => one.codes.map(keyOf)),
      ),
    );
  const names = photos.flatMap((one) => saidBy(one.path, how.pattern).map((said) => said.key));
  return tieByName(photos, await keysOf(db, names), how.pattern);
}

/** Ties what was dropped to items, one way or another; what a person has tied by hand stays so. */
export async function tieDrop(dropId: number, how: z.infer<typeof tieDropSchema>): Promise<void> {
  if (how.way === 'name' && how.pattern) {
    const read = readNamePattern(how.pattern);
    if ('problem' in read) throw new NettingError('invalid', read.problem, { field: 'pattern' });
  }
  await transaction(async (tx) => {
    await openDrop(tx, dropId);
    await tx.update(photoDrop).set(how).where(eq(photoDrop.id, dropId));
    const rows = await tx
      .select()
      .from(droppedFile)
      .where(
        and(
          eq(droppedFile.dropId, dropId),
          inArray(droppedFile.state, ['here', 'sheet']),
          or(isNull(droppedFile.tiedBy), ne(droppedFile.tiedBy, 'hand')),
        ),
      )
      .orderBy(asc(droppedFile.id))
      .for('update');
    const ties = await tiesOf(tx, rows.map(photoOf), how);
    for (let at = 0; at < ties.length; at += 500) {
      const some = ties.slice(at, at + 500);
      const when = (value: (one: Tie) => unknown) =>
        sql.join([sql`case id`, ...some.map((one) => sql`when ${one.id} then ${value(one)}`), sql`end`], sql` `);
      await tx.execute(sql`
        update dropped_file set
          item_id = ${when((one) => one.item)}, state = ${when((one) => (one.as === 'sheet' ? 'sheet' : 'here'))},
          place = ${when((one) => one.place)}, said = ${when((one) => one.said)}, tied_by = ${when((one) => (one.item === null ? null : how.way))}
        where id in ${some.map((one) => one.id)}`);
    }
  });
}
