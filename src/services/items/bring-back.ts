import { eq } from 'drizzle-orm';
import { type Change, invert, isReturnable } from '../../core/change';
import { NettingError } from '../../core/errors';
import { fieldsFor, fieldValue } from '../../core/field';
import type { Json } from '../../core/json';
import { transaction } from '../../db/client';
import { changeRecord, listing } from '../../db/schema';
import type { Actor } from '../access/actor';
import { commitItems } from '../changes/commit/commit-items';
import { allCommitted } from '../changes/commit/refusal-error';
import { loadCustomFields } from '../records/items/load-custom-fields';
import { knownPhotos } from '../records/photos/known-photos';
import { photoChanges } from './photo-changes';

/** Brings one field back to what it was before a change. That is a change itself and can be returned again. */
export async function returnChange(actor: Actor, itemId: number, changeId: number): Promise<{ field: string }> {
  return transaction(async (tx) => {
    const [row] = await tx.select().from(changeRecord).where(eq(changeRecord.id, changeId));
    if (!row || row.itemId !== itemId) throw new NettingError('not-found', 'There is no such change');
    const { field } = row;
    const from = (row.from ?? null) as Json; // the record holds JSON values only
    if (row.why === 'sale') throw new NettingError('invalid', 'What was sold is not brought back like this', { field });
    if (!isReturnable(row))
      throw new NettingError('invalid', 'This is not a field that can be brought back', { field });
    const [there] = row.listingId
      ? await tx.select({ account: listing.accountId }).from(listing).where(eq(listing.id, row.listingId))
      : [];
    if (row.listingId && !there) throw new NettingError('not-found', 'The listing is gone');
    const catalogue = fieldsFor(await loadCustomFields(tx));
    const photos = field === 'photos' && Array.isArray(from) ? await knownPhotos(tx, from.map(String)) : [];
    allCommitted(
      await commitItems(
        tx,
        [itemId],
        ({ items: [item], listings }): Change[] => {
          if (!item) throw new NettingError('not-found', `There is no item ${itemId}`);
          const target = { item: itemId, account: there?.account, combination: row.combination ?? undefined };
          if (target.combination !== undefined) return [{ target, field, to: from }];
          if (there) return [{ target, field, ...(from === null ? {} : { to: from }) }];
          const known = catalogue.item(field);
          if (!known) throw new NettingError('invalid', 'This is not a field that can be brought back', { field });
          if (field === 'photos' && Array.isArray(from)) return photoChanges(item, listings, from.map(String));
          // Units come back as what moved, never as a number; what was sold since stays sold.
          if (known.kind.is !== 'combinations') return [{ target, field, to: from }];
          const inverse = invert({ from, to: (row.to ?? null) as Json }, fieldValue(item, field), known); // JSON as above
          if (inverse.kind === 'changed-since')
            throw new NettingError('conflict', 'The table was changed since', { field, fix: 'Change it by hand' });
          return [{ target, field, to: inverse.to }];
        },
        { actor, why: 'typing', at: new Date(), send: 'stock', photos },
      ),
    );
    return { field };
  });
}
