import { asc, sql } from 'drizzle-orm';
import { z } from 'zod';
import { badgeArtSchema } from '../../core/photo/layer';
import { database } from '../../db/client';
import { badge } from '../../db/schema';

export const badgeSchema = z.object({ id: z.number(), name: z.string(), art: badgeArtSchema });
export type Badge = z.infer<typeof badgeSchema>;

/** A recipe of which the badge of this number is a layer, as it is kept. */
export const carries = (id: number) => sql`json_contains(recipe, ${JSON.stringify({ badge: id })}, '$.layers')`;

/** The kept badges, by name. */
export const findBadges = async (): Promise<{ badges: Badge[] }> => ({
  badges: await database()
    .select({ id: badge.id, name: badge.name, art: badge.art })
    .from(badge)
    .orderBy(asc(badge.name)),
});
