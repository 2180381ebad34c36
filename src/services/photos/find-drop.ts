import { and, asc, desc, eq, inArray, isNull, sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { database } from '../../db/client';
import { droppedFile, droppedStates, item, photoDrop, task, tieWays } from '../../db/schema';
import { secondsLeft } from '../records/tasks/running-tasks';
import { countsOf, dropOf, dropSchema, noCounts } from './drop-counts';

export const droppedStateSchema = z.enum(droppedStates);

const fileSchema = z.object({
  id: z.number(),
  path: z.string(),
  hash: z.string().nullable(),
  state: droppedStateSchema,
  said: z.string().nullable(),
  byHand: z.boolean(),
});

export const dropViewSchema = dropSchema.extend({
  way: z.enum(tieWays),
  pattern: z.string(),
  gapSeconds: z.number(),
  /** The first files, with the stock numbers of the items that they are tied to. */
  tried: z.array(z.object({ path: z.string(), sku: z.string().nullable() })),
  groups: z.array(
    z.object({
      itemId: z.number(),
      sku: z.string(),
      title: z.string(),
      photo: z.string().nullable(),
      photoCount: z.number(),
      files: z.array(fileSchema),
    }),
  ),
  /** Items beyond those that are listed. */
  moreItems: z.number(),
  tray: z.array(fileSchema),
  moreInTray: z.number(),
  task: z
    .object({
      id: z.number(),
      state: z.string(),
      done: z.number(),
      total: z.number(),
      secondsLeft: z.number().nullable(),
      runId: z.number().nullable(),
      message: z.string().nullable(),
    })
    .nullable(),
});
export type DropView = z.infer<typeof dropViewSchema>;
export type DroppedFile = z.infer<typeof fileSchema>;

export const findDropSchema = z.object({
  items: z.coerce.number().int().min(1).max(20_000).default(60),
  tray: z.coerce.number().int().min(1).max(20_000).default(120),
});

type FileRow = typeof droppedFile.$inferSelect;
const fileOf = ({ id, path, hash, state, said, tiedBy }: FileRow): DroppedFile => ({
  id,
  path,
  hash,
  state,
  said,
  byHand: tiedBy === 'hand',
});

/** One drop: which files are tied to which items, and which to none. */
export async function findDrop(
  id: number,
  { items: mostItems, tray: mostInTray }: z.infer<typeof findDropSchema>,
): Promise<DropView> {
  const db = database();
  const [row] = await db.select().from(photoDrop).where(eq(photoDrop.id, id));
  if (!row) throw new NettingError('not-found', 'These files are not there any more');
  // Before anything is counted: what is said to be done is counted as done.
  const [work] = await db
    .select()
    .from(task)
    .where(and(eq(task.kind, 'photos'), sql`json_value(${task.input}, '$.drop') = ${id}`))
    .orderBy(desc(task.id))
    .limit(1);
  const counted = (await countsOf([id])).get(id) ?? noCounts;
  const tied = and(eq(droppedFile.dropId, id), eq(droppedFile.state, 'here'), sql`${droppedFile.itemId} is not null`);
  const ids = (
    await db
      .select({ id: item.id })
      .from(droppedFile)
      .innerJoin(item, eq(item.id, droppedFile.itemId))
      .where(tied)
      .groupBy(item.id, item.sku)
      .orderBy(asc(item.sku))
      .limit(mostItems)
  ).map((one) => one.id);
  const shown = ids.length
    ? await db
        .select({
          itemId: item.id,
          sku: item.sku,
          title: item.title,
          photo: item.mainPhoto,
          photoCount: item.photoCount,
        })
        .from(item)
        .where(inArray(item.id, ids))
        .orderBy(asc(item.sku))
    : [];
  const files = ids.length
    ? await db
        .select()
        .from(droppedFile)
        .where(and(tied, inArray(droppedFile.itemId, ids)))
        .orderBy(asc(droppedFile.place), asc(droppedFile.id))
    : [];
  const loose = await db
    .select()
    .from(droppedFile)
    .where(
      and(
        eq(droppedFile.dropId, id),
        sql`(${and(eq(droppedFile.state, 'here'), isNull(droppedFile.itemId))} or ${inArray(droppedFile.state, ['twice', 'refused', 'sheet'])})`,
      ),
    )
    .orderBy(sql`field(${droppedFile.state}, 'here', 'refused', 'twice', 'sheet')`, asc(droppedFile.id))
    .limit(mostInTray);
  const first = await db
    .select({ path: droppedFile.path, sku: item.sku })
    .from(droppedFile)
    .leftJoin(item, eq(item.id, droppedFile.itemId))
    .where(eq(droppedFile.dropId, id))
    .orderBy(asc(droppedFile.id))
    .limit(3);
  return {
    ...dropOf(row, counted),
    way: row.way,
    pattern: row.pattern,
    gapSeconds: row.gapSeconds,
    tried: first,
    groups: shown.map((one) => ({ ...one, files: files.filter((file) => file.itemId === one.itemId).map(fileOf) })),
    moreItems: Math.max(0, counted.items - shown.length),
    tray: loose.map(fileOf),
    moreInTray: Math.max(0, counted.untied + counted.twice + counted.refused + counted.sheets - loose.length),
    task: work
      ? {
          id: work.id,
          state: work.state,
          done: work.doneCount,
          total: work.totalCount,
          secondsLeft: secondsLeft(work, new Date()),
          runId: work.runId,
          message: work.message,
        }
      : null,
  };
}
