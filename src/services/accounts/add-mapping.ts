import { z } from 'zod';
import { nameKey } from '../../core/rules';
import { database } from '../../db/client';
import { learned } from '../../db/schema';
import type { Actor } from '../access/actor';
import { recheckMarket } from '../records/recheck-market';

export const learnSchema = z
  .object({
    market: z.string().min(1).max(40),
    kind: z.enum(['attribute', 'value']),
    /** Their attribute. */
    attribute: z.string().min(1).max(60),
    /** Our attribute's name, or our value. */
    said: z.string().trim().min(1).max(190),
    /** Their value; not needed for names. */
    theirs: z.string().max(190).default(''),
  })
  .strict();

/** Matches one of our names or values with one of theirs, for every item that says the same. */
export async function learn(actor: Actor, input: z.infer<typeof learnSchema>): Promise<void> {
  const { market, kind, attribute } = input;
  const said = kind === 'value' ? nameKey(input.said) : input.said;
  const row = { market, kind, place: attribute, said, theirs: input.theirs, byName: actor.name, at: new Date() };
  await database()
    .insert(learned)
    .values({ ...row, detail: null })
    .onDuplicateKeyUpdate({ set: { theirs: row.theirs, byName: row.byName, at: row.at } });
  await recheckMarket(market);
}
