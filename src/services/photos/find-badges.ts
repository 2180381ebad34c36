import { asc, sql } from 'drizzle-orm';
import { z } from 'zod';
import { badgeArtSchema } from '../../core/photo/layer';
import { database } from '../../db/client';
import { badge } from '../../db/schema';
import { findRemoved, type Removed } from '../records/removed/removed';

export const badgeSchema = z.object({ id: z.number(), name: z.string(), art: badgeArtSchema });
export type Badge = z.infer<typeof badgeSchema>;

/** A recipe of which the badge of this number is a layer, as it is kept. */
export const carries = (id: number) => sql`json_contains(recipe, ${JSON.stringify({ badge: id })}, '$.layers')`;

/** The kept badges, by name, and those that can be had back. */
export const findBadges = async (): Promise<{ badges: Badge[]; removed: Removed[] }> => ({
  badges: await database()
    .select({ id: badge.id, name: badge.name, art: badge.art })
    .from(badge)
    .orderBy(asc(badge.name)),
  removed: await findRemoved('badge'),
});
