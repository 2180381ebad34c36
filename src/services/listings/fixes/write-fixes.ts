import { eq } from 'drizzle-orm';
import type { Change } from '../../../core/change';
import type { Json } from '../../../core/json';
import { cutText, fitTitle, productTitle } from '../../../core/listing';
import { transaction } from '../../../db/client';
import { run } from '../../../db/schema';
import type { Actor } from '../../access/actor';
import type { ViolationRow } from '../../accounts/rules/violation-rows';
import { commitItems } from '../../changes/commit/commit-items';
import type { LoadedAccount } from '../../records/accounts/load-accounts';
import type { FixAll, FixSeen } from './fix-schema';

/** What is written for this marketplace alone, so that the listing fits; undefined when this mend is not of that kind. */
export function written(account: LoadedAccount, one: ViolationRow, input: FixSeen): Json | undefined {
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
    case 'price-range':
      return rules.price && typeof present === 'number'
        ? Math.min(rules.price.max, Math.max(rules.price.min, present))
        : undefined;
    case 'description-long':
      return rules.description ? cutText(text, rules.description.max).text : undefined;
    case 'note-long':
      return rules.conditionNote ? cutText(text, rules.conditionNote.max).text : undefined;
    default:
      return input.value;
  }
}

/** Writes the mend into every one of these listings, as one run that can be taken back. Returns the run, if anything was to be written. */
export async function writeAll(
  actor: Actor,
  account: LoadedAccount,
  rows: ViolationRow[],
  input: FixAll,
  title: string,
): Promise<number | null> {
  const changes = rows.flatMap((one): Change[] => {
    const to = written(account, one, input);
    return to === undefined ? [] : [{ target: { item: one.item.id, account: account.id }, field: input.field, to }];
  });
  if (changes.length === 0) return null;
  return transaction(async (tx) => {
    const [{ insertId: runId }] = await tx
      .insert(run)
      .values({ kind: 'edit', title: title.slice(0, 200), detail: {}, itemCount: 0, byName: actor.name });
    const ids = changes.map(({ target }) => target.item);
    const { items } = await commitItems(tx, ids, () => changes, {
      actor,
      why: 'typing',
      at: new Date(),
      runId,
      send: 'falls',
    });
    await tx
      .update(run)
      .set({ itemCount: items.filter((one) => one.changes.length).length })
      .where(eq(run.id, runId));
    return runId;
  });
}
