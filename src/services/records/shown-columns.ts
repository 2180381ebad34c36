import { driftedFields } from '../../core/sync';
import type { ListingRow } from '../../db/schema';
import type { RemoteListing } from '../../markets';

/** A refusal in review needs a person; the reasons stay with the listing. */
export const refusalOf = (remote: RemoteListing) =>
  remote.state === 'refused'
    ? { problem: true, refusal: (remote.reasons?.join(' ') || 'No reason was given').slice(0, 500) }
    : { refusal: null };

/** Whether they show something that we did not send. Their quantity falls by sales, which come as events of their own. */
export const hasDrifted = (base: ListingRow['base'], seen: RemoteListing['content']): boolean =>
  driftedFields(base ?? {}, seen).some((field) => field !== 'quantity' && field !== 'sku');
