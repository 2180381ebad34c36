import { eq } from 'drizzle-orm';
import type { Json } from '../../core/json';
import { cutText, fitTitle, productTitle } from '../../core/listing';
import { transaction } from '../../db/client';
import { listing } from '../../db/schema';
import type { Actor } from '../access/actor';
import type { ViolationRow } from '../accounts/violation-rows';
import { recordChanges } from '../changes/record-changes';
import type { LoadedAccount } from '../records/load-accounts';
import { refreshListings } from '../records/refresh-listings';
import type { FixAll } from './fix-schema';

/** What is written for this marketplace alone, so that the listing fits; undefined when this mend is not of that kind. */
function written(account: LoadedAccount, one: ViolationRow, input: FixAll): Json | undefined {
  const { rules } = account.compiled;
  const present = one.computed.content[input.field];
  const text = typeof present === 'string' ? present : '';
  switch (input.code) {
    case 'title-long':
      return rules.title
        ? fitTitle(text, rules.title.max, [one.item.brand, one.item.model], [one.item.category]).text
        : undefined;
    case 'title-pattern': {
      const colour = one.computed.values.find((value) => /^attr\.(colour|shade)/.test(value.field))?.value;
      return rules.title
        ? productTitle({ ...one.item, title: text }, String(colour ?? ''), rules.title.max).text
        : undefined;
    }
    case 'description-long':
      return rules.description ? cutText(text, rules.description.max).text : undefined;
    case 'note-long':
      return rules.conditionNote ? cutText(text, rules.conditionNote.max).text : undefined;
    default:
      return input.value;
  }
}

export async function writeAll(
  actor: Actor,
  account: LoadedAccount,
  rows: ViolationRow[],
  input: FixAll,
): Promise<void> {
  await transaction(async (tx) => {
    const at = new Date();
    for (const one of rows) {
      const value = written(account, one, input);
      if (value === undefined) continue;
      const overrides = { ...one.row.overrides, [input.field]: value };
      await tx.update(listing).set({ overrides }).where(eq(listing.id, one.row.id));
      await recordChanges(tx, { actor, why: 'typing', at }, [
        {
          itemId: one.item.id,
          listingId: one.row.id,
          itemVersion: one.item.version,
          field: input.field,
          from: one.row.overrides[input.field] ?? null,
          to: value,
        },
      ]);
    }
    await refreshListings(tx, [...new Set(rows.map((one) => one.item.id))]);
  });
}
