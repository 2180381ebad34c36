import { and, asc, desc, eq, inArray, isNull, sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { database } from '../../db/client';
import { rowsOf } from '../../db/rows';
import { droppedFile, droppedStates, item, photoDrop, task, tieWays } from '../../db/schema';
import { secondsLeft } from '../records/running-tasks';

export const droppedStateSchema = z.enum(droppedStates);

const fileSchema = z.object({
  id: z.number(),
  path: z.string(),
  hash: z.string().nullable(),
  state: droppedStateSchema,
  said: z.string().nullable(),
  byHand: z.boolean(),
});

const countsSchema = z.object({
  coming: z.number(),
  tied: z.number(),
  untied: z.number(),
  sheets: z.number(),
  twice: z.number(),
  refused: z.number(),
  added: z.number(),
  items: z.number(),
});

export const dropSchema = z.object({
  id: z.number(),
  state: z.enum(['open', 'closed']),
  byName: z.string(),
  at: z.string(),
  counts: countsSchema,
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
  items: z.coerce.number().int().min(1).max(2_000).default(60),
  tray: z.coerce.number().int().min(1).max(5_000).default(120),
});

const counts = sql`
  sum(f.state = 'coming') as coming, sum(f.state = 'here' and f.item_id is not null) as tied, sum(f.state = 'here' and f.item_id is null) as untied,
  sum(f.state = 'sheet') as sheets, sum(f.state = 'twice') as twice, sum(f.state = 'refused') as refused, sum(f.state = 'added') as added,
  count(distinct if(f.state = 'here', f.item_id, null)) as items`;
type Counted = { id: number } & z.infer<typeof countsSchema>;
const none: z.infer<typeof countsSchema> = {
  coming: 0,
  tied: 0,
  untied: 0,
  sheets: 0,
  twice: 0,
  refused: 0,
  added: 0,
  items: 0,
};

async function countsOf(ids: readonly number[]): Promise<Map<number, z.infer<typeof countsSchema>>> {
  if (ids.length === 0) return new Map();
  const rows = rowsOf<Counted>(
    await database().execute(
      sql`select f.drop_id as id, ${counts} from dropped_file f where f.drop_id in ${ids} group by f.drop_id`,
    ),
  );
  return new Map(
    rows.map(({ id, ...row }) => [
      Number(id),
      countsSchema.parse(Object.fromEntries(Object.entries(row).map(([name, value]) => [name, Number(value)]))),
    ]),
  );
}

type DropRow = typeof photoDrop.$inferSelect;
const viewOf = (row: DropRow, counted: z.infer<typeof countsSchema> = none) => ({
  id: row.id,
  state: row.state,
  byName: row.byName,
  at: row.at.toISOString(),
  counts: counted,
});

/** What was dropped and is not done with, newest first. */
export async function findDrops(): Promise<{ drops: z.infer<typeof dropSchema>[] }> {
  const rows = await database()
    .select()
    .from(photoDrop)
    .where(eq(photoDrop.state, 'open'))
    .orderBy(desc(photoDrop.id))
    .limit(50);
  const counted = await countsOf(rows.map((row) => row.id));
  return { drops: rows.map((row) => viewOf(row, counted.get(row.id))) };
}

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
  const counted = (await countsOf([id])).get(id) ?? none;
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
    ...viewOf(row, counted),
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
