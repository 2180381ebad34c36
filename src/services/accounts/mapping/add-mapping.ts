import { z } from 'zod';
import { nameKey } from '../../../core/rules';
import { database } from '../../../db/client';
import { mapping } from '../../../db/schema';
import type { Actor } from '../../access/actor';
import { recheckMarket } from '../../records/listings/recheck-market';

export const addMappingSchema = z
  .object({
    market: z.string().min(1).max(40),
    kind: z.enum(['attribute', 'value']),
    /** Their attribute. */
    attribute: z.string().min(1).max(60),
    /** Our attribute's name, or our value. */
    source: z.string().trim().min(1).max(190),
    /** Their value; not needed for names. */
    target: z.string().max(190).default(''),
  })
  .strict();

/** Matches one of our names or values with one of theirs, for every item that says the same. */
export async function addMapping(actor: Actor, input: z.infer<typeof addMappingSchema>): Promise<void> {
  const { market, kind, attribute } = input;
  const source = kind === 'value' ? nameKey(input.source) : input.source;
  const row = { market, kind, attribute, source, target: input.target, byName: actor.name, at: new Date() };
  await database()
    .insert(mapping)
    .values({ ...row, detail: null })
    .onDuplicateKeyUpdate({ set: { target: row.target, byName: row.byName, at: row.at } });
  await recheckMarket(market);
}
