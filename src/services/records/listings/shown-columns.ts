import { driftedFields } from '../../../core/sync';
import type { ListingRow } from '../../../db/schema';
import type { RemoteListing } from '../../../markets';

/** A refusal in review needs a person; the reasons stay with the listing, and the first field that they are about. */
export const refusalOf = ({ state, reasons = [] }: Pick<RemoteListing, 'state' | 'reasons'>) =>
  state === 'refused'
    ? {
        problem: true,
        refusal: (reasons.map((one) => one.text).join(' ') || 'No reason was given').slice(0, 500),
        refusalField: reasons.find((one) => one.field !== undefined)?.field?.slice(0, 80) ?? null,
      }
    : { refusal: null, refusalField: null };

/** Whether they show something that we did not send. Their quantity falls by sales, which come as events of their own. */
export const hasDrifted = (base: ListingRow['base'], seen: RemoteListing['content']): boolean =>
  driftedFields(base ?? {}, seen).some((field) => field !== 'quantity' && field !== 'sku');
