import { and, eq, ne, sql } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { sameJson } from '../../core/json';
import { type BadgeArt, badgeArtSchema } from '../../core/photo/layer';
import { type Executor, type Tx, transaction } from '../../db/client';
import { rowsOf } from '../../db/rows';
import { badge } from '../../db/schema';
import { wordsRatio } from '../../photos/badge';
import { unknownSigns } from '../../photos/letters';
import type { Actor } from '../access/actor';
import { beginEdit } from '../changes/many/begin-edit';
import { carries } from './find-badges';
import { pictureRatio } from './keep-badge-picture';

const [wordsArt, pictureArt] = badgeArtSchema.options;

/** What is said of a badge; how wide it is follows from it. */
export const badgeInputSchema = z.discriminatedUnion('kind', [
  wordsArt.omit({ ratio: true }),
  pictureArt.omit({ ratio: true }),
]);

export const saveBadgeSchema = z
  .object({
    id: z.number().int().positive().optional().describe('The badge that is changed; a new one when left out'),
    name: z.string().trim().min(1, 'Give it a name').max(60),
    art: badgeInputSchema,
    send: z.boolean().default(false).describe('Also send the photos that carry it'),
  })
  .strict();

/** A badge as it is drawn. */
export async function artOf(input: z.infer<typeof badgeInputSchema>): Promise<BadgeArt> {
  if (input.kind === 'picture') return { ...input, ratio: await pictureRatio(input.hash) };
  const unknown = unknownSigns(input.words);
  if (unknown.length)
    throw new NettingError('invalid', `${unknown.map((one) => `“${one}”`).join(', ')} cannot be drawn`, {
      field: 'words',
      fix: 'Write it in Latin, Greek or Cyrillic letters, or put it in as a picture',
    });
  return { ...input, ratio: wordsRatio(input) };
}

type Own = { id: number; photos: string };

/** Items one of whose photos carries the badge, their own or one that an account gets. */
async function itemsThatCarry(db: Executor, id: number): Promise<number[]> {
  const carrying = rowsOf<{ hash: string }>(
    await db.execute(sql`select hash from photo_file where made_from is not null and ${carries(id)}`),
  ).map((row) => row.hash);
  if (carrying.length === 0) return [];
  const items = rowsOf<{ id: number }>(
    await db.execute(sql`select distinct p.item_id as id from item_photo p where p.hash in ${carrying}`),
  );
  const own = rowsOf<Own>(
    await db.execute(
      sql`select item_id as id, cast(json_extract(overrides, '$.photos') as char) as photos from listing where json_extract(overrides, '$.photos') like '%@%'`,
    ),
  );
  const wanted = new Set(carrying);
  const there = own.filter(({ photos }) => [...photos.matchAll(/[0-9a-f]{64}/g)].some(([hash]) => wanted.has(hash)));
  return [...new Set([...items, ...there].map((row) => Number(row.id)))].sort((a, b) => a - b);
}

/**
 * Keeps a badge. One that is drawn otherwise from now on is so on every photo that carries it, as a change of many that
 * can be taken back.
 */
export async function saveBadge(
  actor: Actor,
  input: z.infer<typeof saveBadgeSchema>,
): Promise<{ id: number; changing: number; runId: number | null }> {
  const art = await artOf(input.art);
  return transaction(async (tx) => {
    const { id, name } = input;
    const [namesake] = await tx
      .select({ id: badge.id })
      .from(badge)
      .where(and(eq(badge.name, name), id === undefined ? undefined : ne(badge.id, id)));
    if (namesake)
      throw new NettingError('conflict', `There is a badge ${name} already`, {
        field: 'name',
        fix: 'Call it otherwise',
      });
    if (id !== undefined) return changeBadge(tx, actor, { ...input, id, art });
    const [{ insertId }] = await tx.insert(badge).values({ name, art, byName: actor.name, at: new Date() });
    return { id: insertId, changing: 0, runId: null };
  });
}

async function changeBadge(
  tx: Tx,
  actor: Actor,
  { id, name, art, send }: { id: number; name: string; art: BadgeArt; send: boolean },
): Promise<{ id: number; changing: number; runId: number | null }> {
  const [before] = await tx.select().from(badge).where(eq(badge.id, id)).for('update');
  if (!before) throw new NettingError('not-found', 'This badge is not there any more');
  await tx.update(badge).set({ name, art }).where(eq(badge.id, id));
  const ids = sameJson(before.art, art) ? [] : await itemsThatCarry(tx, id);
  if (ids.length === 0) return { id, changing: 0, runId: null };
  const what = { verb: 'photo-rebadge' as const, badge: id, art };
  const task = await beginEdit(tx, actor, {
    ids,
    steps: [
      { field: 'photos', where: { on: 'item' }, do: what },
      { field: 'photos', where: { on: 'overrides' }, do: what },
    ],
    send,
    title: `The badge ${name} as it is drawn now`,
  });
  return { id, changing: ids.length, runId: task.runId };
}
