import { and, desc, eq, lt, ne, sql } from 'drizzle-orm';
import { z } from 'zod';
import {
  areaSchema,
  artworkOf,
  isByHand,
  type Print,
  placingSchema,
  printsOf,
  scoreGround,
  verdictSchema,
  visibleSchema,
} from '../../core/artwork';
import { chooseTemplate, printTemplates } from '../../core/listing';
import { database } from '../../db/client';
import { artwork, item } from '../../db/schema';
import { accountsAtHand } from '../records/accounts/accounts-at-hand';
import { loadItems } from '../records/items/load-items';
import { allGrounds } from './all-grounds';

export const findSightsSchema = z
  .object({
    before: z.coerce.number().int().positive().optional(),
    limit: z.coerce.number().int().min(1).max(100).default(24),
  })
  .strict();

const sightSchema = z.object({
  product: z.string(),
  area: areaSchema,
  placing: placingSchema,
  isByHand: z.boolean(),
  background: z.string().nullable(),
  ground: z.string(),
  colour: z.string().nullable(),
  verdict: verdictSchema.nullable(),
  isOffered: z.boolean(),
  /** How well it reads there, 0 to 100, and why; null for a product without grounds. */
  score: z.number().nullable(),
  why: z.string(),
  /** The accounts whose templates say so. */
  accounts: z.array(z.object({ id: z.number(), name: z.string() })),
});

const sightsOfArtworkSchema = z.object({
  itemId: z.number(),
  title: z.string(),
  hash: z.string(),
  width: z.number(),
  height: z.number(),
  visible: visibleSchema,
  sights: z.array(sightSchema),
  /** Accounts whose product templates do not fit it, by name. */
  without: z.array(z.string()),
});
export type SightsOfArtwork = z.infer<typeof sightsOfArtworkSchema>;

export const sightsSchema = z.object({
  artworks: z.array(sightsOfArtworkSchema),
  /** How many product templates there are; without any there is nothing to be seen. */
  templates: z.number(),
  next: z.number().nullable(),
});

/** Artwork as it will look on every product and ground that its templates name, the newest first. */
export async function findSights({
  before,
  limit,
}: z.output<typeof findSightsSchema>): Promise<z.infer<typeof sightsSchema>> {
  const db = database();
  const rows = await db
    .select({ id: artwork.itemId, tones: artwork.tones })
    .from(artwork)
    .innerJoin(item, eq(item.id, artwork.itemId))
    .where(and(ne(item.standing, sql`2`), before ? lt(artwork.itemId, before) : undefined))
    .orderBy(desc(artwork.itemId))
    .limit(limit);
  const tonesOf = new Map(rows.map((one) => [one.id, one.tones]));
  const accounts = (await accountsAtHand()).map((account) => ({
    account,
    templates: printTemplates(account.templates),
  }));
  const colours = new Map((await allGrounds()).map((one) => [one.name.toLowerCase(), one]));
  const found = await loadItems(
    db,
    rows.map((one) => one.id),
  );
  return {
    artworks: found.flatMap((one): SightsOfArtwork[] => {
      const art = artworkOf(one);
      if (!art) return [];
      const sights = new Map<string, z.infer<typeof sightSchema>>();
      const without: string[] = [];
      const tones = tonesOf.get(one.id);
      const add = (account: { id: number; name: string }, background: string | null, print: Print) => {
        for (const ground of print.grounds) {
          const key = `${print.product} / ${ground.name}`;
          const known = sights.get(key);
          if (known) {
            known.accounts.push(account);
            continue;
          }
          const offered = colours.get(ground.name.toLowerCase());
          const score = tones && offered ? scoreGround(tones, offered) : null;
          sights.set(key, {
            product: print.product,
            area: print.area,
            placing: print.placing,
            isByHand: isByHand(one, print.product),
            background,
            ground: ground.name,
            colour: ground.colour,
            verdict: ground.verdict,
            isOffered: ground.isOffered,
            score: score?.score ?? null,
            why: score?.why ?? '',
            accounts: [account],
          });
        }
      };
      for (const { account, templates } of accounts) {
        if (templates.length === 0) continue;
        const chosen = chooseTemplate(templates, one, account.today);
        if (!chosen?.print) without.push(account.name);
        else
          for (const print of printsOf(one, chosen.print, account.compiled).prints)
            add({ id: account.id, name: account.name }, chosen.print.background, print);
      }
      return [
        {
          itemId: one.id,
          title: one.title,
          hash: art.hash,
          width: art.width,
          height: art.height,
          visible: art.visible,
          sights: [...sights.values()],
          without,
        },
      ];
    }),
    templates: new Set(accounts.flatMap((one) => one.templates.map((template) => template.id))).size,
    next: rows.length < limit ? null : (rows.at(-1)?.id ?? null),
  };
}
