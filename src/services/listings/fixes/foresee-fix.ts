import { z } from 'zod';
import { NettingError } from '../../../core/errors';
import { jsonSchema } from '../../../core/json';
import { database } from '../../../db/client';
import { endThere, fixOptions } from '../../accounts/rules/fix-options';
import { violationKey } from '../../accounts/rules/violation-rows';
import { loadAccounts } from '../../records/accounts/load-accounts';
import { concerned } from './fix-all';
import type { FixSeen } from './fix-schema';
import { written } from './write-fixes';

export const foreseenFixSchema = z.object({
  count: z.number(),
  /** They are ended there, nothing is written. */
  ends: z.boolean(),
  currency: z.string(),
  /** The first of them, with what the field holds there and what it would. */
  listings: z.array(z.object({ itemId: z.number(), sku: z.string(), before: jsonSchema, after: jsonSchema })),
});

const shown = 12;

/** What a mend would make of the listings that it is for. Nothing is changed. */
export async function foreseeFix(input: FixSeen): Promise<z.infer<typeof foreseenFixSchema>> {
  const [account] = await loadAccounts(database(), [input.accountId]);
  if (!account) throw new NettingError('not-found', 'There is no such account');
  const rows = await concerned(account, input);
  const ends = input.code === 'price-range' && input.value === endThere;
  const listings = rows.slice(0, shown).map((one) => {
    const before = one.computed.content[input.field] ?? null;
    const issue = one.issues.find((each) => violationKey(each) === violationKey(input));
    // What is chosen from a list is said by its name there.
    const choices = issue ? fixOptions(account, issue, one.item).choices : [];
    const named = choices.find((choice) => choice.id === input.value);
    const made = written(account, one, input);
    const after = input.code === 'price-range' || made !== input.value ? made : (named?.label ?? made);
    return { itemId: one.item.id, sku: one.item.sku, before, after: ends ? null : (after ?? null) };
  });
  return { count: rows.length, ends, currency: account.compiled.rules.currency, listings };
}
