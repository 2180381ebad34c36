import type { ItemRecord, Meant } from '../../../core/change';
import type { Item } from '../../../core/item';
import { standsThere } from '../../../core/sync';
import type { ListingRow } from '../../../db/schema';

/** What of a listing says whether its item is meant for the account. */
export type Meaning = Pick<ListingRow, 'wanted' | 'remote' | 'busy'>;

const meantBy = ({ wanted, remote, busy }: Meaning): Meant =>
  standsThere(remote) ? 'live' : busy ? 'busy' : wanted === 'none' ? 'no' : 'yes';

/** An item with what is said of it for each account, as changes are carried out on it. */
export const itemRecord = (
  item: Item,
  rows: readonly (Meaning & Pick<ListingRow, 'accountId' | 'overrides'>)[],
): ItemRecord => ({
  item,
  overrides: new Map(rows.map((row) => [row.accountId, row.overrides])),
  meant: new Map(rows.map((row) => [row.accountId, meantBy(row)])),
});
